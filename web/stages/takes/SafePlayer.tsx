import { useEffect, useRef } from 'react';

/** Volume at which everything starts: about -18 dB, safe on headphones that are left wide open. */
export const SAFE_VOLUME = 0.125;

interface SafePlayerProps {
  src: string;
  label: string;
  onTime?: (seconds: number) => void;
  seekTo?: { atS: number } | null;
}

/** The browser's own player, starting at a low level that the listener may raise. */
export function SafePlayer({ src, label, onTime, seekTo }: SafePlayerProps) {
  const audio = useRef<HTMLAudioElement>(null);
  useEffect(() => {
    if (audio.current) audio.current.volume = SAFE_VOLUME;
  }, []);
  useEffect(() => {
    if (seekTo && audio.current) audio.current.currentTime = seekTo.atS;
  }, [seekTo]);
  return (
    <audio
      ref={audio}
      className="w-100"
      controls
      preload="none"
      src={src}
      aria-label={label}
      title="Starts quietly; raise it with care"
      onTimeUpdate={(event) => onTime?.(event.currentTarget.currentTime)}
    />
  );
}
