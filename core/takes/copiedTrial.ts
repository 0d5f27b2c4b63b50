import type { z } from 'zod';
import type { StoredChain } from '../domain/chain.ts';
import type { StoredCriterion } from '../domain/criterion.ts';
import type { StoredFrame } from '../domain/frame.ts';
import type { Placement } from '../domain/placement.ts';
import type { Plan } from '../domain/plan.ts';
import type { RigRecord } from '../domain/rigRecord.ts';
import type { StoredScript } from '../domain/script.ts';
import type { StoredStation } from '../domain/station.ts';
import type { trialSchema } from '../domain/trial.ts';
import type { StoredWearer } from '../domain/wearer.ts';

/** What a trial sets out to do, as its records. */
export interface TrialSetOut {
  trial: z.infer<typeof trialSchema>;
  chains: StoredChain[];
  stations: StoredStation[];
  placements: Placement[];
  rigs: RigRecord[];
  frames: StoredFrame[];
  wearers: StoredWearer[];
  scripts: StoredScript[];
  criteria: StoredCriterion[];
  plan: Plan | null;
}

/**
 * The same records for a new trial. Every identity of a record of the trial is replaced wherever it
 * stands, in whatever field: nothing has to be named here when a record gets a new one.
 * @param newId makes an identity
 */
export function copiedTrial(from: TrialSetOut, newId: () => string, nowMs: number): TrialSetOut {
  const ids = new Map<string, string>([[from.trial.id, newId()]]);
  const owned = [...from.chains, ...from.stations, ...from.placements, ...from.rigs, ...from.frames, ...from.wearers, ...from.scripts, ...from.criteria];
  for (const { id } of owned) ids.set(id, newId());
  for (const { id } of [...from.trial.roles, ...(from.plan?.rules ?? [])]) ids.set(id, newId());
  const copy = renamed(from, ids);
  return {
    ...copy,
    trial: {
      ...copy.trial,
      name: `${from.trial.name} (copy)`.slice(0, 120),
      version: 1,
      sample: false,
      createdAtMs: nowMs,
      binnedAtMs: null,
      comparisons: [],
      verdictOpenedAtMs: null,
      passes: null,
    },
    plan: copy.plan && {
      ...copy.plan,
      version: 1,
      committedAtMs: null,
      order: { ...copy.plan.order, pinned: [] },
      day: { ...copy.plan.day, startsAtMs: null, endsAtMs: null, breaks: [] },
      faultSearch: null,
    },
  };
}

/** A value with every identity in it exchanged, also where several stand in one text, as in the key of a setup. */
function renamed<Value>(value: Value, ids: ReadonlyMap<string, string>): Value {
  if (typeof value === 'string') return value.replace(/[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, (id) => ids.get(id) ?? id) as Value;
  if (Array.isArray(value)) return value.map((each) => renamed(each, ids)) as Value;
  if (value && typeof value === 'object') return Object.fromEntries(Object.entries(value).map(([key, each]) => [renamed(key, ids), renamed(each, ids)])) as Value;
  return value;
}
