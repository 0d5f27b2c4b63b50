import { FACTOR_KINDS, type Factor, type FactorKind, type Level } from '../domain/factor.ts';
import { DEFAULT_CHANGE_TIMES, type PlanDraft } from '../domain/plan.ts';

interface NamedRecord {
  id: string;
  name: string;
}

/** Records whose entries are the levels of a factor. */
export interface PlanRecords {
  candidate: readonly NamedRecord[];
  station: readonly NamedRecord[];
  script: readonly NamedRecord[];
}

const NAMES: Record<FactorKind, string> = {
  station: 'Station',
  candidate: 'Candidate',
  windscreen: 'Windscreen',
  distance: 'Distance',
  script: 'Script',
};

const level = (id: string, label: string, value: number | null, ticked: boolean): Level => ({ id, label, value, ticked });

/** The plan of a trial that has none yet: 1, 10 and 40 m, bare, foam and fur, of which one each is ticked. */
export function emptyPlan(): PlanDraft {
  const levels: Partial<Record<FactorKind, Level[]>> = {
    windscreen: [level('bare', 'bare', null, true), level('foam', 'foam', null, false), level('fur', 'fur', null, false)],
    distance: [level('1', '1 m', 1, true), level('10', '10 m', 10, false), level('40', '40 m', 40, false)],
  };
  return {
    factors: FACTOR_KINDS.map((kind) => ({ kind, name: NAMES[kind], unit: kind === 'distance' ? 'm' : '', levels: levels[kind] ?? [] })),
    leftOut: [],
    together: true,
    controls: [],
    changeTimesS: DEFAULT_CHANGE_TIMES,
    overheadS: 25,
  };
}

/**
 * The plan with its candidates, stations and scripts as they are now: records that are new come in
 * ticked, records that are gone fall out, names follow the records. Other factors stay as they are.
 */
export function alignPlan(plan: PlanDraft, records: PlanRecords): PlanDraft {
  const factors = FACTOR_KINDS.map((kind): Factor => {
    const factor = plan.factors.find((each) => each.kind === kind) ?? { kind, name: NAMES[kind], unit: '', levels: [] };
    if (kind === 'windscreen' || kind === 'distance') return factor;
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
