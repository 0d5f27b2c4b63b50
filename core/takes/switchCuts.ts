import type { CutBy } from '../domain/recording.ts';
import { followedSetups, type Take, type TakeSetup } from '../domain/take.ts';

/** A stretch of a channel, and the setup that it is of. */
export interface SetupStretch {
  setupId: string;
  startS: number | null;
  endS: number | null;
  cutBy: CutBy;
}

/** A shorter stretch has no word in it. */
const SHORTEST_S = 0.3;

/**
 * Which stretch of a channel is of which setup, where something was switched while the take ran. The moment of a switch is that of its
 * press: in the file, as the clocks of file and log have it, else counted from the start of the take as if the file had begun with it. A
 * moment that somebody set by hand wins.
 * @param clockStartS where in the file the take began, by its clock; null where the clock is none of this day
 * @param byHandS starts that were set by hand, by setup
 * @param within from where to where in the file the take lies, where it was cut out of a longer one; null is the start, or the end
 * @param partBy how it was cut out; null where it was not
 */
export function switchCuts(
  take: Pick<Take, 'setups' | 'startedAtMs'>,
  first: TakeSetup,
  {
    clockStartS,
    fileLengthS,
    byHandS,
    within = [null, null],
    partBy = null,
  }: {
    clockStartS: number | null;
    fileLengthS: number;
    byHandS: ReadonlyMap<string, number>;
    within?: readonly [fromS: number | null, toS: number | null];
    partBy?: CutBy;
  },
): SetupStretch[] {
  const [fromS, toS] = within;
  const stretches: SetupStretch[] = [];
  for (const setup of followedSetups(take, first)) {
    if (setup === first) {
      stretches.push({ setupId: setup.id, startS: fromS, endS: toS, cutBy: partBy });
      continue;
    }
    const sinceStartS = take.startedAtMs === null || setup.sinceMs === undefined ? null : (setup.sinceMs - take.startedAtMs) / 1000;
    const byHand = byHandS.get(setup.id);
    const startS = byHand ?? (sinceStartS === null ? null : (clockStartS ?? fromS ?? 0) + sinceStartS);
    const last = stretches.at(-1) as SetupStretch;
    // What was switched after the file had ended, or before it began, is not in it.
    if (startS === null || startS > (toS ?? fileLengthS) - SHORTEST_S) continue;
    if (startS < (last.startS ?? 0) + SHORTEST_S) stretches.pop();
    else last.endS = startS;
    stretches.push({
      setupId: setup.id,
      startS: stretches.length === 0 ? fromS : startS,
      endS: toS,
      cutBy: stretches.length === 0 && partBy ? partBy : byHand !== undefined ? 'hand' : clockStartS !== null ? 'clock' : 'press',
    });
  }
  return stretches;
}
