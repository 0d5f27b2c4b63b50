import { NOT_KNOWN } from '@marvet/core/domain/factor';
import { slateLabel, type Take, type TakeSetup } from '@marvet/core/domain/take';
import { levelIn, SAID_AFTERWARDS, type SaidAfterwards } from '@marvet/core/takes/sayCondition';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { useTrialWords } from '../../data/trialData.ts';
import { usePlanQuery, useSayConditionMutation } from '../../data/work.ts';
import { Field } from '../../parts/fields.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';

interface NotWrittenDownProps {
  take: Take;
  setup: TakeSetup;
  takes: readonly Take[];
}

/** Distance and windscreen are of one microphone; place and text of all that heard the take. */
const OF_ONE: readonly SaidAfterwards[] = ['distance', 'windscreen'];

/** Where, how far, behind what and of which text a recording is that came without a plan: said afterwards, also of all other takes where it is not known. */
export function NotWrittenDown({ take, setup, takes }: NotWrittenDownProps) {
  const { trialId } = take;
  const { data: plan } = usePlanQuery(trialId);
  const words = useTrialWords(trialId);
  const [say, { isLoading }] = useSayConditionMutation();
  const [everywhere, setEverywhere] = useState(false);
  const told = useTold();
  const tell = useNotice();
  if (!plan) return null;
  const nowOf = (kind: SaidAfterwards) => levelIn(take, kind, setup.candidateId) ?? NOT_KNOWN;
  const unknown = SAID_AFTERWARDS.filter((kind) => nowOf(kind) === NOT_KNOWN);
  const change = async (kind: SaidAfterwards, levelId: string) => {
    const before = nowOf(kind);
    const candidateId = OF_ONE.includes(kind) ? setup.candidateId : null;
    const toAll = everywhere && before === NOT_KNOWN;
    const asked = { trialId, kind, candidateId };
    const { data } = await told(say({ ...asked, levelId, takeIds: toAll ? takes.map(({ id }) => id) : [take.id], onlyUnknown: toAll }));
    if (!data) return;
    const where = data.takeIds.length === 1 ? `take ${slateLabel(take)}` : `${data.takeIds.length} takes`;
    tell(`${words.kindName(kind)} of ${where}: ${words.label(kind, levelId)}`, () => void told(say({ ...asked, levelId: before, takeIds: data.takeIds })));
  };
  return (
    <details open={unknown.length > 0}>
      <summary>
        {unknown.length === 0 ? 'Said afterwards: where, how far, behind what, which text' : `Nobody wrote down: ${unknown.map((kind) => words.kindName(kind)).join(', ')}`}
      </summary>
      <fieldset className="filters mt-1" disabled={isLoading}>
        <legend className="visually-hidden">What was not written down</legend>
        {SAID_AFTERWARDS.map((kind) => (
          <Field key={kind} label={`${words.kindName(kind)}${OF_ONE.includes(kind) ? `, ${words.chains.get(setup.candidateId)?.name ?? ''}` : ''}`}>
            {(id) => (
              <Form.Select id={id} size="sm" value={nowOf(kind)} onChange={(event) => void change(kind, event.target.value)}>
                <option value={NOT_KNOWN}>{NOT_KNOWN}</option>
                {plan.factors
                  .find((factor) => factor.kind === kind)
                  ?.levels.map(({ id: levelId, label }) => (
                    <option key={levelId} value={levelId}>
                      {label}
                    </option>
                  ))}
              </Form.Select>
            )}
          </Field>
        ))}
        <Form.Check
          type="checkbox"
          id="say-everywhere"
          label="the same of all other takes where it is not known"
          checked={everywhere}
          onChange={(event) => setEverywhere(event.target.checked)}
        />
      </fieldset>
    </details>
  );
}
