import { zodResolver } from '@hookform/resolvers/zod';
import { type Placement, type PlacementDraft, placementDraftSchema, USUAL_PLACEMENTS } from '@marvet/core/domain/placement';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { useSavePlacementMutation } from '../../data/records.ts';
import { Field, numberOf } from '../../parts/fields.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { useRecordForm } from '../../parts/useRecordForm.ts';

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
    <Field key={name} label={label} className="grow" error={errors[name]?.message}>
      {(id) => <Form.Control id={id} className="mono" inputMode="decimal" isInvalid={!!errors[name]} {...form.register(name, numberOf(placementDraftSchema, name))} />}
    </Field>
  );
  return (
    <RecordDialog title={placement ? 'Change placement' : 'New placement'} {...record} error={error} saving={isLoading}>
      {!placement && (
        <div className="row-line small">
          <span className="soft">Usual:</span>
          {USUAL_PLACEMENTS.map((usual) => (
            <button key={usual.name} type="button" className="btn btn-plain btn-sm" onClick={() => form.reset(usual, { keepDefaultValues: true })}>
              {usual.name}
            </button>
          ))}
        </div>
      )}
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
