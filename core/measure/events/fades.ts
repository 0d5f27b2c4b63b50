import type { Heard } from '../chapter.types.ts';
import type { AudioEvent } from '../report.types.ts';
import { insideSpans } from '../spans.ts';
import { quantile } from '../tracks/frames.ts';

/** Columns of the high track that hold the top of the spectrum, where mostly room tone is, even within words. */
const TOP_BANDS = 3;
const LEAST_QUIET_FRAMES = 20;
/** A fade takes the room tone down by this much, and by so many times its own wavering. */
const UNDER_ROOM_DB = 6;
const WAVERING_SHARE = 5;
const SHORTEST_S = 0.03;
const LONGEST_S = 0.4;
/** Just before and after it room tone is as it was, or there is more. */
const BACK_DB = 3;
const NOTHING_DB = -125;
/** The rest of the spectrum goes down as well: by half of it, where no word stands in it. */
const REST_SHARE = 0.4;

/**
 * Deep fades of a radio field: the room tone at the top of the spectrum, which words seldom reach and which
 * never stops, sinks and comes back within half a second. A gate that closes stays closed.
 */
export function findFades({ tracks, quiet, startS, speech }: Heard): AudioEvent[] {
  const { highBands } = tracks;
  const end = highBands.bands.filter(([, high]) => high < 0.45 * tracks.sampleRateHz).length;
  if (end - TOP_BANDS < 8) return [];
  const times = highBands.times();
  const levelsOf = (from: number, to: number) => highBands.sums(from, to).map((power) => 10 * Math.log10(Math.max(power, 1e-16)));
  const top = levelsOf(end - TOP_BANDS, end);
  const rest = levelsOf(4, end - TOP_BANDS);
  const still = insideSpans(times, quiet, 0);
  const spoken = insideSpans(times, speech, 0.05);
  const usual = (levels: Float64Array) => levels.filter((level, frame) => still[frame] && level > NOTHING_DB).sort();
  const [topTone, restTone] = [usual(top), usual(rest)];
  if (topTone.length < LEAST_QUIET_FRAMES) return [];
  const room = quantile(topTone, 0.5);
  const restRoom = quantile(restTone, 0.5);
  const wavering = (quantile(topTone, 0.75) - quantile(topTone, 0.25)) / 2;
  const under = room - Math.max(UNDER_ROOM_DB, WAVERING_SHARE * wavering);
  const found: AudioEvent[] = [];
  for (let frame = 1; frame < top.length; frame++) {
    if ((top[frame] as number) >= under) continue;
    const from = frame;
    while (frame + 1 < top.length && (top[frame + 1] as number) < under) frame++;
    const lengthS = (frame - from) * highBands.hopS;
    const back = Math.min(Math.max(top[from - 1] as number, top[from - 2] ?? -150), Math.max(top[frame + 1] ?? -150, top[frame + 2] ?? -150));
    if (lengthS < SHORTEST_S || lengthS > LONGEST_S || back < room - BACK_DB) continue;
    const inside = top.slice(from, frame + 1).sort();
    const depthDb = room - quantile(inside, 0.5);
    let restDb = 0;
    let counted = 0;
    for (let each = from + 1; each < frame; each++) {
      if (spoken[each]) continue;
      restDb += restRoom - (rest[each] as number);
      counted++;
    }
    if (counted > 0 && restDb / counted < REST_SHARE * depthDb) continue;
    const middle = (at: number) => (times[at] as number) - startS;
    found.push({ kind: 'dropout', startS: startS + Math.max(0, middle(from) - highBands.hopS / 2), endS: startS + middle(frame) + highBands.hopS / 2, severityDb: depthDb });
  }
  return found;
}
