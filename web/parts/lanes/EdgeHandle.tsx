import type { Span } from '@marvet/core/measure/report.types';
import { useEffect, useRef } from 'react';

const STEP_S = 0.05;
/** With shift, a step for what lasts a moment. */
const FINE_STEP_S = 0.005;
/** Keys that follow each other faster are one move. */
const SETTLES_MS = 350;

interface EdgeHandleProps {
  /** What it is called. */
  name: string;
  className: string;
  seconds: number;
  /** What is shown, in seconds of the file. */
  window: Span;
  lengthS: number;
  /** Where a moment lies across the picture, 0 to 1. */
  share(seconds: number): number;
  /** Where it is while it is moved. */
  onMove(seconds: number): void;
  /** It was let go of, or the keys have settled. */
  onKeep(): void;
}

/** A moment on the picture that is moved by pointer or by the arrow keys. Stands in an element as wide as the picture. */
export function EdgeHandle({ name, className, seconds, window: [fromS, toS], lengthS, share, onMove, onKeep }: EdgeHandleProps) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const keep = () => {
    clearTimeout(timer.current);
    onKeep();
  };
  if (seconds < fromS - 1e-6 || seconds > toS + 1e-6) return null;
  return (
    <div
      role="slider"
      tabIndex={0}
      className={`span-edge ${className}`}
      style={{ left: `${share(seconds) * 100}%` }}
      aria-label={name}
      aria-valuemin={0}
      aria-valuemax={lengthS}
      aria-valuenow={seconds}
      aria-valuetext={`${seconds.toFixed(2)} s`}
      onPointerDown={(event) => {
        event.preventDefault();
        event.currentTarget.focus();
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        const box = event.currentTarget.parentElement;
        if (!event.currentTarget.hasPointerCapture(event.pointerId) || !box) return;
        const { left, width } = box.getBoundingClientRect();
        const [start, end] = [share(fromS), share(toS)];
        onMove(fromS + (((event.clientX - left) / width - start) / (end - start)) * (toS - fromS));
      }}
      onPointerUp={keep}
      onKeyDown={(event) => {
        const step = event.shiftKey ? FINE_STEP_S : STEP_S;
        const by = { ArrowLeft: -step, ArrowRight: step, PageDown: -10 * step, PageUp: 10 * step }[event.key];
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        onMove(seconds + by);
        clearTimeout(timer.current);
        timer.current = setTimeout(onKeep, SETTLES_MS);
      }}
      onBlur={keep}
    />
  );
}
