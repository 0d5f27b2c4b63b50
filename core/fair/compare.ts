import { CONDITION_KINDS, type Condition, type FactorKind } from '../domain/factor.ts';
import type { Control } from '../domain/plan.ts';
import { GAIN_STAGES, type Gains } from '../domain/take.ts';

/** One candidate in one take, with all that was held, set and met there. */
export interface Compared {
  takeId: string;
  candidateId: string;
  condition: Condition;
  gains: Gains;
  windMs: number | null;
  noiseDba: number | null;
  controls: Control[];
  startedAtMs: number | null;
}

/** Something in which compared takes are not alike. */
export interface Difference {
  kind: 'factor' | 'control' | 'gain' | 'conditions' | 'time';
  /** A factor kind, a control's name, a gain stage, or what was met. */
  what: string;
  /** Value of each compared take, in their order; for factors level ids. */
  values: string[];
  /** Whether it spoils a comparison; what level matching or a few minutes make harmless does not. */
  spoils: boolean;
}

export interface Comparison {
  differences: Difference[];
  fair: boolean;
}

const WIND_STEP_MS = 1;
const NOISE_STEP_DB = 3;
const TIME_STEP_MIN = 30;
const GAIN_STEP_DB = 0.5;

/**
 * What differs between takes, and whether they may be compared: they may when nothing but the factor
 * under test differs. Gains of different candidates are told but do not spoil a comparison, since
 * listening and practical figures are level-matched; gains of one candidate do. Half an hour and more
 * between takes is told as well.
 */
export function compareTakes(takes: readonly Compared[], underTest: FactorKind): Comparison {
  const differences: Difference[] = [];
  const note = (kind: Difference['kind'], what: string, values: string[], spoils: boolean) => {
    if (new Set(values).size > 1) differences.push({ kind, what, values, spoils });
  };
  note(
    'factor',
    'candidate',
    takes.map((take) => take.candidateId),
    underTest !== 'candidate',
  );
  for (const kind of CONDITION_KINDS)
    note(
      'factor',
      kind,
      takes.map((take) => take.condition[kind] ?? 'not varied'),
      kind !== underTest,
    );
  const controls = new Set(takes.flatMap((take) => take.controls.map((control) => control.name)));
  for (const name of controls) {
    note(
      'control',
      name,
      takes.map((take) => take.controls.find((control) => control.name === name)?.value ?? 'not noted'),
      true,
    );
  }
  gainDifferences(takes, note);
  spread(
    'wind',
    takes.map((take) => take.windMs),
    WIND_STEP_MS,
    'm/s',
    note,
  );
  spread(
    'noise',
    takes.map((take) => take.noiseDba),
    NOISE_STEP_DB,
    'dB A',
    note,
  );
  const started = takes.flatMap((take) => take.startedAtMs ?? []);
  const minutes = started.length > 1 ? (Math.max(...started) - Math.min(...started)) / 60_000 : 0;
  if (minutes >= TIME_STEP_MIN) {
    differences.push({ kind: 'time', what: 'time', values: [`${Math.round(minutes)} min apart`], spoils: false });
  }
  return { differences, fair: !differences.some((difference) => difference.spoils) };
}

type Note = (kind: Difference['kind'], what: string, values: string[], spoils: boolean) => void;

function gainDifferences(takes: readonly Compared[], note: Note): void {
  for (const stage of GAIN_STAGES) {
    const values = takes.map((take) => take.gains[stage] ?? null);
    if (values.some((value) => value === null)) continue;
    const known = values as number[];
    if (Math.max(...known) - Math.min(...known) < GAIN_STEP_DB) continue;
    const byCandidate = new Map<string, number[]>();
    takes.forEach((take, index) => byCandidate.set(take.candidateId, [...(byCandidate.get(take.candidateId) ?? []), known[index] as number]));
    const within = [...byCandidate.values()].some((gains) => Math.max(...gains) - Math.min(...gains) >= GAIN_STEP_DB);
    note(
      'gain',
      `${stage} gain`,
      known.map((gain) => `${gain} dB`),
      within,
    );
  }
}

function spread(what: string, values: (number | null)[], step: number, unit: string, note: Note): void {
  if (values.some((value) => value === null)) return;
  const known = values as number[];
  if (Math.max(...known) - Math.min(...known) > step)
    note(
      'conditions',
      what,
      known.map((value) => `${value} ${unit}`),
      true,
    );
}

/**
 * The fair comparison nearest to the takes given: keeps as many of them as can be kept and swaps the
 * others for takes with the same level of the factor under test. Null when there is none.
 * @param all every take that could be used
 */
export function nearestFair(takes: readonly Compared[], all: readonly Compared[], underTest: FactorKind): Compared[] | null {
  const levelOf = (take: Compared) => (underTest === 'candidate' ? take.candidateId : take.condition[underTest]);
  let best: { set: Compared[]; kept: number; distance: number } | null = null;
  for (const anchor of [...takes, ...all]) {
    if (best && best.kept > 1 && !takes.includes(anchor)) break;
    const set = takes.map((take) => {
      if (levelOf(take) === levelOf(anchor)) return anchor;
      if (compareTakes([anchor, take], underTest).fair) return take;
      return nearest(
        all.filter((other) => levelOf(other) === levelOf(take) && compareTakes([anchor, other], underTest).fair),
        take,
        underTest,
      );
    });
    if (set.some((take) => take === null)) continue;
    const chosen = set as Compared[];
    const different = new Set(chosen.map(levelOf)).size === new Set(takes.map(levelOf)).size && new Set(takes.map(levelOf)).size > 1;
    if (!different || !compareTakes(chosen, underTest).fair) continue;
    const kept = chosen.filter((take) => takes.includes(take)).length;
    const distance = chosen.reduce((sum, take, index) => sum + apart(take, takes[index] as Compared, underTest), 0);
    if (!best || kept > best.kept || (kept === best.kept && distance < best.distance)) best = { set: chosen, kept, distance };
  }
  return best?.set ?? null;
}

function apart(a: Compared, b: Compared, underTest: FactorKind): number {
  return compareTakes([a, b], underTest).differences.length;
}

function nearest(options: readonly Compared[], to: Compared, underTest: FactorKind): Compared | null {
  let best: Compared | null = null;
  for (const option of options) if (!best || apart(option, to, underTest) < apart(best, to, underTest)) best = option;
  return best;
}
