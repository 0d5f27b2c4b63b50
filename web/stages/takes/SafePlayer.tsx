import { useEffect, useRef } from 'react';

/** Volume at which everything starts: about -18 dB, safe on headphones that are left wide open. */
export const SAFE_VOLUME = 0.125;

/** A place to go to; with an end, the stretch up to there is played. */
export interface Seek {
  atS: number;
  untilS?: number;
}

interface SafePlayerProps {
  src: string;
  label: string;
  onTime?: (seconds: number) => void;
  seekTo?: Seek | null;
}

/** The browser's own player, starting at a low level that the listener may raise. */
export function SafePlayer({ src, label, onTime, seekTo }: SafePlayerProps) {
  const audio = useRef<HTMLAudioElement>(null);
  const until = useRef<number | null>(null);
  useEffect(() => {
    if (audio.current) audio.current.volume = SAFE_VOLUME;
  }, []);
  useEffect(() => {
    if (!seekTo || !audio.current) return;
    audio.current.currentTime = seekTo.atS;
    until.current = seekTo.untilS ?? null;
    // Playing may be refused until the page was touched; the place is set all the same.
    if (seekTo.untilS !== undefined) audio.current.play().catch(() => undefined);
  }, [seekTo]);
  const tell = ({ currentTarget }: React.SyntheticEvent<HTMLAudioElement>) => {
    if (until.current !== null && currentTarget.currentTime >= until.current) {
      currentTarget.pause();
      until.current = null;
    }
    onTime?.(currentTarget.currentTime);
  };
  return (
    <audio ref={audio} className="w-100" controls preload="none" src={src} aria-label={label} title="Starts quietly; raise it with care" onTimeUpdate={tell} onSeeked={tell} />
  );
}
