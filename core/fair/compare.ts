import { CONDITION_KINDS, type Condition, type FactorKind, NOT_KNOWN } from '../domain/factor.ts';
import type { Control } from '../domain/plan.ts';
import { GAIN_STAGES, type Gains } from '../domain/take.ts';

/** One setup of one take, with all that was held, set and met there. */
export interface Compared {
  takeId: string;
  setupId: string;
  candidateId: string;
  condition: Condition;
  gains: Gains;
  windMs: number | null;
  noiseDba: number | null;
  controls: Control[];
  startedAtMs: number | null;
}

/** Something in which compared setups are not alike. */
export interface Difference {
  kind: 'factor' | 'control' | 'gain' | 'conditions' | 'time';
  /** A factor kind, a control's name, a gain stage, or what was met. */
  what: string;
  /** Value of each, in their order; for factors level ids. */
  values: string[];
  /** Whether it spoils a comparison; what level matching or a few minutes make harmless does not. */
  spoils: boolean;
}

/** Something that may differ and that nobody noted. */
export interface Unknown {
  kind: Difference['kind'];
  what: string;
  /** Places, in their order, at which it is missing. */
  missing: number[];
  /** It was recorded without a plan: there is no place at which it could have been noted. */
  unplanned?: true;
}

/** Whether setups may be compared. What is not known is neither equal nor different. */
export type Fairness = 'fair' | 'not fair' | 'cannot be told';

export interface Comparison {
  fairness: Fairness;
  differences: Difference[];
  unknowns: Unknown[];
}

/** A take has one place and one text. */
const ONE_IN_A_TAKE: readonly FactorKind[] = ['station', 'script'];
const WIND_STEP_MS = 1;
const NOISE_STEP_DB = 3;
const TIME_STEP_MIN = 30;
const GAIN_STEP_DB = 0.5;

/**
 * What differs between setups, and whether they may be compared: they may when nothing but the factor
 * under test differs. Gains of different candidates are told but do not spoil a comparison, since
 * listening and practical figures are level-matched; gains of one candidate do. Half an hour and more
 * between takes is told as well. Setups of one take met the same wind and noise, whether it was read or not;
 * of different takes a reading that is missing leaves the question open.
 */
export function compareTakes(takes: readonly Compared[], underTest: FactorKind): Comparison {
  const differences: Difference[] = [];
  const unknowns: Unknown[] = [];
  const note = (kind: Difference['kind'], what: string, values: (string | null)[], spoils: boolean) => {
    const known = values.filter((value) => value !== null);
    if (new Set(known).size > 1) differences.push({ kind, what, values: values.map((value) => value ?? 'not noted'), spoils });
    else if (spoils && known.length > 0 && known.length < values.length) unknowns.push(unknown(kind, what, values));
  };
  const of = <Value>(pick: (take: Compared) => Value) => takes.map(pick);
  note(
    'factor',
    'candidate',
    of((take) => take.candidateId),
    underTest !== 'candidate',
  );
  const oneMoment = new Set(of((take) => take.takeId)).size < 2;
  for (const kind of CONDITION_KINDS) {
    const said = of((take) => take.condition[kind] ?? null);
    const levels = said.map((level) => (level === NOT_KNOWN ? null : level));
    const differ = new Set(levels.filter((level) => level !== null)).size > 1;
    if (differ || !said.includes(NOT_KNOWN)) note('factor', kind, levels, kind !== underTest);
    // Within one take all were at one place and heard the same words, wherever and whatever that was.
    else if (!(oneMoment && ONE_IN_A_TAKE.includes(kind))) unknowns.push({ ...unknown('factor', kind, levels), unplanned: true });
  }
  for (const name of new Set(takes.flatMap((take) => take.controls.map((control) => control.name))))
    note(
      'control',
      name,
      of((take) => take.controls.find((control) => control.name === name)?.value || null),
      true,
    );
  for (const stage of GAIN_STAGES) compareGains(takes, stage, differences, unknowns);
  const met = [
    ['wind', of((take) => take.windMs), WIND_STEP_MS, 'm/s'],
    ['noise', of((take) => take.noiseDba), NOISE_STEP_DB, 'dB A'],
  ] as const;
  for (const [what, values, step, unit] of met) {
    const known = values.filter((value) => value !== null);
    const apart = known.length > 1 && Math.max(...known) - Math.min(...known) > step;
    if (apart) differences.push({ kind: 'conditions', what, values: values.map((value) => (value === null ? 'not read' : `${value} ${unit}`)), spoils: true });
    else if (!oneMoment && known.length < values.length) unknowns.push(unknown('conditions', what, values));
  }
  const started = takes.flatMap((take) => take.startedAtMs ?? []);
  const minutes = started.length > 1 ? (Math.max(...started) - Math.min(...started)) / 60_000 : 0;
  if (minutes >= TIME_STEP_MIN) differences.push({ kind: 'time', what: 'time', values: [`${apartText(minutes)} apart`], spoils: false });
  const spoiled = differences.some((difference) => difference.spoils);
  return { differences, unknowns, fairness: spoiled ? 'not fair' : unknowns.length > 0 ? 'cannot be told' : 'fair' };
}

const apartText = (minutes: number) => (minutes < 90 ? `${Math.round(minutes)} min` : `${(minutes / 60).toFixed(1)} h`);

function unknown(kind: Difference['kind'], what: string, values: readonly unknown[]): Unknown {
  return { kind, what, missing: values.flatMap((value, index) => (value === null ? [index] : [])) };
}

function compareGains(takes: readonly Compared[], stage: (typeof GAIN_STAGES)[number], differences: Difference[], unknowns: Unknown[]): void {
  const values = takes.map((take) => take.gains[stage] ?? null);
  const known = values.filter((value) => value !== null);
  if (known.length === 0) return;
  // A candidate has its stages or has them not: that another has none there says nothing.
  let within = false;
  const missing = new Set<number>();
  for (const candidateId of new Set(takes.map((take) => take.candidateId))) {
    const places = takes.flatMap((take, index) => (take.candidateId === candidateId ? [index] : []));
    const own = places.flatMap((place) => values[place] ?? []);
    if (own.length > 1 && Math.max(...own) - Math.min(...own) >= GAIN_STEP_DB) within = true;
    else if (own.length > 0) for (const place of places) if (values[place] === null) missing.add(place);
  }
  const apart = known.length > 1 && Math.max(...known) - Math.min(...known) >= GAIN_STEP_DB;
  if (apart) differences.push({ kind: 'gain', what: `${stage} gain`, values: values.map((gain) => (gain === null ? 'not noted' : `${gain} dB`)), spoils: within });
  if (!within && missing.size > 0) unknowns.push({ kind: 'gain', what: `${stage} gain`, missing: [...missing] });
}
