import type { StoredCriterion } from '@marvet/core/domain/criterion';
import type { Factor } from '@marvet/core/domain/factor';
import type { Trial, TrialPatch } from '@marvet/core/domain/trial';
import { useCallback } from 'react';
import { useCriteriaQuery } from '../../data/records.ts';
import { useTrialId } from '../../data/trialData.ts';
import { useChangeTrialMutation, useTrialQuery } from '../../data/trials.ts';
import { usePlanQuery } from '../../data/work.ts';
import { KeptText } from '../../parts/fields.tsx';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { Believed } from './Believed.tsx';
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
  return (
    <Loaded of={[query, criteria, plan]}>{() => <QuestionDesk saved={query.data!} fetching={query.isFetching} criteria={criteria.data!} factors={plan.data!.factors} />}</Loaded>
  );
}

interface QuestionDeskProps {
  saved: Trial;
  fetching: boolean;
  criteria: StoredCriterion[];
  factors: Factor[];
}

function QuestionDesk({ saved, fetching, criteria, factors }: QuestionDeskProps) {
  const [save, { error }] = useChangeTrialMutation();
  const {
    draft: trial,
    change,
    conflict,
  } = useDraft(
    saved,
    fetching,
    useCallback((_trial: Trial, patch: TrialPatch, version: number) => save({ id: saved.id, version, patch }), [save, saved.id]),
  );
  const keep = (field: 'name' | 'question' | 'use' | 'place') => (value: string) => change({ [field]: value });
  return (
    <div className="columns">
      <div className="stack">
        <Criteria trial={trial} criteria={criteria} factors={factors} onChange={change} />
        <Pairwise trial={trial} criteria={criteria} onChange={(comparisons) => change({ comparisons })} />
        <Roles trial={trial} onChange={change} />
      </div>
      <div className="stack">
        <Sheet title="The trial">
          <div className="stack">
            <SaveTrouble what="The trial" conflict={conflict} error={error} />
            <KeptText label="Name" value={trial.name} onKeep={keep('name')} maxLength={120} />
            <KeptText label="Question" value={trial.question} onKeep={keep('question')} rows={3} maxLength={300} placeholder="One question, for one use" />
            <KeptText label="Use" value={trial.use} onKeep={keep('use')} rows={3} maxLength={4000} placeholder="Scene, frame, how far the talker moves, may it be seen" />
            <KeptText label="Place" value={trial.place} onKeep={keep('place')} maxLength={300} />
          </div>
        </Sheet>
        <Expectation trial={trial} />
        <Believed trialId={trial.id} />
      </div>
    </div>
  );
}
