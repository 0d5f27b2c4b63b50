import type { Listener, Round } from '../domain/round.ts';
import { randomSource } from '../simulate/random.ts';
import { type Agreement, agreement, standingApart } from './agreement.ts';
import { LEVEL } from './paired/doubt.ts';
import { percentText } from './paired/sayDoubt.ts';
import { ranksOfOrder } from './ranking.ts';

/** The same draws each time, so that a page that is opened again says the same. */
const SEED = 20_261;

/** Points that a listener gave to each recording of a round, or by which it stands before others; what was hidden among them does not count. */
function pointsOf({ letters, checks, ratings, orders }: Listener, recordingIds: readonly string[], criterionId: string): number[] | null {
  const ranks = orders[criterionId] && ranksOfOrder(orders[criterionId]);
  const points = recordingIds.map((id) => {
    const letter = Object.keys(letters ?? {}).find((each) => letters?.[each] === id && !checks[each]);
    if (ranks) return letter === undefined ? undefined : -(ranks[letter] ?? 0);
    return ratings.find((rating) => rating.letter === letter && rating.criterionId === criterionId)?.points;
  });
  return points.every((each) => each !== undefined) ? points : null;
}

/** How far the listeners of a round who are done agree on one criterion; null where it cannot be told. */
export function agreementOf({ listeners, recordingIds }: Pick<Round, 'listeners' | 'recordingIds'>, criterionId: string): Agreement | null {
  const points = listeners.flatMap((listener) => {
    const own = listener.letters && pointsOf(listener, recordingIds, criterionId);
    return own ? [own] : [];
  });
  return agreement(points, randomSource(SEED).uniform);
}

/** Agreement that is called so, and not in part. */
const MUCH = 0.7;

/** How far listeners agree, as a sentence; who heard it otherwise is told without blame. */
export function agreementText(found: Agreement | null, names: readonly string[]): string {
  if (!found) return 'too few clips or listeners that tell them apart to say whether they agree.';
  const how = found.byChance > LEVEL ? 'the orders agree no more than chance would have it' : found.w >= MUCH ? 'the listeners agree' : 'the listeners agree in part';
  const otherwise = standingApart(found).map((at) => names[at]);
  const apart =
    otherwise.length === 0 ? '' : ` ${otherwise.join(' and ')} heard it otherwise than the others: that is no mistake, but a reason to ask what was listened on and for.`;
  return `${how} (Kendall's W ${found.w.toFixed(2)}; by chance in ${percentText(found.byChance)} of cases).${apart}`;
}
