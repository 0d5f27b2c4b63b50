import { newId } from '../domain/identity.ts';
import { isTouched, type Take, untouchedTake } from '../domain/take.ts';
import { type PlannedTake, takeKey } from '../plan/gather.ts';

/** What a changed plan makes of the takes that exist. */
export interface Reconciled {
  /** Takes of the new plan in order, kept ones with their slate. */
  takes: Take[];
  /** Planned takes that the new plan no longer has and at which nothing was noted, logged or recorded: they go to the bin. */
  dropped: Take[];
  /** Takes that the new plan no longer has but at which something was: they stay, behind the plan. */
  stayed: Take[];
  added: number;
  kept: number;
}

/**
 * Lays a plan over existing takes. A take with anything noted, logged, read or recorded is always kept,
 * with every pass of its slate; one that was only planned is kept while the plan still has its setups.
 * Where a setup is recorded several times, each repeat keeps a slate of its own. New setups get the next
 * free slates. On the first commit slates count from 1 in the plan's order.
 * @param highestSlate highest slate ever given out, so that a slate in the bin is not given again
 * @param recorded ids of takes that have recordings or lines of the log
 */
export function reconcileTakes(
  trialId: string,
  existing: readonly Take[],
  planned: readonly PlannedTake[],
  highestSlate = 0,
  recorded: ReadonlySet<string> = new Set(),
): Reconciled {
  const bySlate = new Map<number, Take[]>();
  for (const take of existing) bySlate.set(take.slate, [...(bySlate.get(take.slate) ?? []), take]);
  const held = (passes: readonly Take[]) => passes.some((take) => isTouched(take) || recorded.has(take.id));
  const byKey = new Map<string, Take[][]>();
  for (const passes of bySlate.values()) {
    const key = takeKey(passes[0] as Take);
    byKey.set(key, [...(byKey.get(key) ?? []), passes]);
  }
  // Of equal setups those at which something was noted or recorded are matched first.
  for (const slates of byKey.values()) slates.sort((a, b) => Number(held(b)) - Number(held(a)) || (a[0] as Take).slate - (b[0] as Take).slate);
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
      const setups = plan.setups.map((setup) => ({ ...setup, id: newId() }));
      takes.push(untouchedTake({ id: newId(), trialId, slate, position, condition: plan.condition, setups }));
    }
  });
  const leftover = [...byKey.values()].flat();
  const stayed = leftover
    .filter(held)
    .flat()
    .map((take, index) => ({ ...take, position: planned.length + index }));
  return { takes: [...takes, ...stayed], dropped: leftover.filter((passes) => !held(passes)).flat(), stayed, added, kept: takes.length + stayed.length - added };
}
