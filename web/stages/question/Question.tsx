import { useCriteriaQuery } from '../../app/api/records.ts';
import { useChangeTrialMutation, useTrialQuery } from '../../app/api/trials.ts';
import { useTrialId } from '../../app/trialData.ts';
import { KeptText } from '../../parts/fields.tsx';
import { Loaded, Sheet, Trouble } from '../../parts/states.tsx';
import { Criteria } from './Criteria.tsx';
import { Expectation } from './Expectation.tsx';

/** What is to be decided and for whom, on which criteria, and what is expected. */
export default function Question() {
  const trialId = useTrialId();
  const query = useTrialQuery(trialId);
  const criteria = useCriteriaQuery(trialId);
  const [change, { error }] = useChangeTrialMutation();
  return (
    <Loaded of={[query, criteria]}>
      {() => {
        const trial = query.data!;
        const keep = (field: 'name' | 'question' | 'use' | 'place') => (value: string) => void change({ id: trialId, patch: { [field]: value } });
        return (
          <div className="columns">
            <Criteria trialId={trialId} criteria={criteria.data!} />
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
