import type { VerdictView } from '@marvet/core/contract/verdict';
import type { Effects } from '@marvet/core/decide/effects/effects';
import { effectDigits, effectUnit, untoldText } from '@marvet/core/decide/effects/sayEffects';
import { signed } from '@marvet/core/measure/catalogue';
import { useEffectsQuery } from '../../data/judging.ts';
import { useTrialId } from '../../data/trialData.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { useEffectWords } from './useEffectWords.ts';

/** How a candidate lies to the middle of all, figure by figure, as if all had met the same conditions: by the model of what made the difference. */
export function LikeConditions({ view, candidateId }: { view: VerdictView; candidateId: string }) {
  const query = useEffectsQuery({ trialId: useTrialId(), together: '' });
  return (
    <Loaded of={[query]}>
      {() => {
        const told = query.data!.filter(({ terms }) => terms.some(({ term }) => term === 'candidate'));
        if (told.length === 0) return null;
        return (
          <Sheet title="Under like conditions" aside={<span className="small soft">to the middle of all candidates, what else was varied taken out</span>}>
            <dl className="facts small">
              {told.map((effects) => (
                <Figure key={effects.criterionId} effects={effects} view={view} candidateId={candidateId} />
              ))}
            </dl>
          </Sheet>
        );
      }}
    </Loaded>
  );
}

function Figure({ effects, view, candidateId }: { effects: Effects; view: VerdictView; candidateId: string }) {
  const words = useEffectWords();
  const criterion = view.criteria.find(({ id }) => id === effects.criterionId);
  const candidate = effects.terms.find(({ term }) => term === 'candidate');
  if (!criterion || !candidate) return null;
  const own = candidate.levels.find(({ level }) => level === candidateId);
  return (
    <div className="fact">
      <dt>{criterion.name}</dt>
      <dd className="fw-normal">
        {own ? `${own.estimate > 0 ? '+' : ''}${signed(own.estimate, effectDigits(criterion))} ${effectUnit(criterion)}` : (untoldText(candidate, words) ?? 'not recorded')}
      </dd>
    </div>
  );
}
