import { zodResolver } from '@hookform/resolvers/zod';
import { type ChainDraft, chainDraftSchema, type StoredChain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import { nextTape, TAPE_KINDS } from '@marvet/core/domain/tape';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { useSaveChainMutation } from '../../data/records.ts';
import { Field } from '../../parts/fields.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { useRecordForm } from '../../parts/useRecordForm.ts';
import { ChainLinks } from './ChainLinks.tsx';
import { SplitField } from './SplitField.tsx';

interface ChainDialogProps {
  trialId: string;
  chain: StoredChain | null;
  chains: StoredChain[];
  items: Item[];
  onClose: () => void;
}

/** One chain: name, tape, links in signal order with their settings, and where the microphone sits. */
export function ChainDialog({ trialId, chain, chains, items, onClose }: ChainDialogProps) {
  const [save, { error, isLoading }] = useSaveChainMutation();
  const others = chains.filter((each) => each.id !== chain?.id).map((each) => each.tape);
  const form = useForm({
    resolver: zodResolver(chainDraftSchema),
    defaultValues: chain ?? {
      name: '',
      links: [],
      rig: { placement: '', onSkin: false },
      split: null,
      candidate: true,
      tape: nextTape('', others),
      remark: '',
      position: chains.length,
    },
  });
  const { errors, dirtyFields } = form.formState;
  const tape = form.watch('tape');
  const record = useRecordForm({ form: form as never, record: chain, what: 'This candidate', send: (draft: ChainDraft, from) => save({ trialId, from, draft }), onClose });
  const name = form.register('name', {
    onBlur: () => {
      if (!chain && !dirtyFields.tape?.letters) form.setValue('tape.letters', nextTape(form.getValues('name'), others).letters);
    },
  });
  return (
    <RecordDialog title={chain ? 'Change candidate' : 'New candidate'} {...record} error={error} saving={isLoading} size="xl">
      <div className="row-line align-items-start">
        <Field label="Name" className="grow" error={errors.name?.message}>
          {(id) => <Form.Control id={id} autoFocus isInvalid={!!errors.name} {...name} />}
        </Field>
        <Field label="Letters" error={errors.tape?.letters?.message}>
          {(id) => (
            <Form.Control id={id} className="mono text-uppercase" style={{ width: 64 }} maxLength={2} isInvalid={!!errors.tape?.letters} {...form.register('tape.letters')} />
          )}
        </Field>
        <Field label="Tape">
          {(id) => (
            <span className="row-line flex-nowrap">
              <Form.Select id={id} {...form.register('tape.kind', { valueAsNumber: true })}>
                {TAPE_KINDS.map((kind, index) => (
                  <option key={kind.pattern} value={index}>
                    {kind.pattern}
                  </option>
                ))}
              </Form.Select>
              <TapeMark tape={{ kind: Number(tape.kind), letters: (tape.letters || '??').toUpperCase() }} width={60} />
            </span>
          )}
        </Field>
      </div>
      <SplitField form={form as never} others={chains.filter((each) => each.id !== chain?.id)} items={items} />
      <ChainLinks form={form as never} items={items} />
      <div className="row-line align-items-end">
        <Field label="Where the microphone sits" className="grow">
          {(id) => <Form.Control id={id} placeholder="breastbone, under the jumper" {...form.register('rig.placement')} />}
        </Field>
        <Form.Check id="on-skin" label="taped on skin" className="mb-2" {...form.register('rig.onSkin')} />
        <Form.Check id="candidate" label="takes part" className="mb-2" {...form.register('candidate')} />
      </div>
      <Field label="Remarks">{(id) => <Form.Control as="textarea" rows={2} id={id} {...form.register('remark')} />}</Field>
      {chain && <Photos ownerKind="chain" ownerId={chain.id} name={chain.name} />}
    </RecordDialog>
  );
}
