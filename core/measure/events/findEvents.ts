import type { Chapter } from '../chapter.types.ts';
import type { AudioEvent, Span } from '../report.types.ts';
import { findClicks } from './clicks.ts';
import { findDropouts } from './dropouts.ts';
import { findLowBursts } from './lowBursts.ts';
import { findRustle } from './rustle.ts';

/**
 * All events of a chapter but clipping. Where two kinds explain the same moment, the surer one stands:
 * the edges of a break are jumps too, and a thump has a top.
 * @param bursts stretches that were loud but no words
 */
export function findEvents(chapter: Chapter, bursts: readonly Span[]): AudioEvent[] {
  const dropouts = findDropouts(chapter);
  const low = findLowBursts(chapter);
  const knocks = low.filter(({ kind }) => kind !== 'wind');
  const clicks = findClicks(chapter).filter((click) => !near(click, [...dropouts, ...knocks], 0.02));
  const rustle = findRustle(chapter, bursts).filter((event) => !near(event, [...dropouts, ...clicks, ...knocks], 0.02) || event.endS - event.startS > 0.15);
  return [...dropouts, ...clicks, ...low, ...rustle].sort((a, b) => a.startS - b.startS);
}

function near(event: AudioEvent, others: readonly AudioEvent[], reachS: number): boolean {
  return others.some((other) => event.startS < other.endS + reachS && event.endS > other.startS - reachS);
}
