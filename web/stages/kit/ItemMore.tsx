import { isActive } from '@marvet/core/chain/levels';
import { type ItemDraft, itemDraftSchema, wordLengthSchema } from '@marvet/core/domain/item';
import Form from 'react-bootstrap/Form';
import type { UseFormReturn } from 'react-hook-form';
import { Field, yesNoOrUnknown } from '../../parts/fields.tsx';
import { NumberField } from '../../parts/NumberField.tsx';

type NumberName = 'owned' | 'channels' | 'storageGb' | 'frequencyLowHz' | 'frequencyHighHz' | 'warrantyMonths' | 'adapterPrice' | 'batteryPrice';
type TextName = 'switches' | 'sizeMm' | 'cable' | 'moisture' | 'inTheBox';

/** What one rarely needs and then badly: channels, storage, rates, size, moisture, what is in the box, warranty. */
export function ItemMore({ form }: { form: UseFormReturn<ItemDraft> }) {
  const { errors } = form.formState;
  const kind = form.watch('kind');
  const active = isActive({ kind });
  const rates = form.watch('sampleRatesHz') ?? [];
  const number = (name: NumberName, label: string) => <NumberField form={form} schema={itemDraftSchema} name={name} label={label} />;
  const text = (name: TextName, label: string, placeholder: string) => (
    <Field label={label} className="grow" error={errors[name]?.message}>
      {(id) => <Form.Control id={id} placeholder={placeholder} {...form.register(name)} />}
    </Field>
  );
  const balanced = (name: 'balancedInput' | 'balancedOutput', label: string) => (
    <Field label={label} className="grow">
      {(id) => (
        <Form.Select id={id} {...form.register(name, yesNoOrUnknown)}>
          <option value="">not known</option>
          <option value="true">balanced</option>
          <option value="false">unbalanced</option>
        </Form.Select>
      )}
    </Field>
  );
  return (
    <details>
      <summary>More data</summary>
      <div className="stack mt-2">
        <div className="row-line align-items-start">
          {number('owned', 'Units at hand')}
          {number('channels', 'Channels')}
          {active && number('storageGb', 'Storage (GB)')}
          {number('adapterPrice', 'Adapters sold apart')}
          {number('batteryPrice', 'One battery costs')}
          {number('warrantyMonths', 'Warranty (months)')}
        </div>
        {active && (
          <div className="row-line align-items-start">
            <Field label="Sample rates (Hz)" className="grow" error={errors.sampleRatesHz ? 'Rates are 8,000 to 384,000 Hz, a space between two' : undefined}>
              {(id) => (
                <Form.Control
                  id={id}
                  className="mono"
                  placeholder="48000 96000"
                  defaultValue={rates.join(' ')}
                  onBlur={(event) =>
                    form.setValue(
                      'sampleRatesHz',
                      event.target.value
                        .split(/[\s,;]+/)
                        .filter(Boolean)
                        .map(Number),
                      { shouldDirty: true, shouldValidate: true },
                    )
                  }
                />
              )}
            </Field>
            <fieldset>
              <legend className="form-label">Word lengths</legend>
              <div className="row-line">
                {wordLengthSchema.options.map((each) => (
                  <Form.Check key={each} id={`word-${each}`} label={each} value={each} {...form.register('wordLengths')} />
                ))}
              </div>
            </fieldset>
          </div>
        )}
        <div className="row-line align-items-start">
          {kind !== 'microphone' && balanced('balancedInput', 'Input line')}
          {kind !== 'transmitter' && balanced('balancedOutput', 'Output line')}
          {kind === 'microphone' && (
            <>
              <Field label="Address" className="grow">
                {(id) => (
                  <Form.Select id={id} {...form.register('address', { setValueAs: (value) => value || null })}>
                    <option value="">not known</option>
                    <option value="end">from the end</option>
                    <option value="side">from the side</option>
                  </Form.Select>
                )}
              </Field>
              {number('frequencyLowHz', 'From (Hz)')}
              {number('frequencyHighHz', 'To (Hz)')}
            </>
          )}
        </div>
        <div className="row-line align-items-start">
          {text('switches', 'Low-cuts, pads, caps', 'low-cut 80 Hz, pad 10 dB, cap that lifts the top end')}
          {text('sizeMm', 'Size (mm)', '19 x 130')}
        </div>
        <div className="row-line align-items-start">
          {text('cable', 'Cable', '1.6 m, fixed')}
          {text('moisture', 'Moisture', 'splash-proof')}
          {text('inTheBox', 'In the box', 'foam, clip, pouch')}
        </div>
      </div>
    </details>
  );
}
