import { mean } from 'simple-statistics';
import { CONDITION_KINDS, conditionKey, FACTOR_KINDS, type FactorKind, type Setup, SIMULTANEOUS_KINDS, setupKey } from '../domain/factor.ts';
import type { PlanDraft } from '../domain/plan.ts';
import { candidatesOf } from '../domain/take.ts';
import { levelOfTake, type PlannedTake } from '../plan/gather.ts';
import { levelLabel } from '../plan/levelWords.ts';
import { matrixSetups, tickedLevels } from '../plan/matrix.ts';

/** A way to mend what a plan makes unfair: what it does, and what it changes in the plan. */
export interface Remedy {
  label: string;
  patch: Partial<PlanDraft>;
}

/** Something that a plan will make unfair or leave out, known before anyone goes out. */
export interface Foreseen {
  kind: 'confounded' | 'partly confounded' | 'hours' | 'no comparison';
  text: string;
  remedies: Remedy[];
}

const APART_MIN = 30;

/**
 * What will be unfair in a plan as it stands: factors that always change together, candidates that are
 * recorded at different hours, candidates that share no condition. Each with what would mend it.
 * @param takes in their order
 * @param startS start of each take, in seconds from the first
 */
export function foreseen(plan: PlanDraft, setups: readonly Setup[], takes: readonly PlannedTake[], startS: readonly number[]): Foreseen[] {
  return [...confounded(plan, setups), ...strangers(plan, setups), ...hoursApart(plan, takes, startS), ...levelsApart(plan, takes, startS)];
}

const used = (setups: readonly Setup[], kind: FactorKind) => [...new Set(setups.map((setup) => setup[kind] ?? ''))];
const nameOf = (plan: PlanDraft, kind: FactorKind) => plan.factors.find((factor) => factor.kind === kind)?.name.toLowerCase() ?? kind;

function confounded(plan: PlanDraft, setups: readonly Setup[]): Foreseen[] {
  const varied = FACTOR_KINDS.filter((kind) => used(setups, kind).length > 1);
  return varied.flatMap((first, index) =>
    varied.slice(index + 1).flatMap((second): Foreseen[] => {
      const pairs = new Set(setups.map((setup) => `${setup[first]}|${setup[second]}`));
      const levels = [used(setups, first).length, used(setups, second).length];
      if (pairs.size !== Math.max(...levels)) return partly(plan, setups, first, second);
      const [many, few] = (levels[0] as number) >= (levels[1] as number) ? [first, second] : [second, first];
      const [a, b] = [nameOf(plan, many), nameOf(plan, few)];
      return [
        {
          kind: 'confounded',
          text:
            levels[0] === levels[1]
              ? `${capital(a)} and ${b} always change together: what is heard can be due to either.`
              : `${capital(b)} changes only when ${a} does: what is heard of it can be due to the ${a}.`,
          remedies: [...crossedAgain(plan, setups), heldAtOne(plan, few, b), heldAtOne(plan, many, a)].flatMap((remedy) => remedy ?? []),
        },
      ];
    }),
  );
}

/** Two factors that mostly change together, from here on; 0 is not at all, 1 always. */
const MOSTLY_TOGETHER = 0.6;

/** Factors that change together in most cells: each can still be told, but from few. Told from the association of their levels, Cramér's V. */
function partly(plan: PlanDraft, setups: readonly Setup[], first: FactorKind, second: FactorKind): Foreseen[] {
  const association = cramersV(
    setups.map((setup) => setup[first] ?? ''),
    setups.map((setup) => setup[second] ?? ''),
  );
  if (association < MOSTLY_TOGETHER) return [];
  return [
    {
      kind: 'partly confounded',
      text: `${capital(nameOf(plan, first))} and ${nameOf(plan, second)} mostly change together (association ${association.toFixed(1)} of 1): few cells tell them apart.`,
      remedies: crossedAgain(plan, setups),
    },
  ];
}

/** Cramér's V: the square root of chi-square over its largest possible value. */
function cramersV(a: readonly string[], b: readonly string[]): number {
  const counts = (values: readonly string[]) => values.reduce((map, value) => map.set(value, (map.get(value) ?? 0) + 1), new Map<string, number>());
  const [rows, columns, cells] = [counts(a), counts(b), counts(a.map((value, index) => `${value}|${b[index]}`))];
  let chiSquare = 0;
  for (const [row, ofRow] of rows) {
    for (const [column, ofColumn] of columns) {
      const expected = (ofRow * ofColumn) / a.length;
      chiSquare += ((cells.get(`${row}|${column}`) ?? 0) - expected) ** 2 / expected;
    }
  }
  return Math.sqrt(chiSquare / (a.length * (Math.min(rows.size, columns.size) - 1)));
}

/** Takes back the cells that were left out by hand, or records all cells, where either adds setups. */
function crossedAgain(plan: PlanDraft, setups: readonly Setup[]): Remedy[] {
  const remedies: Remedy[] = [];
  if (plan.leftOut.length > 0) remedies.push({ label: 'Take the cells left out by hand back in', patch: { leftOut: [] } });
  if (plan.design.kind !== 'full' && matrixSetups(plan.factors, plan).length > setups.length) {
    remedies.push({ label: 'Record the full matrix', patch: { design: { ...plan.design, kind: 'full' } } });
  }
  return remedies;
}

/** Holds a factor at its first level, so that it no longer changes. */
function heldAtOne(plan: PlanDraft, kind: FactorKind, name: string): Remedy | null {
  const [first] = tickedLevels(plan.factors, kind);
  if (!first || kind === 'candidate') return null;
  const factors = plan.factors.map((factor) =>
    factor.kind === kind ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id === first.id })) } : factor,
  );
  return { label: `Hold ${name} at ${first.label}`, patch: { factors } };
}

/** Candidates without a common condition. */
function strangers(plan: PlanDraft, setups: readonly Setup[]): Foreseen[] {
  const conditions = new Map<string, Set<string>>();
  for (const setup of setups) conditions.set(setup.candidate, (conditions.get(setup.candidate) ?? new Set()).add(conditionKey(setup)));
  const ids = tickedLevels(plan.factors, 'candidate').map((level) => level.id);
  const name = (id: string) => levelLabel(plan, 'candidate', id);
  return ids.flatMap((first, index) =>
    ids.slice(index + 1).flatMap((second): Foreseen[] => {
      const [a, b] = [conditions.get(first) ?? new Set<string>(), conditions.get(second) ?? new Set<string>()];
      if ([...a].some((key) => b.has(key))) return [];
      return [
        { kind: 'no comparison', text: `${name(first)} and ${name(second)} share no condition: they cannot be compared at all.`, remedies: meeting(plan, setups, first, second) },
      ];
    }),
  );
}

/** Lets two candidates meet: takes the cells of one back in where the other is recorded. */
function meeting(plan: PlanDraft, setups: readonly Setup[], first: string, second: string): Remedy[] {
  const wanted = new Set(
    setups.filter((setup) => setup.candidate === first || setup.candidate === second).flatMap((setup) => [first, second].map((candidate) => setupKey({ ...setup, candidate }))),
  );
  const leftOut = plan.leftOut.filter((key) => !wanted.has(key));
  if (leftOut.length < plan.leftOut.length) return [{ label: `Take ${plan.leftOut.length - leftOut.length} cells back in where the other is recorded`, patch: { leftOut } }];
  return crossedAgain(plan, setups);
}

/** Candidates recorded apart whose middle times lie half an hour or more from each other. */
function hoursApart(plan: PlanDraft, takes: readonly PlannedTake[], startS: readonly number[]): Foreseen[] {
  const apart = furthestApart(takes, startS, candidatesOf);
  if (!apart) return [];
  const { earliest, latest } = apart;
  const name = (id: string) => levelLabel(plan, 'candidate', id);
  const remedies: Remedy[] = [];
  if (!plan.together) remedies.push({ label: 'Record candidates together', patch: { together: true } });
  if (!plan.order.counterbalanced) remedies.push({ label: 'Let each candidate go first in turn', patch: { order: { ...plan.order, counterbalanced: true } } });
  return [
    {
      kind: 'hours',
      text: `${name(earliest.id)} is recorded ${Math.round(latest.atMin - earliest.atMin)} min before ${name(latest.id)} on average: wind, traffic and light may judge instead of the gear.`,
      remedies,
    },
  ];
}

/** Levels of other factors whose middle times lie half an hour or more from each other, within each station: travel sets the hours of stations themselves. */
function levelsApart(plan: PlanDraft, takes: readonly PlannedTake[], startS: readonly number[]): Foreseen[] {
  const kinds = CONDITION_KINDS.filter((kind) => kind !== 'station' && kind !== 'script');
  return kinds.flatMap((kind): Foreseen[] => {
    const gaps = [...new Set(takes.map((take) => take.condition.station))].flatMap((station) => {
      const apart = furthestApart(takes, startS, (take) => (take.condition.station === station ? [levelOfTake(take, kind)].filter(Boolean) : []));
      return apart ? [{ station, ...apart, apartMin: apart.latest.atMin - apart.earliest.atMin }] : [];
    });
    const [worst] = gaps.sort((a, b) => b.apartMin - a.apartMin);
    if (!worst) return [];
    const remedies: Remedy[] = [];
    const simultaneous = SIMULTANEOUS_KINDS.find((each) => each === kind);
    if (simultaneous && !plan.atOnce.includes(simultaneous))
      remedies.push({ label: `Record the levels of ${nameOf(plan, kind)} at one moment`, patch: { atOnce: [...plan.atOnce, simultaneous] } });
    if (plan.order.blockedBy !== 'station') remedies.push({ label: 'Finish each station in one visit', patch: { order: { ...plan.order, blockedBy: 'station' } } });
    const [a, b] = [levelLabel(plan, kind, worst.earliest.id), levelLabel(plan, kind, worst.latest.id)];
    return [
      {
        kind: 'hours',
        text: `At ${levelLabel(plan, 'station', worst.station)} ${nameOf(plan, kind)} ${a} is recorded ${Math.round(worst.apartMin)} min before ${b} on average: the hour may judge instead.`,
        remedies,
      },
    ];
  });
}

interface MiddleTime {
  id: string;
  atMin: number;
}

/** Of what takes stand for, the two whose middle times lie furthest from each other; null where that is under half an hour. */
function furthestApart(takes: readonly PlannedTake[], startS: readonly number[], idsOf: (take: PlannedTake) => string[]): { earliest: MiddleTime; latest: MiddleTime } | null {
  const times = new Map<string, number[]>();
  takes.forEach((take, index) => {
    for (const id of idsOf(take)) times.set(id, [...(times.get(id) ?? []), startS[index] ?? 0]);
  });
  const middles = [...times].map(([id, own]) => ({ id, atMin: mean(own) / 60 })).sort((a, b) => a.atMin - b.atMin);
  const [earliest, latest] = [middles[0], middles.at(-1)];
  return earliest && latest && latest.atMin - earliest.atMin >= APART_MIN ? { earliest, latest } : null;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
