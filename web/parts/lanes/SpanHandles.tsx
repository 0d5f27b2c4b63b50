import type { Span } from '@marvet/core/measure/report.types';
import { useRef, useState } from 'react';
import { EdgeHandle } from './EdgeHandle.tsx';

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

/** Where a stretch begins and ends: two edges on the picture, moved by pointer or by the arrow keys. */
export function SpanHandles({ movable: { span: kept, names, className, shortestS, onMove }, window, lengthS, share, heightShare }: SpanHandlesProps) {
  /** Where it was moved to, and what the server said when that was sent: once it says something else, that is shown. */
  const [moved, setMoved] = useState<{ to: Span; sentOver: Span | null } | null>(null);
  const answered = moved?.sentOver && (moved.sentOver[0] !== kept[0] || moved.sentOver[1] !== kept[1]);
  const shown = moved && !answered ? moved.to : kept;
  const at = (edge: number, seconds: number): Span =>
    edge === 0 ? [Math.max(0, Math.min(shown[1] - shortestS, seconds)), shown[1]] : [shown[0], Math.min(lengthS, Math.max(shown[0] + shortestS, seconds))];
  const unkept = useRef<Span | null>(null);
  const move = (span: Span) => {
    unkept.current = span;
    setMoved({ to: span, sentOver: null });
  };
  const keep = () => {
    const span = unkept.current;
    unkept.current = null;
    if (!span) return;
    setMoved({ to: span, sentOver: kept });
    // What was refused is not left standing as if it were kept.
    void onMove(span).then(({ error }) => error && setMoved(null));
  };
  return (
    <div className="span-edges" style={{ height: `${heightShare * 100}%` }}>
      {names.map((name, edge) => (
        <EdgeHandle
          key={name}
          name={name}
          className={`${className} ${edge === 0 ? 'begins' : 'ends'}`}
          seconds={shown[edge] as number}
          window={window}
          lengthS={lengthS}
          share={share}
          onMove={(seconds) => move(at(edge, seconds))}
          onKeep={keep}
        />
      ))}
    </div>
  );
}
