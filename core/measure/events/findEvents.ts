import type { Heard } from '../chapter.types.ts';
import type { AudioEvent } from '../report.types.ts';
import { findClicks } from './clicks.ts';
import { findDropouts } from './dropouts.ts';
import { findFades } from './fades.ts';
import type { LikelyMoments } from './namer.ts';
import { findNoiseBursts } from './noiseBursts.ts';
import { findStandouts } from './standouts.ts';

/**
 * All events of a chapter but clipping. Where two kinds explain the same moment, the surer one stands:
 * the edges of a break are jumps too, and a thump has a top.
 */
export function findEvents(chapter: Heard, moments: LikelyMoments): AudioEvent[] {
  const dropouts = oneOfEach([...findDropouts(chapter), ...findFades(chapter), ...findNoiseBursts(chapter), ...repeatsOf(chapter)]);
  const standouts = findStandouts(chapter, moments);
  const knocks = standouts.filter(({ kind }) => kind === 'handling');
  const clicks = findClicks(chapter).filter((click) => !near(click, [...dropouts, ...knocks], 0.02));
  // A break-up or a click of a moment is told as what it is, and not as something unknown beside it.
  const others = standouts.filter((event) => event.endS - event.startS > 0.15 || !near(event, [...dropouts, ...clicks], 0.02));
  return [...dropouts, ...clicks, ...others].sort((a, b) => a.startS - b.startS);
}

/** A link that plays its last block again; how bad that is has no level. */
function repeatsOf({ tracks }: Heard): AudioEvent[] {
  return tracks.repeats
    .view()
    .map(({ startSample, endSample }) => ({ kind: 'dropout', startS: startSample / tracks.sampleRateHz, endS: endSample / tracks.sampleRateHz, severityDb: 0 }));
}

/** Break-ups that several look-outs saw are one. */
function oneOfEach(events: readonly AudioEvent[]): AudioEvent[] {
  const out: AudioEvent[] = [];
  for (const event of [...events].sort((a, b) => a.startS - b.startS)) {
    const last = out.at(-1);
    if (last && event.startS <= last.endS + 0.004) {
      last.endS = Math.max(last.endS, event.endS);
      last.severityDb = Math.max(last.severityDb, event.severityDb);
    } else out.push({ ...event });
  }
  return out;
}

function near(event: AudioEvent, others: readonly AudioEvent[], reachS: number): boolean {
  return others.some((other) => event.startS < other.endS + reachS && event.endS > other.startS - reachS);
}
