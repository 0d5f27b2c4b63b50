import { zodResolver } from '@hookform/resolvers/zod';
import { type RigRecord, type RigRecordDraft, rigRecordDraftSchema, USUAL_RIGS } from '@marvet/core/domain/rigRecord';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { useSaveRigMutation } from '../../data/records.ts';
import { Field, yesNoOrUnknown } from '../../parts/fields.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { useRecordForm } from '../../parts/useRecordForm.ts';
import { UsualOnes } from './UsualOnes.tsx';

const EMPTY: RigRecordDraft = { ...rigRecordDraftSchema.parse({ name: 'new' }), name: '' };
const NUMBERS = [
  ['clothLayers', 'Layers of cloth'],
  ['clothLossDb', 'A layer takes (dB)'],
  ['capLiftDb', 'A cap lifts (dB)'],
] as const;

/** How a microphone is fixed and covered, in numbers. Boxes left empty mean "not known". */
export function RigDialog({ trialId, rig, onClose }: { trialId: string; rig: RigRecord | null; onClose: () => void }) {
  const [save, { error, isLoading }] = useSaveRigMutation();
  const form = useForm({ resolver: zodResolver(rigRecordDraftSchema), defaultValues: rig ?? EMPTY });
  const { errors } = form.formState;
  const record = useRecordForm({ form: form as never, record: rig, what: 'This rig', send: (draft: RigRecordDraft, from) => save({ trialId, from, draft }), onClose });
  return (
    <RecordDialog title={rig ? 'Change rig' : 'New rig'} {...record} error={error} saving={isLoading}>
      {!rig && <UsualOnes drafts={USUAL_RIGS} onChoose={(usual) => form.reset(usual, { keepDefaultValues: true })} />}
      <div className="row-line align-items-start">
        <Field label="Name" className="grow" error={errors.name?.message}>
          {(id) => <Form.Control id={id} autoFocus isInvalid={!!errors.name} {...form.register('name')} />}
        </Field>
        <Field label="Fixed with">
          {(id) => (
            <Form.Select id={id} {...form.register('fixing')}>
              {rigRecordDraftSchema.shape.fixing.unwrap().options.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Form.Select>
          )}
        </Field>
      </div>
      <div className="row-line align-items-start">
        {NUMBERS.map(([name, label]) => (
          <NumberField key={name} form={form} schema={rigRecordDraftSchema} name={name} label={label} />
        ))}
      </div>
      <div className="row-line align-items-start">
        <Field label="Cloth" className="grow">
          {(id) => <Form.Control id={id} placeholder="wool over cotton" {...form.register('cloth')} />}
        </Field>
        <Field label="Strain relief of its cable">
          {(id) => (
            <Form.Select id={id} {...form.register('strainRelief', yesNoOrUnknown)}>
              <option value="">not known</option>
              <option value="true">yes</option>
              <option value="false">no</option>
            </Form.Select>
          )}
        </Field>
      </div>
      <Form.Check id="rig-on-skin" label="taped on skin" {...form.register('onSkin')} />
      <Field label="Remarks">{(id) => <Form.Control as="textarea" rows={2} id={id} {...form.register('remark')} />}</Field>
    </RecordDialog>
  );
}
