import { conditionKey } from '../../domain/factor.ts';
import type { Design } from '../../domain/plan.ts';
import { candidatesOf, type Take } from '../../domain/take.ts';

/** Where a take stands on a ladder: which passage it is, and the take with the other one at the same rung. */
export interface LadderTurn {
  passage: 'speech' | 'silence';
  rungId: string;
  other: Take | null;
}

/**
 * At each rung of a ladder one take is done with speech and one without, so that both can be compared: which of the two this is, and which
 * is the other. Null where the plan climbs no ladder, or the take is none of its two scripts.
 */
export function ladderTurn({ kind, ladder }: Pick<Design, 'kind' | 'ladder'>, takes: readonly Take[], take: Take): LadderTurn | null {
  const { speechId, silenceId } = ladder;
  const { script } = take.condition;
  if (kind !== 'ladder' || (script !== speechId && script !== silenceId) || ladder.kind === 'candidate') return null;
  const passage = script === speechId ? 'speech' : 'silence';
  const wanted = conditionKey({ ...take.condition, script: passage === 'speech' ? silenceId : speechId });
  const who = candidatesOf(take).sort().join(',');
  const others = takes.filter((other) => conditionKey(other.condition) === wanted && candidatesOf(other).sort().join(',') === who);
  // Of several passes the one that is still to be done is meant, else the last.
  const other = others.find(({ status }) => status === 'planned') ?? others.at(-1) ?? null;
  return { passage, rungId: take.condition[ladder.kind] ?? '', other };
}
