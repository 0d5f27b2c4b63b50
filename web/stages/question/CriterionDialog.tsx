import { zodResolver } from '@hookform/resolvers/zod';
import { type CriterionDraft, criterionDraftSchema, type StoredCriterion } from '@marvet/core/domain/criterion';
import type { Factor } from '@marvet/core/domain/factor';
import { MEASURE_IDS, type MeasureId } from '@marvet/core/domain/measureId';
import { MEASURES } from '@marvet/core/measure/catalogue';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { useSaveCriterionMutation } from '../../data/records.ts';
import { Field } from '../../parts/fields.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { useRecordForm } from '../../parts/useRecordForm.ts';
import { CriterionWhere } from './CriterionWhere.tsx';
import { DesirabilityPreview } from './DesirabilityPreview.tsx';

/** What is often listened for and inspected, with what the ends of the scale mean. */
const OFTEN = {
  listened: [
    { name: 'Words are clear', worstWords: 'had to guess', bestWords: 'every word at once' },
    { name: 'Sounds like the person', worstWords: 'a telephone', bestWords: 'as standing there' },
    { name: 'Blends with the boom', worstWords: 'another room', bestWords: 'cannot tell the cut' },
  ],
  inspected: [
    { name: 'Build', worstWords: 'broke on the day', bestWords: 'would survive a drop' },
    { name: 'Connector', worstWords: 'fell out', bestWords: 'locks, silent when pulled' },
    { name: 'Display in sun', worstWords: 'unreadable', bestWords: 'read at arm’s length' },
    { name: 'Cable', worstWords: 'kinks and rustles', bestWords: 'coils, silent' },
    { name: 'Concealment', worstWords: 'shows in every frame', bestWords: 'nobody finds it' },
    { name: 'Accessories', worstWords: 'all sold apart', bestWords: 'ready out of the box' },
  ],
};

interface CriterionDialogProps {
  trialId: string;
  criterion: StoredCriterion | null;
  position: number;
  factors: Factor[];
  onClose: () => void;
}

/** One criterion: how it is judged, from which value to which it counts, and what rules out. */
export function CriterionDialog({ trialId, criterion, position, factors, onClose }: CriterionDialogProps) {
  const [save, { error, isLoading }] = useSaveCriterionMutation();
  const form = useForm({
    resolver: zodResolver(criterionDraftSchema),
    defaultValues: criterion ?? {
      name: '',
      kind: 'measured' as const,
      measureId: 'noise.snrDb' as MeasureId,
      weight: 10,
      best: 40,
      worst: 6,
      otherWorst: null,
      aggregation: 'mean' as const,
      where: {},
      worstWords: '',
      bestWords: '',
      dealbreaker: null,
      remark: '',
      position,
    },
  });
  const { errors } = form.formState;
  const kind = form.watch('kind');
  const measureId = form.watch('measureId');
  const dealbreaker = form.watch('dealbreaker');
  const unit = kind === 'measured' && measureId ? MEASURES[measureId].unit : 'points';
  const chooseKind = (next: CriterionDraft['kind']) => {
    form.setValue('kind', next);
    form.setValue('measureId', next === 'measured' ? 'noise.snrDb' : null);
    const { best, worst } = next === 'measured' ? MEASURES['noise.snrDb'].typical : { best: 10, worst: 0 };
    form.setValue('best', best);
    form.setValue('worst', worst);
  };
  const chooseMeasure = (next: MeasureId) => {
    form.setValue('measureId', next);
    form.setValue('best', MEASURES[next].typical.best);
    form.setValue('worst', MEASURES[next].typical.worst);
    if (!form.getValues('name')) form.setValue('name', MEASURES[next].label);
  };
  const watched = (name: 'best' | 'worst' | 'otherWorst') => {
    const value = form.watch(name);
    return typeof value === 'number' ? value : null;
  };
  const record = useRecordForm({ form: form as never, record: criterion, what: 'This criterion', send: (draft: CriterionDraft, from) => save({ trialId, from, draft }), onClose });
  return (
    <RecordDialog title={criterion ? 'Change criterion' : 'New criterion'} {...record} error={error} saving={isLoading}>
      <Field label="Name" error={errors.name?.message}>
        {(id) => <Form.Control id={id} autoFocus isInvalid={!!errors.name} {...form.register('name')} />}
      </Field>
      {kind !== 'measured' && (
        <div className="row-line small">
          <span className="soft">Often asked:</span>
          {OFTEN[kind].map(({ name, worstWords, bestWords }) => (
            <button
              key={name}
              type="button"
              className="btn btn-plain btn-sm"
              onClick={() => {
                form.setValue('name', name);
                form.setValue('worstWords', worstWords);
                form.setValue('bestWords', bestWords);
              }}
            >
              {name}
            </button>
          ))}
        </div>
      )}
      <div className="row-line" role="radiogroup" aria-label="Judged by">
        {(['measured', 'listened', 'inspected'] as const).map((each) => (
          <Form.Check key={each} type="radio" id={`kind-${each}`} name="kind" label={each} checked={kind === each} onChange={() => chooseKind(each)} />
        ))}
      </div>
      {kind === 'measured' && (
        <Field label="Measure" error={errors.measureId?.message}>
          {(id) => (
            <Form.Select id={id} value={measureId ?? ''} onChange={(event) => chooseMeasure(event.target.value as MeasureId)}>
              {MEASURE_IDS.map((each) => (
                <option key={each} value={each}>
                  {MEASURES[each].label} {MEASURES[each].unit && `(${MEASURES[each].unit})`}
                </option>
              ))}
            </Form.Select>
          )}
        </Field>
      )}
      <div className="row-line align-items-start">
        <NumberField form={form} schema={criterionDraftSchema} name="weight" label="Weight" />
        <NumberField form={form} schema={criterionDraftSchema} name="worst" label={`Worst (${unit})`} help="counts as 0" />
        <NumberField form={form} schema={criterionDraftSchema} name="best" label={`Best (${unit})`} help="counts as 100" />
      </div>
      <Form.Check
        id="dealbreaker"
        label="Rules a candidate out beyond a limit"
        checked={!!dealbreaker}
        onChange={(event) =>
          form.setValue('dealbreaker', event.target.checked ? { side: form.getValues('best') > form.getValues('worst') ? 'below' : 'above', limit: form.getValues('worst') } : null)
        }
      />
      {dealbreaker && (
        <div className="row-line align-items-start">
          <Field label="Out when" className="grow">
            {(id) => (
              <Form.Select id={id} {...form.register('dealbreaker.side')}>
                <option value="below">below</option>
                <option value="above">above</option>
              </Form.Select>
            )}
          </Field>
          <NumberField form={form} schema={criterionDraftSchema} name="dealbreaker.limit" label={`Limit (${unit})`} />
        </div>
      )}
      <div className="row-line align-items-start">
        <NumberField
          form={form}
          schema={criterionDraftSchema}
          name="otherWorst"
          label={`Worst on the other side (${unit})`}
          help="only where the best lies in the middle, as with tilt; else left empty"
        />
      </div>
      <DesirabilityPreview best={watched('best') ?? Number.NaN} worst={watched('worst') ?? Number.NaN} otherWorst={watched('otherWorst')} unit={unit} limit={dealbreaker ?? null} />
      {kind !== 'measured' && (
        <div className="row-line align-items-start">
          <Field label="0 points mean" className="grow" error={errors.worstWords?.message}>
            {(id) => <Form.Control id={id} placeholder="had to guess" {...form.register('worstWords')} />}
          </Field>
          <Field label="10 points mean" className="grow" error={errors.bestWords?.message}>
            {(id) => <Form.Control id={id} placeholder="every word at once" {...form.register('bestWords')} />}
          </Field>
        </div>
      )}
      {kind !== 'inspected' && <CriterionWhere form={form as never} factors={factors} />}
      <Field label="Remarks" error={errors.remark?.message}>
        {(id) => <Form.Control id={id} {...form.register('remark')} />}
      </Field>
    </RecordDialog>
  );
}
