import type { Sight } from '@marvet/core/domain/sight';
import type { KeyboardEvent, MouseEvent } from 'react';

interface MarkedPhotoProps {
  photoId: string;
  spot: Sight['spot'];
  onMark: (spot: NonNullable<Sight['spot']>) => void;
}

const STEP = 0.02;
const MIDDLE = { across: 0.5, down: 0.5 };
const within = (share: number) => Math.round(1000 * Math.max(0, Math.min(1, share))) / 1000;

/** A photograph of the frame with the spot in it: pressed where the microphone is, or moved by the arrow keys. */
export function MarkedPhoto({ photoId, spot, onMark }: MarkedPhotoProps) {
  const pressed = (event: MouseEvent<HTMLButtonElement>) => {
    // A press by the keyboard has no place.
    if (event.detail === 0) return onMark(spot ?? MIDDLE);
    const box = event.currentTarget.getBoundingClientRect();
    onMark({ across: within((event.clientX - box.left) / box.width), down: within((event.clientY - box.top) / box.height) });
  };
  const moved = (event: KeyboardEvent) => {
    const by = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] }[event.key];
    if (!by) return;
    event.preventDefault();
    const from = spot ?? MIDDLE;
    onMark({ across: within(from.across + (by[0] as number)), down: within(from.down + (by[1] as number)) });
  };
  return (
    <button
      type="button"
      className="marked-photo"
      aria-label={
        spot
          ? `The spot is marked at ${Math.round(100 * spot.across)} % across and ${Math.round(100 * spot.down)} % down: press or arrow keys move it`
          : 'Mark the spot: press where it is'
      }
      onClick={pressed}
      onKeyDown={moved}
    >
      <img src={`/api/photos/${photoId}`} alt="The frame" loading="lazy" />
      {spot && <span className="mark-spot" style={{ left: `${100 * spot.across}%`, top: `${100 * spot.down}%` }} />}
    </button>
  );
}
