import type { Span } from '@marvet/core/measure/report.types';
import { ChevronLeft, ChevronRight, ZoomIn, ZoomOut } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import { type KeyHelp, useKeyHelp } from '../../parts/keys.tsx';

const CLOSEST_S = 0.25;
/** Keys work while the playhead or an edge is held by key, which are sliders. */
export const ON_PICTURE = { enableOnFormTags: ['slider'] } as const;

/** A window on a stretch of time, and what moves it. */
export interface TimeWindow {
  window: Span;
  zoom(factor: number, aboutS?: number): void;
  pan(share: number): void;
  show(window: Span): void;
}

export function useTimeWindow(lengthS: number): TimeWindow {
  const [window, setWindow] = useState<Span | null>(null);
  const shown: Span = window ?? [0, lengthS];
  const width = shown[1] - shown[0];
  const show = ([fromS, toS]: Span) => {
    const wide = Math.max(CLOSEST_S, Math.min(lengthS, toS - fromS));
    const start = Math.max(0, Math.min(lengthS - wide, fromS));
    setWindow(wide >= lengthS ? null : [start, start + wide]);
  };
  return {
    window: shown,
    show,
    zoom(factor, aboutS = (shown[0] + shown[1]) / 2) {
      const share = (aboutS - shown[0]) / width;
      show([aboutS - share * width * factor, aboutS + (1 - share) * width * factor]);
    },
    pan: (share) => show([shown[0] + share * width, shown[1] + share * width]),
  };
}

const KEYS: KeyHelp[] = [
  { keys: '=', does: 'Nearer' },
  { keys: '-', does: 'Wider' },
  { keys: 'Shift ←', does: 'Earlier' },
  { keys: 'Shift →', does: 'Later' },
];

/** Buttons and keys that move the window. */
export function WindowButtons({ time, atS }: { time: TimeWindow; atS: number }) {
  const inside = atS >= time.window[0] && atS <= time.window[1] && atS > 0 ? atS : undefined;
  useKeyHelp(KEYS);
  useHotkeys('equal,shift+equal', () => time.zoom(0.5, inside), ON_PICTURE);
  useHotkeys('minus', () => time.zoom(2, inside), ON_PICTURE);
  useHotkeys('shift+left', () => time.pan(-0.5), ON_PICTURE);
  useHotkeys('shift+right', () => time.pan(0.5), ON_PICTURE);
  return (
    <span className="text-nowrap">
      <Button size="sm" variant="plain" aria-label="Earlier" title="Earlier (Shift and left)" onClick={() => time.pan(-0.5)}>
        <ChevronLeft size={16} aria-hidden />
      </Button>
      <Button size="sm" variant="plain" aria-label="Wider" title="Wider (-)" onClick={() => time.zoom(2, inside)}>
        <ZoomOut size={16} aria-hidden />
      </Button>
      <Button size="sm" variant="plain" aria-label="Nearer" title="Nearer (=)" onClick={() => time.zoom(0.5, inside)}>
        <ZoomIn size={16} aria-hidden />
      </Button>
      <Button size="sm" variant="plain" aria-label="Later" title="Later (Shift and right)" onClick={() => time.pan(0.5)}>
        <ChevronRight size={16} aria-hidden />
      </Button>
      <Button size="sm" variant="plain" onClick={() => time.show([0, Number.MAX_SAFE_INTEGER])}>
        All
      </Button>
    </span>
  );
}
