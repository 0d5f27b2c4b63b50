import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { Chain } from '@marvet/core/domain/chain';
import { CONDITION_KINDS, type FactorKind } from '@marvet/core/domain/factor';
import { setupCondition, type Take, type TakeSetup } from '@marvet/core/domain/take';
import type { Compared } from '@marvet/core/fair/compare';
import { newFactor } from '@marvet/core/plan/followRecords';
import { conditionWords, levelLabel, TOLD } from '@marvet/core/plan/levelWords';
import { useMemo } from 'react';
import { useParams } from 'react-router';
import { useChainsQuery } from './records.ts';
import { usePlanQuery, useTakesQuery } from './work.ts';

/** The trial that the address speaks of. */
export function useTrialId(): string {
  const { trialId } = useParams();
  if (!trialId) throw new Error('This view stands under a trial');
  return trialId;
}

/** Words of a trial's plan and candidates, for every view that shows takes. */
export interface TrialWords {
  chains: Map<string, Chain>;
  label(kind: FactorKind, levelId: string | undefined): string;
  /** What a setup has that others of its take have not; empty where only the candidate differs. */
  setup(setup: Pick<TakeSetup, 'levels'>): string;
  kindName(kind: FactorKind): string;
  /** A condition in a few words: what is varied in this plan, most telling first. */
  condition(take: Pick<Take, 'condition'>): string;
}

export function useTrialWords(trialId: string): TrialWords {
  const { data: chains } = useChainsQuery(trialId);
  const { data: plan } = usePlanQuery(trialId);
  return useMemo(() => {
    const names = plan ?? { factors: [], removedLevels: [] };
    const factors = names.factors;
    const label = (kind: FactorKind, levelId: string | undefined) => (levelId === undefined ? '' : levelLabel(names, kind, levelId));
    const varied = CONDITION_KINDS.filter((kind) => (factors.find((factor) => factor.kind === kind)?.levels.filter((level) => level.ticked).length ?? 0) > 1);
    const order = TOLD.filter((kind) => varied.includes(kind));
    return {
      chains: new Map((chains ?? []).map((chain) => [chain.id, chain])),
      label,
      condition: (take) => conditionWords(names, take.condition, order).join(', '),
      setup: ({ levels }) => conditionWords(names, levels).join(', '),
      kindName: (kind) => factors.find((factor) => factor.kind === kind)?.name ?? newFactor(kind).name,
    };
  }, [chains, plan]);
}

/** A setup of a take in the form in which setups are compared. */
export function comparedOf(take: Take, setup: TakeSetup): Compared {
  return {
    takeId: take.id,
    setupId: setup.id,
    candidateId: setup.candidateId,
    condition: setupCondition(take, setup),
    gains: take.gains[setup.id] ?? {},
    windMs: take.windMs,
    noiseDba: take.noiseDba,
    controls: take.controls,
    startedAtMs: take.startedAtMs,
  };
}

/** Made once for a list that the server gave, however many views ask. */
const takesById = new WeakMap<readonly Take[], Map<string, Take>>();
const NO_TAKES: Take[] = [];

/** Takes of a trial by id. */
export function useTakesById(trialId: string): Map<string, Take> {
  const { data = NO_TAKES } = useTakesQuery(trialId);
  const known = takesById.get(data) ?? new Map(data.map((take) => [take.id, take]));
  takesById.set(data, known);
  return known;
}

/** A recording beside what it is a recording of. */
export interface Placed {
  take: Take | undefined;
  setup: TakeSetup | undefined;
  chain: Chain | undefined;
}

/** The take, setup and candidate of a recording, whichever of them are known. */
export function placed(recording: Pick<RecordingRow, 'takeId' | 'setupId'> | undefined, takes: ReadonlyMap<string, Take>, chains: ReadonlyMap<string, Chain>): Placed {
  const take = takes.get(recording?.takeId ?? '');
  const setup = take?.setups.find((each) => each.id === recording?.setupId);
  return { take, setup, chain: chains.get(setup?.candidateId ?? '') };
}
