import { newId } from '../domain/identity.ts';
import type { Take } from '../domain/take.ts';
import { type PlannedTake, takeKey } from '../plan/gather.ts';

/** What a changed plan makes of the takes that exist. */
export interface Reconciled {
  /** Takes of the new plan in order, kept ones with their slate. */
  takes: Take[];
  /** Planned takes that the new plan no longer has; they were never started and go. */
  dropped: Take[];
  added: number;
  kept: number;
}

/**
 * Lays a plan over existing takes. A take that was started, skipped or noted is always kept; a
 * planned one is kept, with its slate, while the plan still has its setup. Where a setup is recorded
 * several times, each repeat keeps a slate of its own. New setups get the next free slates. On the first commit slates count from 1 in the plan's order.
 * @param highestSlate highest slate ever given out, so that a slate in the bin is not given again
 */
export function reconcileTakes(trialId: string, existing: readonly Take[], planned: readonly PlannedTake[], highestSlate = 0): Reconciled {
  const bySlate = new Map<number, Take[]>();
  for (const take of existing) bySlate.set(take.slate, [...(bySlate.get(take.slate) ?? []), take]);
  const byKey = new Map<string, Take[][]>();
  for (const passes of bySlate.values()) {
    const key = takeKey(passes[0] as Take);
    byKey.set(key, [...(byKey.get(key) ?? []), passes]);
  }
  let slate = existing.reduce((highest, take) => Math.max(highest, take.slate), highestSlate);
  let added = 0;
  const takes: Take[] = [];
  planned.forEach((plan, position) => {
    const known = byKey.get(takeKey(plan))?.shift();
    if (known) {
      takes.push(...known.map((take) => ({ ...take, position })));
    } else {
      added++;
      slate++;
      takes.push(plannedTake(trialId, plan, slate, position));
    }
  });
  const leftover = [...byKey.values()].flat(2);
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
