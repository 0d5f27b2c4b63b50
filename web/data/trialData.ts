import type { Chain } from '@marvet/core/domain/chain';
import { CONDITION_KINDS, type FactorKind } from '@marvet/core/domain/factor';
import type { Take } from '@marvet/core/domain/take';
import type { Compared } from '@marvet/core/fair/compare';
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
  label(kind: FactorKind, levelId: string): string;
  /** A condition in a few words: what is varied in this plan, most telling first. */
  condition(take: Pick<Take, 'condition'>): string;
}

export function useTrialWords(trialId: string): TrialWords {
  const { data: chains } = useChainsQuery(trialId);
  const { data: plan } = usePlanQuery(trialId);
  return useMemo(() => {
    const factors = plan?.factors ?? [];
    const label = (kind: FactorKind, levelId: string) => levelLabel(factors, kind, levelId);
    const varied = CONDITION_KINDS.filter((kind) => (factors.find((factor) => factor.kind === kind)?.levels.filter((level) => level.ticked).length ?? 0) > 1);
    const order = TOLD.filter((kind) => varied.includes(kind));
    return {
      chains: new Map((chains ?? []).map((chain) => [chain.id, chain])),
      label,
      condition: (take) => conditionWords(factors, take.condition, order).join(', '),
    };
  }, [chains, plan]);
}

/** A take's candidate in the form in which takes are compared. */
export function comparedOf(take: Take, candidateId: string): Compared {
  return {
    takeId: take.id,
    candidateId,
    condition: take.condition,
    gains: take.gains[candidateId] ?? {},
    windMs: take.windMs,
    noiseDba: take.noiseDba,
    controls: take.controls,
    startedAtMs: take.startedAtMs,
  };
}

/** Takes of a trial by id. */
export function useTakesById(trialId: string): Map<string, Take> {
  const { data } = useTakesQuery(trialId);
  return useMemo(() => new Map((data ?? []).map((take) => [take.id, take])), [data]);
}
