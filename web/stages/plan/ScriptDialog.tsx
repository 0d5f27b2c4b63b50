import { zodResolver } from '@hookform/resolvers/zod';
import { type ScriptDraft, type StoredScript, scriptDraftSchema } from '@marvet/core/domain/script';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { useSaveScriptMutation } from '../../data/records.ts';
import { Field } from '../../parts/fields.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { useRecordForm } from '../../parts/useRecordForm.ts';

interface ScriptDialogProps {
  trialId: string;
  script: StoredScript | null;
  position: number;
  onClose: () => void;
}

/** A script: what is spoken or done, by whom, why, and how long it lasts. */
export function ScriptDialog({ trialId, script, position, onClose }: ScriptDialogProps) {
  const [save, { error, isLoading }] = useSaveScriptMutation();
  const form = useForm({ resolver: zodResolver(scriptDraftSchema), defaultValues: script ?? { name: '', text: '', purpose: '', talker: '', lengthS: 10, position } });
  const { errors } = form.formState;
  const record = useRecordForm({ form: form as never, record: script, what: 'This script', send: (draft: ScriptDraft, from) => save({ trialId, from, draft }), onClose });
  return (
    <RecordDialog title={script ? 'Change script' : 'New script'} {...record} error={error} saving={isLoading}>
      <Field label="Name" error={errors.name?.message}>
        {(id) => <Form.Control id={id} autoFocus isInvalid={!!errors.name} {...form.register('name')} />}
      </Field>
      <Field label="Text, word for word" error={errors.text?.message}>
        {(id) => <Form.Control as="textarea" rows={3} id={id} {...form.register('text')} />}
      </Field>
      <Field label="What it shows">{(id) => <Form.Control id={id} {...form.register('purpose')} />}</Field>
      <div className="row-line align-items-start">
        <Field label="Talker" className="grow">
          {(id) => <Form.Control id={id} {...form.register('talker')} />}
        </Field>
        <NumberField form={form} schema={scriptDraftSchema} name="lengthS" label="Length (s)" />
      </div>
    </RecordDialog>
  );
}
