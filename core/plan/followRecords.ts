import { BASIC_KINDS, EXTRA_KINDS, FACTOR_KINDS, type Factor, type FactorKind, type Level } from '../domain/factor.ts';
import { type PlanDraft, planDraftSchema } from '../domain/plan.ts';

interface NamedRecord {
  id: string;
  name: string;
}

/** Records whose entries are the levels of a factor. */
export interface PlanRecords {
  candidate: readonly NamedRecord[];
  station: readonly NamedRecord[];
  script: readonly NamedRecord[];
  /** Placements and rigs may be levels as well; those that are have the name of their record. */
  placement?: readonly NamedRecord[];
  rig?: readonly NamedRecord[];
}

const NAMES: Record<FactorKind, string> = {
  station: 'Station',
  candidate: 'Candidate',
  talker: 'Talker',
  rig: 'Rig',
  placement: 'Placement',
  orientation: 'Orientation',
  noise: 'Noise and wind',
  processing: 'Processing',
  speed: 'Speed',
  effort: 'Voice',
  other: 'Other',
  windscreen: 'Windscreen',
  distance: 'Distance',
  script: 'Script',
};

const level = (id: string, label: string, value: number | null, ticked: boolean): Level => ({ id, label, value, ticked });

const UNITS: Partial<Record<FactorKind, string>> = { distance: 'm', orientation: 'degrees', speed: 'km/h' };

/** Levels that a kind starts with when it is taken into a plan, as label and value. */
const STARTING: Partial<Record<FactorKind, [string, number | null][]>> = {
  talker: [
    ['low voice', null],
    ['high voice', null],
  ],
  rig: [
    ['exposed', null],
    ['hidden', null],
  ],
  placement: [
    ['breastbone', null],
    ['collar', null],
  ],
  orientation: [
    ['0°', 0],
    ['90°', 90],
    ['180°', 180],
  ],
  noise: [
    ['quiet', null],
    ['breeze', null],
    ['traffic', null],
  ],
  processing: [
    ['off', null],
    ['on', null],
  ],
  speed: [
    ['standing', 0],
    ['walking', 5],
  ],
  effort: [
    ['normal', null],
    ['raised', null],
  ],
};

/** A factor as it comes into a plan: its name, unit and usual levels, all ticked. */
export function newFactor(kind: FactorKind, levels?: Level[]): Factor {
  const usual = (STARTING[kind] ?? []).map(([label, value]) => level(levelIdOf(label), label, value, true));
  return { kind, name: NAMES[kind], unit: UNITS[kind] ?? '', levels: levels ?? usual };
}

/** Identity of a level that is only a name: its letters and digits, so that a key of setups can be read. */
export function levelIdOf(label: string): string {
  return label
    .trim()
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .slice(0, 40);
}

/** The plan of a trial that has none yet: 1, 10 and 40 m, bare, foam and fur, of which one each is ticked. */
export function emptyPlan(): PlanDraft {
  const levels: Partial<Record<FactorKind, Level[]>> = {
    windscreen: [level('bare', 'bare', null, true), level('foam', 'foam', null, false), level('fur', 'fur', null, false)],
    distance: [level('1', '1 m', 1, true), level('10', '10 m', 10, false), level('40', '40 m', 40, false)],
  };
  return planDraftSchema.parse({ factors: BASIC_KINDS.map((kind) => newFactor(kind, levels[kind])) });
}

/**
 * The plan with its candidates, stations and scripts as they are now: records that are new come in
 * ticked, records that are gone fall out, names follow the records. Of placements and rigs those come in
 * that somebody chose, beside levels that are only words; names follow, and what is gone stays as a word.
 * Other factors stay as they are.
 */
export function alignPlan(plan: PlanDraft, records: PlanRecords): PlanDraft {
  const extras = EXTRA_KINDS.filter((kind) => plan.factors.some((each) => each.kind === kind));
  const kinds = FACTOR_KINDS.filter((kind) => [...BASIC_KINDS, ...extras].includes(kind));
  const factors = kinds.map((kind): Factor => {
    const factor = plan.factors.find((each) => each.kind === kind) ?? newFactor(kind, []);
    if (kind === 'placement' || kind === 'rig') return { ...factor, levels: factor.levels.map((each) => named(each, records[kind] ?? [])) };
    if (kind !== 'candidate' && kind !== 'station' && kind !== 'script') return factor;
    return {
      ...factor,
      levels: records[kind].map((record) => ({
        ...(factor.levels.find((each) => each.id === record.id) ?? level(record.id, record.name, null, true)),
        label: record.name,
      })),
    };
  });
  return { ...plan, factors };
}

function named(given: Level, records: readonly NamedRecord[]): Level {
  const record = records.find((each) => each.id === given.id);
  return record ? { ...given, label: record.name } : given;
}
