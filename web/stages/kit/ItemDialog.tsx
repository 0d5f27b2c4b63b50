import { zodResolver } from '@hookform/resolvers/zod';
import { isActive } from '@marvet/core/chain/levels';
import { connectorSchema, powerSchema } from '@marvet/core/domain/connector';
import { type ItemDraft, itemDraftSchema, itemKindSchema, pickupPatternSchema, type StoredItem } from '@marvet/core/domain/item';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { useSaveItemMutation } from '../../data/records.ts';
import { Field } from '../../parts/fields.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { useRecordForm } from '../../parts/useRecordForm.ts';
import { ItemFound } from './ItemFound.tsx';
import { ItemMore } from './ItemMore.tsx';
import { SensitivityField } from './SensitivityField.tsx';

const EMPTY: ItemDraft = { ...itemDraftSchema.parse({ kind: 'microphone', name: 'new' }), name: '' };

type NumberName = { [Name in keyof ItemDraft]: ItemDraft[Name] extends number | null ? Name : never }[keyof ItemDraft];

/** One piece of equipment. Boxes left empty mean "not known". */
export function ItemDialog({ item, onClose }: { item: StoredItem | null; onClose: () => void }) {
  const [save, { error, isLoading }] = useSaveItemMutation();
  const form = useForm({ resolver: zodResolver(itemDraftSchema), defaultValues: item ?? EMPTY });
  const { errors } = form.formState;
  const kind = form.watch('kind');
  const record = useRecordForm({ form: form as never, record: item, what: 'This item', send: (draft: ItemDraft, from) => save({ from, draft }), onClose });
  const number = (name: NumberName, label: string) => <NumberField form={form} schema={itemDraftSchema} name={name} label={label} />;
  const choice = (name: 'inputConnector' | 'outputConnector' | 'powerNeeds' | 'powerGives', label: string, options: readonly string[]) => (
    <Field label={label} className="grow">
      {(id) => (
        <Form.Select id={id} {...form.register(name, { setValueAs: (value: string) => value || null })}>
          <option value="">not known</option>
          {options.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </Form.Select>
      )}
    </Field>
  );
  return (
    <RecordDialog title={item ? 'Change item' : 'New item'} {...record} error={error} saving={isLoading} size="lg">
      <div className="row-line align-items-start">
        <Field label="Kind">
          {(id) => (
            <Form.Select id={id} {...form.register('kind')}>
              {itemKindSchema.options.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Form.Select>
          )}
        </Field>
        <Field label="Name" className="grow" error={errors.name?.message}>
          {(id) => <Form.Control id={id} autoFocus isInvalid={!!errors.name} {...form.register('name')} />}
        </Field>
      </div>
      <div className="row-line align-items-start">
        {number('price', 'Price')}
        <Field label="Currency" error={errors.currency?.message}>
          {(id) => <Form.Control id={id} className="mono text-uppercase" style={{ width: 80 }} maxLength={3} {...form.register('currency')} />}
        </Field>
        {number('weightG', 'Weight (g)')}
      </div>
      {kind === 'microphone' && (
        <>
          <Field label="Pattern">
            {(id) => (
              <Form.Select id={id} {...form.register('pattern', { setValueAs: (value: string) => value || null })}>
                <option value="">not known</option>
                {pickupPatternSchema.options.map((each) => (
                  <option key={each}>{each}</option>
                ))}
              </Form.Select>
            )}
          </Field>
          <div className="row-line align-items-start">
            {number('selfNoiseDba', 'Self-noise (dB A)')}
            <SensitivityField form={form as never} />
            {number('maxSplDb', 'Maximum SPL (dB)')}
          </div>
        </>
      )}
      {isActive({ kind }) && (
        <div className="row-line align-items-start">
          {kind !== 'receiver' && number('inputMaxDbu', 'Largest input (dBu)')}
          {(kind === 'recorder' || kind === 'camera') && number('lineInputMaxDbu', 'The same at line (dBu)')}
          {number('inputNoiseDbuA', kind === 'receiver' ? 'Radio noise (dBFS A)' : 'Input noise (dBu A)')}
          {kind !== 'receiver' && number('converterNoiseDbfsA', 'Converter noise (dBFS A)')}
          {number('gainMinDb', 'Gain from (dB)')}
          {number('gainMaxDb', 'Gain to (dB)')}
          {kind !== 'transmitter' && number('outputMaxDbu', 'Largest output (dBu)')}
        </div>
      )}
      {kind !== 'windscreen' && (
        <div className="row-line align-items-start">
          {kind !== 'microphone' && choice('inputConnector', 'Input', connectorSchema.options)}
          {choice('outputConnector', 'Output', connectorSchema.options)}
          <Field label="Wiring" className="grow">
            {(id) => <Form.Control id={id} placeholder="as its papers say" {...form.register('wiring')} />}
          </Field>
          {(kind === 'adapter' || kind === 'cable') && (
            <Field label="Wiring of the other end" className="grow">
              {(id) => <Form.Control id={id} placeholder="where it differs" {...form.register('outputWiring')} />}
            </Field>
          )}
          {(kind === 'adapter' || kind === 'cable') && number('lossDb', 'Takes away (dB)')}
          {(kind === 'transmitter' || kind === 'receiver') && (
            <Field label="Radio system" className="grow">
              {(id) => <Form.Control id={id} placeholder="as its papers call it" {...form.register('radioSystem')} />}
            </Field>
          )}
          {kind === 'microphone' && choice('powerNeeds', 'Is fed with', powerSchema.options)}
          {(kind === 'adapter' || (isActive({ kind }) && kind !== 'receiver')) && choice('powerGives', 'Feeds microphones with', powerSchema.options)}
        </div>
      )}
      <div className="row-line align-items-start">
        <Field label="Battery type" className="grow">
          {(id) => <Form.Control id={id} placeholder="AA" {...form.register('batteryType')} />}
        </Field>
        {number('batteryCount', 'Batteries')}
        {number('runningTimeH', 'Running time (h)')}
      </div>
      <ItemMore form={form as never} />
      <Field label="Remarks">{(id) => <Form.Control as="textarea" rows={2} id={id} {...form.register('remark')} />}</Field>
      {item && <ItemFound itemId={item.id} />}
      {item && <Photos ownerKind="item" ownerId={item.id} name={item.name} />}
    </RecordDialog>
  );
}
