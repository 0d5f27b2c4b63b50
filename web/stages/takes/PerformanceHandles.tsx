import type { Span } from '@marvet/core/measure/report.types';
import { useEffect, useRef, useState } from 'react';

interface PerformanceHandlesProps {
  performance: Span;
  /** What is shown, in seconds of the file. */
  window: Span;
  lengthS: number;
  /** Where a moment lies across the picture, 0 to 1. */
  share(seconds: number): number;
  /** How far down the picture the level reaches, 0 to 1. */
  heightShare: number;
  /** Settles once it is kept, or refused. */
  onMove(span: Span): Promise<{ error?: unknown }>;
}

const STEP_S = 0.05;
const LEAST_S = 0.4;
const EDGES = ['begins', 'ends'] as const;
/** Keys that follow each other faster are one move. */
const SETTLES_MS = 350;

/** Where what is judged begins and ends: two edges on the picture, moved by pointer or by the arrow keys. */
export function PerformanceHandles({ performance, window: [fromS, toS], lengthS, share, heightShare, onMove }: PerformanceHandlesProps) {
  /** Where it was moved to, and what the server said when that was sent: once it says something else, that is shown. */
  const [moved, setMoved] = useState<{ to: Span; sentOver: Span | null } | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const answered = moved?.sentOver && (moved.sentOver[0] !== performance[0] || moved.sentOver[1] !== performance[1]);
  const shown = moved && !answered ? moved.to : performance;
  const at = (edge: number, seconds: number): Span =>
    edge === 0 ? [Math.max(0, Math.min(shown[1] - LEAST_S, seconds)), shown[1]] : [shown[0], Math.min(lengthS, Math.max(shown[0] + LEAST_S, seconds))];
  const unkept = useRef<Span | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const move = (span: Span) => {
    unkept.current = span;
    setMoved({ to: span, sentOver: null });
  };
  const keep = () => {
    clearTimeout(timer.current);
    const span = unkept.current;
    unkept.current = null;
    if (!span) return;
    setMoved({ to: span, sentOver: performance });
    // What was refused is not left standing as if it were kept.
    void onMove(span).then(({ error }) => error && setMoved(null));
  };
  return (
    <div ref={box} className="performance-edges" style={{ height: `${heightShare * 100}%` }}>
      {EDGES.map((name, edge) => {
        const seconds = shown[edge] as number;
        if (seconds < fromS - 1e-6 || seconds > toS + 1e-6) return null;
        return (
          <div
            key={name}
            role="slider"
            tabIndex={0}
            className={`performance-edge ${name}`}
            style={{ left: `${share(seconds) * 100}%` }}
            aria-label={`What is judged ${name}`}
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
              if (!event.currentTarget.hasPointerCapture(event.pointerId) || !box.current) return;
              const { left, width } = box.current.getBoundingClientRect();
              const [start, end] = [share(fromS), share(toS)];
              move(at(edge, fromS + (((event.clientX - left) / width - start) / (end - start)) * (toS - fromS)));
            }}
            onPointerUp={keep}
            onKeyDown={(event) => {
              const by = { ArrowLeft: -STEP_S, ArrowRight: STEP_S, PageDown: -10 * STEP_S, PageUp: 10 * STEP_S }[event.key];
              if (by === undefined) return;
              event.preventDefault();
              event.stopPropagation();
              move(at(edge, seconds + by));
              clearTimeout(timer.current);
              timer.current = setTimeout(keep, SETTLES_MS);
            }}
            onBlur={keep}
          />
        );
      })}
    </div>
  );
}
