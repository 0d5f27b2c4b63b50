import { zodResolver } from '@hookform/resolvers/zod';
import { type Placement, type PlacementDraft, placementDraftSchema, USUAL_PLACEMENTS } from '@marvet/core/domain/placement';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { useSavePlacementMutation } from '../../data/records.ts';
import { Field } from '../../parts/fields.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { useRecordForm } from '../../parts/useRecordForm.ts';
import { UsualOnes } from './UsualOnes.tsx';

const EMPTY: PlacementDraft = { ...placementDraftSchema.parse({ name: 'new' }), name: '' };
const NUMBERS = [
  ['distanceM', 'From the mouth (m)'],
  ['offAxisDeg', 'Off the axis of the mouth (°)'],
  ['aimDeg', 'Its own axis looks away by (°)'],
] as const;

/** Where a microphone is, in numbers. Boxes left empty mean "not known". */
export function PlacementDialog({ trialId, placement, onClose }: { trialId: string; placement: Placement | null; onClose: () => void }) {
  const [save, { error, isLoading }] = useSavePlacementMutation();
  const form = useForm({ resolver: zodResolver(placementDraftSchema), defaultValues: placement ?? EMPTY });
  const { errors } = form.formState;
  const record = useRecordForm({
    form: form as never,
    record: placement,
    what: 'This placement',
    send: (draft: PlacementDraft, from) => save({ trialId, from, draft }),
    onClose,
  });
  const on = form.watch('on');
  const number = (name: 'belowChinM' | 'heightM' | (typeof NUMBERS)[number][0], label: string) => (
    <NumberField key={name} form={form} schema={placementDraftSchema} name={name} label={label} />
  );
  return (
    <RecordDialog title={placement ? 'Change placement' : 'New placement'} {...record} error={error} saving={isLoading}>
      {!placement && <UsualOnes drafts={USUAL_PLACEMENTS} onChoose={(usual) => form.reset(usual, { keepDefaultValues: true })} />}
      <div className="row-line align-items-start">
        <Field label="Name" className="grow" error={errors.name?.message}>
          {(id) => <Form.Control id={id} autoFocus isInvalid={!!errors.name} {...form.register('name')} />}
        </Field>
        <Field label="On">
          {(id) => (
            <Form.Select id={id} {...form.register('on')}>
              {placementDraftSchema.shape.on.unwrap().options.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Form.Select>
          )}
        </Field>
      </div>
      <div className="row-line align-items-start">
        {on === 'body' ? number('belowChinM', 'Under the chin (m)') : number('heightM', 'Over the ground (m)')}
        {NUMBERS.map(([name, label]) => number(name, label))}
      </div>
      <Field label="Remarks">{(id) => <Form.Control as="textarea" rows={2} id={id} {...form.register('remark')} />}</Field>
    </RecordDialog>
  );
}
