import type { TogetherOf } from '@marvet/core/decide/effects/together';
import { useSearchParams } from 'react-router';
import { useTrialId } from '../../data/trialData.ts';
import { usePlanQuery } from '../../data/work.ts';

/** Pairs of factors of which is asked whether they work on each other: those in the address, or else those that the plan keeps apart. */
export function useTogether(): { asked: string; change(pairs: readonly TogetherOf[]): void } {
  const { data: plan } = usePlanQuery(useTrialId());
  const [params, setParams] = useSearchParams();
  const textOf = (pairs: readonly TogetherOf[]) => pairs.map((pair) => pair.join('*')).join(',');
  return {
    asked: params.get('together') ?? textOf(plan?.design.interactions ?? []),
    change: (pairs) =>
      setParams(
        (now) => {
          now.set('together', textOf(pairs));
          return now;
        },
        { replace: true, preventScrollReset: true },
      ),
  };
}
