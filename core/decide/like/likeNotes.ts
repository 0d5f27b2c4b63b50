import type { Criterion } from '../../domain/criterion.ts';
import { listed } from '../../domain/listed.ts';
import type { VerdictNote } from '../usableRecordings.ts';
import type { VerdictRow } from '../verdict.ts';
import type { LikeBy } from './likeModel.ts';

const BY: Record<LikeBy, string> = {
  condition: 'from the others under each condition, a candidate taken to lie to the others there as it does elsewhere',
  factors: 'from a model in which the candidate and each factor of the plan add their part, since too few conditions are shared to compare them directly',
};

/** What of the values of candidates that were not recorded under the same conditions is reckoned, and what cannot be compared at all. */
export function likeNotes(criteria: readonly Criterion[], rows: readonly VerdictRow[]): VerdictNote[] {
  const reckoned = (Object.keys(BY) as LikeBy[]).flatMap((by): VerdictNote[] => {
    const own = criteria.flatMap(({ id, name }) => {
      const who = rows.filter(({ cells }) => cells.some(({ criterionId, reckonedBy }) => criterionId === id && reckonedBy === by));
      return who.length > 0 ? [{ name, who: who.map(({ candidate }) => candidate.name) }] : [];
    });
    if (own.length === 0) return [];
    const who = [...new Set(own.flatMap((each) => each.who))];
    const text = `Not recorded under all conditions that are compared: ${listed(who)}, in ${listed(own.map(({ name }) => name))}. What is missing is reckoned ${BY[by]}. That one of them fares worse at one place than the rest would make it expect is not seen there.`;
    return [{ kind: 'reckoned', text }];
  });
  const unlike = criteria.flatMap(({ id, name }): VerdictNote[] => {
    const who = rows.filter((row) => row.unlike.includes(id)).map(({ candidate }) => candidate.name);
    if (who.length === 0) return [];
    return [
      {
        kind: 'unlike',
        text: `${name} of ${listed(who)} cannot be held against that of ${who.length === rows.length ? 'each other' : 'the others'}: it was recorded only under conditions that none of them met, by itself or by way of another. It counts as missing.`,
      },
    ];
  });
  return [...reckoned, ...unlike];
}
