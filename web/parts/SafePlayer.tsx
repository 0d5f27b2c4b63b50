import { useEffect, useRef } from 'react';

/** Volume at which everything starts: about -18 dB, safe on headphones that are left wide open. */
export const SAFE_VOLUME = 0.125;
/** The playhead is told this often while it plays; a page need not be drawn at every frame of the screen. */
const TOLD_EVERY_MS = 40;

/** A place to go to; with an end, the stretch up to there is played, once or over and over. */
export interface Seek {
  atS: number;
  untilS?: number;
  loop?: boolean;
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
  const stretch = useRef<Seek | null>(null);
  const clock = useRef<ReturnType<typeof setInterval>>(undefined);
  useEffect(() => {
    if (audio.current) audio.current.volume = SAFE_VOLUME;
    return () => clearInterval(clock.current);
  }, []);
  useEffect(() => {
    if (!seekTo || !audio.current) return;
    audio.current.currentTime = seekTo.atS;
    stretch.current = seekTo.untilS === undefined ? null : seekTo;
    // Playing may be refused until the page was touched; the place is set all the same.
    if (seekTo.untilS !== undefined) audio.current.play().catch(() => undefined);
  }, [seekTo]);
  const tell = () => {
    const player = audio.current;
    if (!player) return;
    const { untilS, atS, loop } = stretch.current ?? {};
    if (untilS !== undefined && player.currentTime >= untilS) {
      if (loop) player.currentTime = atS ?? 0;
      else {
        player.pause();
        stretch.current = null;
      }
    }
    onTime?.(player.currentTime);
  };
  // The player itself tells only four times a second, by which a loop would run over.
  const latest = useRef(tell);
  latest.current = tell;
  const follow = () => {
    clearInterval(clock.current);
    clock.current = setInterval(() => latest.current(), TOLD_EVERY_MS);
  };
  return (
    <audio
      ref={audio}
      className="w-100"
      controls
      preload="none"
      src={src}
      aria-label={label}
      title="Starts quietly; raise it with care"
      onPlay={follow}
      onPause={() => clearInterval(clock.current)}
      onSeeked={tell}
      onEnded={tell}
    />
  );
}
