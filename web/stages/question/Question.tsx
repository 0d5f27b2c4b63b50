import type { TrialPatch } from '@marvet/core/domain/trial';
import { useCriteriaQuery } from '../../app/api/records.ts';
import { useChangeTrialMutation, useTrialQuery } from '../../app/api/trials.ts';
import { usePlanQuery } from '../../app/api/work.ts';
import { useTrialId } from '../../app/trialData.ts';
import { KeptText } from '../../parts/fields.tsx';
import { Loaded, Sheet, Trouble } from '../../parts/states.tsx';
import { Criteria } from './Criteria.tsx';
import { Expectation } from './Expectation.tsx';
import { Pairwise } from './Pairwise.tsx';
import { Roles } from './Roles.tsx';

/** What is to be decided and for whom, on which criteria, and what is expected. */
export default function Question() {
  const trialId = useTrialId();
  const query = useTrialQuery(trialId);
  const criteria = useCriteriaQuery(trialId);
  const plan = usePlanQuery(trialId);
  const [change, { error }] = useChangeTrialMutation();
  return (
    <Loaded of={[query, criteria, plan]}>
      {() => {
        const trial = query.data!;
        const patch = (values: TrialPatch) => void change({ id: trialId, patch: values });
        const keep = (field: 'name' | 'question' | 'use' | 'place') => (value: string) => patch({ [field]: value });
        return (
          <div className="columns">
            <div className="stack">
              <Criteria trial={trial} criteria={criteria.data!} factors={plan.data!.factors} />
              <Pairwise trial={trial} criteria={criteria.data!} onChange={(comparisons) => patch({ comparisons })} />
              <Roles trial={trial} onChange={patch} />
            </div>
            <div className="stack">
              <Sheet title="The trial">
                <div className="stack">
                  <Trouble error={error} />
                  <KeptText label="Name" value={trial.name} onKeep={keep('name')} maxLength={120} />
                  <KeptText label="Question" value={trial.question} onKeep={keep('question')} rows={3} maxLength={300} placeholder="One question, for one use" />
                  <KeptText label="Use" value={trial.use} onKeep={keep('use')} rows={3} maxLength={4000} placeholder="Scene, frame, how far the talker moves, may it be seen" />
                  <KeptText label="Place" value={trial.place} onKeep={keep('place')} maxLength={300} />
                </div>
              </Sheet>
              <Expectation trial={trial} />
            </div>
          </div>
        );
      }}
    </Loaded>
  );
}
