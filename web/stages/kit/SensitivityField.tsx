import type { ItemDraft } from '@marvet/core/domain/item';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { UseFormReturn } from 'react-hook-form';
import { asNumber, Field } from '../../parts/fields.tsx';

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
            <Form.Control id={id} className="mono" inputMode="decimal" isInvalid={!!error} {...form.register('sensitivityMvPerPa', asNumber)} />
          ) : (
            <Form.Control
              id={id}
              className="mono"
              inputMode="decimal"
              isInvalid={!!error}
              value={text}
              onChange={(event) => {
                setText(event.target.value);
                const db = Number(event.target.value.replace(',', '.').replace('−', '-'));
                form.setValue('sensitivityMvPerPa', event.target.value.trim() === '' || !Number.isFinite(db) ? null : toMv(db), { shouldDirty: true, shouldValidate: true });
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
