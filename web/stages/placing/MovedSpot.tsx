import type { KeyboardEvent, PointerEvent, ReactNode } from 'react';
import type { Drawing } from './drawing.ts';

/** A spot of a drawing that is moved by pointer or by the arrow keys. */
interface MovedSpotProps {
  label: string;
  at: Drawing;
  /** Where it is, in the drawing's own units. */
  x: number;
  y: number;
  /** By how many metres from where it is: to the right, and up the drawing. */
  onMove: (byM: { right: number; up: number }, byKey: boolean) => void;
  onRest: () => void;
  /** What an arrow key moves it by; with the shift key five times as much. */
  stepM?: number;
  /** It was touched, or the keyboard came to it. */
  onChoose?: () => void;
  className?: string;
  /** Colour of what stands in it; its letters are in ink. */
  fill?: string | undefined;
  /** What stands in it, where the drawing itself shows nothing there. */
  children?: ReactNode;
}

const STEP_M = 0.02;
const WIDE = 5;

export function MovedSpot({ label, at, x, y, onMove, onRest, stepM = STEP_M, onChoose, className = '', fill, children }: MovedSpotProps) {
  const pointed = (event: PointerEvent<HTMLButtonElement>) => {
    const box = event.currentTarget.parentElement?.getBoundingClientRect();
    if (!box || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const perM = (at.perM * box.width) / at.width;
    onMove({ right: (event.clientX - box.left) / perM - x / at.perM, up: y / at.perM - (event.clientY - box.top) / perM }, false);
  };
  const pressed = (event: KeyboardEvent) => {
    const step = event.shiftKey ? WIDE * stepM : stepM;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key];
    if (!by) return;
    event.preventDefault();
    onMove({ right: by[0] as number, up: by[1] as number }, true);
  };
  return (
    <button
      type="button"
      className={`moved-spot ${className}`}
      aria-label={label}
      style={{ left: `${(100 * x) / at.width}%`, top: `${(100 * y) / at.height}%`, ...(fill ? { background: fill, color: '#171B1E' } : {}) }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={pointed}
      onPointerUp={onRest}
      onKeyDown={pressed}
      onFocus={onChoose}
      onBlur={onRest}
    >
      {children}
    </button>
  );
}
