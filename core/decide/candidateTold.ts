import type { Criterion } from '../domain/criterion.ts';
import { CONDITION_KINDS, type ConditionKind, NOT_KNOWN } from '../domain/factor.ts';
import { isSpoiled, setupCondition, type Take } from '../domain/take.ts';
import type { VerdictRow } from './verdict.ts';

/** How a candidate stands on a criterion against the others. */
export interface StandsOut {
  criterionId: string;
  /** Desirability less that of the best other one where it is good, or of the worst other one where it is bad. */
  by: number;
}

/** What speaks for a candidate and what against it. */
export interface GoodAndBad {
  /** Criteria on which no other one is better, most first. */
  good: StandsOut[];
  /** Criteria on which no other one is worse. */
  bad: StandsOut[];
}

/** Less than this of desirability is no difference to speak of. */
const LEAST = 0.05;

/** Where a candidate is the best, and where the worst, of all that have a value there; nothing where there is no other. */
export function goodAndBad(rows: readonly VerdictRow[], criteria: readonly Criterion[], candidateId: string): GoodAndBad {
  const told = criteria.flatMap(({ id, weight }, index) => {
    const goodOf = (row: VerdictRow) => row.cells[index]?.desirability ?? null;
    const own = rows.flatMap((row) => (row.candidate.id === candidateId ? (goodOf(row) ?? []) : []))[0];
    const others = rows.flatMap((row) => (row.candidate.id === candidateId ? [] : (goodOf(row) ?? [])));
    if (own === undefined || others.length === 0 || weight === 0) return [];
    return [{ criterionId: id, overBest: own - Math.max(...others), underWorst: own - Math.min(...others) }];
  });
  return {
    good: told.flatMap(({ criterionId, overBest }) => (overBest >= LEAST ? [{ criterionId, by: overBest }] : [])).sort((a, b) => b.by - a.by),
    bad: told.flatMap(({ criterionId, underWorst }) => (underWorst <= -LEAST ? [{ criterionId, by: underWorst }] : [])).sort((a, b) => a.by - b.by),
  };
}

/**
 * Levels that others were recorded at and this candidate was not, by kind: what nobody can say of it.
 * @param takes of the trial; those that were spoiled, or not done, do not count
 */
export function notTested(takes: readonly Take[], candidateId: string): Partial<Record<ConditionKind, string[]>> {
  const own = new Set<string>();
  const others = new Set<string>();
  for (const take of takes) {
    if (take.status !== 'done' || isSpoiled(take)) continue;
    for (const setup of take.setups) {
      const condition = setupCondition(take, setup);
      for (const kind of CONDITION_KINDS) {
        const levelId = condition[kind];
        if (levelId !== undefined && levelId !== NOT_KNOWN) (setup.candidateId === candidateId ? own : others).add(`${kind} ${levelId}`);
      }
    }
  }
  const open: Partial<Record<ConditionKind, string[]>> = {};
  for (const kind of CONDITION_KINDS) {
    const levels = [...others].filter((key) => key.startsWith(`${kind} `) && !own.has(key)).map((key) => key.slice(kind.length + 1));
    // A kind that it has no level of at all, as a boom no rig, is no gap.
    if (levels.length > 0 && [...own].some((key) => key.startsWith(`${kind} `))) open[kind] = levels;
  }
  return open;
}
