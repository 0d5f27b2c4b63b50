import { type ItemDraft, itemDraftSchema } from '@marvet/core/domain/item';
import { readNumber } from '@marvet/core/domain/readNumber';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { UseFormReturn } from 'react-hook-form';
import { Field, numberOf } from '../../parts/fields.tsx';

const round = (value: number, digits: number) => Number(value.toFixed(digits));
const toDb = (mvPerPa: number) => round(20 * Math.log10(mvPerPa / 1000), 1);
const toMv = (db: number) => round(1000 * 10 ** (db / 20), 2);

/** Sensitivity as makers state it: in mV/Pa, or in dB re 1 V/Pa. One follows from the other; what is kept is mV/Pa. */
export function SensitivityField({ form }: { form: UseFormReturn<ItemDraft> }) {
  const [unit, setUnit] = useState<'mV/Pa' | 'dB re 1 V/Pa'>('mV/Pa');
  const [text, setText] = useState('');
  const error = form.formState.errors.sensitivityMvPerPa?.message;
  const value = form.watch('sensitivityMvPerPa');
  const known = typeof value === 'number' && value > 0;
  return (
    <Field label={`Sensitivity (${unit})`} className="grow" error={error} help={known ? (unit === 'mV/Pa' ? `${toDb(value)} dB re 1 V/Pa` : `${value} mV/Pa`) : ''}>
      {(id) => (
        <span className="row-line flex-nowrap">
          {unit === 'mV/Pa' ? (
            <Form.Control
              id={id}
              className="mono"
              inputMode="decimal"
              isInvalid={!!error}
              {...form.register('sensitivityMvPerPa', numberOf(itemDraftSchema, 'sensitivityMvPerPa'))}
            />
          ) : (
            <Form.Control
              id={id}
              className="mono"
              inputMode="decimal"
              isInvalid={!!error}
              value={text}
              onChange={(event) => {
                setText(event.target.value);
                const read = readNumber(event.target.value, { min: -80, max: 0 });
                // What is no number is refused as one, with the reason, when it is saved.
                const value = read.kind === 'empty' ? null : read.kind === 'number' ? toMv(read.value) : (event.target.value as never);
                form.setValue('sensitivityMvPerPa', value, { shouldDirty: true, shouldValidate: true });
              }}
            />
          )}
          <Form.Select
            className="w-auto"
            aria-label="Unit of sensitivity"
            value={unit}
            onChange={(event) => {
              setUnit(event.target.value as typeof unit);
              setText(known ? String(toDb(value)) : '');
            }}
          >
            <option>mV/Pa</option>
            <option>dB re 1 V/Pa</option>
          </Form.Select>
        </span>
      )}
    </Field>
  );
}
