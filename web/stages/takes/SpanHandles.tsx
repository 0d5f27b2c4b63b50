import type { Span } from '@marvet/core/measure/report.types';
import { useEffect, useRef, useState } from 'react';

/** A stretch on the picture whose edges can be moved. */
export interface MovableSpan {
  span: Span;
  /** What its edges are called: begins, ends. */
  names: readonly [string, string];
  className: 'judged' | 'room-tone' | 'one-event';
  shortestS: number;
  /** Settles once it is kept, or refused. */
  onMove(span: Span): Promise<{ error?: unknown }>;
}

interface SpanHandlesProps {
  movable: MovableSpan;
  /** What is shown, in seconds of the file. */
  window: Span;
  lengthS: number;
  /** Where a moment lies across the picture, 0 to 1. */
  share(seconds: number): number;
  /** How far down the picture the level reaches, 0 to 1. */
  heightShare: number;
}

const STEP_S = 0.05;
/** With shift, a step for what lasts a moment. */
const FINE_STEP_S = 0.005;
/** Keys that follow each other faster are one move. */
const SETTLES_MS = 350;

/** Where a stretch begins and ends: two edges on the picture, moved by pointer or by the arrow keys. */
export function SpanHandles({ movable: { span: kept, names, className, shortestS, onMove }, window: [fromS, toS], lengthS, share, heightShare }: SpanHandlesProps) {
  /** Where it was moved to, and what the server said when that was sent: once it says something else, that is shown. */
  const [moved, setMoved] = useState<{ to: Span; sentOver: Span | null } | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const answered = moved?.sentOver && (moved.sentOver[0] !== kept[0] || moved.sentOver[1] !== kept[1]);
  const shown = moved && !answered ? moved.to : kept;
  const at = (edge: number, seconds: number): Span =>
    edge === 0 ? [Math.max(0, Math.min(shown[1] - shortestS, seconds)), shown[1]] : [shown[0], Math.min(lengthS, Math.max(shown[0] + shortestS, seconds))];
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
    setMoved({ to: span, sentOver: kept });
    // What was refused is not left standing as if it were kept.
    void onMove(span).then(({ error }) => error && setMoved(null));
  };
  return (
    <div ref={box} className="span-edges" style={{ height: `${heightShare * 100}%` }}>
      {names.map((name, edge) => {
        const seconds = shown[edge] as number;
        if (seconds < fromS - 1e-6 || seconds > toS + 1e-6) return null;
        return (
          <div
            key={name}
            role="slider"
            tabIndex={0}
            className={`span-edge ${className} ${edge === 0 ? 'begins' : 'ends'}`}
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
              if (!event.currentTarget.hasPointerCapture(event.pointerId) || !box.current) return;
              const { left, width } = box.current.getBoundingClientRect();
              const [start, end] = [share(fromS), share(toS)];
              move(at(edge, fromS + (((event.clientX - left) / width - start) / (end - start)) * (toS - fromS)));
            }}
            onPointerUp={keep}
            onKeyDown={(event) => {
              const step = event.shiftKey ? FINE_STEP_S : STEP_S;
              const by = { ArrowLeft: -step, ArrowRight: step, PageDown: -10 * step, PageUp: 10 * step }[event.key];
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
