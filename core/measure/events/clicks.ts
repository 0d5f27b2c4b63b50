import type { Heard } from '../chapter.types.ts';
import type { AudioEvent } from '../report.types.ts';
import { sharedS } from '../spans.ts';
import { meanOf } from '../tracks/frames.ts';
import { flatSpans } from './flatSpans.ts';

/** A jump is compared with all that happens this long before and after it: a few periods of the lowest voice. */
const AROUND_S = 0.03;
/** A click rings on in filters for this long, which does not count against it. */
const OWN_S = 0.0015;
/** How far a jump must stand out of the largest errors around it, and of their mean. */
const OVER_LARGEST_DB = 10;
const OVER_MEAN_DB = 20;
/** What begins with a click and goes on louder or stiller than it was before is the start or the end of a sound: a drum, a door, a word. */
const GOES_ON_S = [0.002, 0.012] as const;
const MOST_CHANGE_DB = 3.5;
const START_S = 0.01;
const FLAT_REACH_S = 0.004;

/**
 * Clicks: places where the wave departs from what its neighbours predict by much more than anywhere
 * around. The errors at the pulses of a voice come in every period, and those of hiss and of consonants
 * are alike for many milliseconds; a click is alone, and after it all is as it was before.
 */
export function findClicks({ tracks, startS }: Heard): AudioEvent[] {
  const errors = tracks.breaks.view();
  const binS = tracks.breaks.binSamples / tracks.sampleRateHz;
  const around = Math.round(AROUND_S / binS);
  const own = Math.max(1, Math.round(OWN_S / binS));
  const events: AudioEvent[] = [];
  // The corners of a flat top are jumps as well.
  const flat = flatSpans(tracks, FLAT_REACH_S);
  const factor = 10 ** (OVER_LARGEST_DB / 20);
  for (let bin = startS === 0 ? Math.round(START_S / binS) : 0; bin < errors.length; bin++) {
    const error = errors[bin] as number;
    // Cheap first look: most bins do not even stand out of their near neighbours.
    if (error <= (errors[bin - own - 1] ?? 0) * factor || error <= (errors[bin + own + 1] ?? 0) * factor) continue;
    const others = othersAround(errors, bin, around, own);
    if (error < others.largest * factor || error < others.mean * 10 ** (OVER_MEAN_DB / 20)) continue;
    if (changesAt(errors, bin, binS)) continue;
    const at = startS + bin * binS;
    if (sharedS(flat, at, at + binS) > 0) continue;
    events.push({ kind: 'click', startS: at, endS: at + binS, severityDb: Math.min(60, 20 * Math.log10(error / Math.max(others.largest, 1e-9))) });
    bin += own;
  }
  return events;
}

function othersAround(errors: Float64Array, bin: number, around: number, own: number): { largest: number; mean: number } {
  let largest = 0;
  let sum = 0;
  let count = 0;
  const from = Math.max(0, bin - around);
  const to = Math.min(errors.length - 1, bin + around);
  for (let index = from; index <= to; index++) {
    if (Math.abs(index - bin) <= own) {
      if ((errors[index] as number) > (errors[bin] as number)) return { largest: Number.POSITIVE_INFINITY, mean: 0 };
      continue;
    }
    const error = errors[index] as number;
    if (error > largest) largest = error;
    sum += error;
    count++;
  }
  return { largest, mean: count > 0 ? sum / count : 0 };
}

/** Whether what goes on right after a bin is not what went on right before it, seen by the errors of prediction. */
function changesAt(errors: Float64Array, bin: number, binS: number): boolean {
  const [near, far] = GOES_ON_S.map((seconds) => Math.round(seconds / binS)) as [number, number];
  const before = meanOf(errors, Math.max(0, bin - far), Math.max(0, bin - near));
  const after = meanOf(errors, Math.min(errors.length, bin + near), Math.min(errors.length, bin + far));
  return before > 0 && after > 0 && Math.abs(20 * Math.log10(after / before)) > MOST_CHANGE_DB;
}
