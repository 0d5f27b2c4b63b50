import { conditionKey } from '../domain/factor.ts';
import { newId } from '../domain/identity.ts';
import type { Take } from '../domain/take.ts';
import type { PlannedTake } from './order.ts';

/** What a changed plan makes of the takes that exist. */
export interface Reconciled {
  /** Takes of the new plan in order, kept ones with their slate. */
  takes: Take[];
  /** Planned takes that the new plan no longer has; they were never started and go. */
  dropped: Take[];
  added: number;
  kept: number;
}

const keyOf = (take: PlannedTake) => `${conditionKey(take.condition)}|${[...take.candidateIds].sort().join(',')}`;

/**
 * Lays a plan over existing takes. A take that was started, skipped or noted is always kept; a
 * planned one is kept, with its slate, while the plan still has its setup. New setups get the next
 * free slates. On the first commit slates count from 1 in the plan's order.
 * @param highestSlate highest slate ever given out, so that a slate in the bin is not given again
 */
export function reconcileTakes(trialId: string, existing: readonly Take[], planned: readonly PlannedTake[], highestSlate = 0): Reconciled {
  const byKey = new Map<string, Take[]>();
  for (const take of existing) byKey.set(keyOf(take), [...(byKey.get(keyOf(take)) ?? []), take]);
  let slate = existing.reduce((highest, take) => Math.max(highest, take.slate), highestSlate);
  let added = 0;
  const takes: Take[] = [];
  planned.forEach((plan, position) => {
    const known = byKey.get(keyOf(plan));
    if (known) {
      byKey.delete(keyOf(plan));
      takes.push(...known.map((take) => ({ ...take, position })));
    } else {
      added++;
      slate++;
      takes.push(plannedTake(trialId, plan, slate, position));
    }
  });
  const leftover = [...byKey.values()].flat();
  const touched = leftover.filter((take) => take.status !== 'planned');
  touched.forEach((take, index) => takes.push({ ...take, position: planned.length + index }));
  return {
    takes,
    dropped: leftover.filter((take) => take.status === 'planned'),
    added,
    kept: takes.length - added,
  };
}

function plannedTake(trialId: string, plan: PlannedTake, slate: number, position: number): Take {
  return {
    id: newId(),
    trialId,
    slate,
    pass: 1,
    position,
    condition: plan.condition,
    candidateIds: plan.candidateIds,
    status: 'planned',
    startedAtMs: null,
    stoppedAtMs: null,
    flags: [],
    note: '',
    gains: {},
    windMs: null,
    noiseDba: null,
    controls: [],
    binnedAtMs: null,
  };
}
