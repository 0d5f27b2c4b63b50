import { type ChainDraft, linkSettingsSchema } from '@marvet/core/domain/chain';
import { type Item, itemKindSchema } from '@marvet/core/domain/item';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { type UseFormReturn, useFieldArray } from 'react-hook-form';
import { asNumber } from '../../parts/fields.tsx';

const NUMBERS = [
  { setting: 'gainDb', label: 'Gain in dB', placeholder: 'gain dB' },
  { setting: 'padDb', label: 'Pad in dB', placeholder: 'pad dB' },
  { setting: 'lowCutHz', label: 'Low-cut in Hz', placeholder: 'low-cut Hz' },
] as const;

/** A switch whose state nobody noted is null. */
const asSwitch = (value: unknown): boolean | null => (value === true || value === 'true' ? true : value === false || value === 'false' ? false : null);

/** The links of a chain in signal order: add from the library, move, set, take out. */
export function ChainLinks({ form, items }: { form: UseFormReturn<ChainDraft>; items: Item[] }) {
  const { fields, append, move, remove } = useFieldArray({ control: form.control, name: 'links' });
  const [chosen, setChosen] = useState('');
  const nameOf = (itemId: string) => items.find((item) => item.id === itemId)?.name ?? 'no longer in the library';
  const errors = form.formState.errors.links;
  return (
    <fieldset>
      <legend className="form-label">Signal order</legend>
      {fields.map((field, index) => (
        <div key={field.id} className="link-row">
          <span className="mono soft">{index + 1}</span>
          <b className="link-name">{nameOf(field.itemId)}</b>
          <div className="link-settings">
            {NUMBERS.map(({ setting, label, placeholder }) => (
              <Form.Control
                key={setting}
                className="mono"
                size="sm"
                placeholder={placeholder}
                aria-label={`${label} of ${nameOf(field.itemId)}`}
                isInvalid={!!errors?.[index]?.settings?.[setting]}
                {...form.register(`links.${index}.settings.${setting}`, asNumber)}
              />
            ))}
            <Form.Select size="sm" aria-label={`Limiter of ${nameOf(field.itemId)}`} {...form.register(`links.${index}.settings.limiter`, { setValueAs: asSwitch })}>
              <option value="">limiter?</option>
              <option value="true">limiter on</option>
              <option value="false">limiter off</option>
            </Form.Select>
            <Form.Control size="sm" placeholder="other settings" aria-label={`Other settings of ${nameOf(field.itemId)}`} {...form.register(`links.${index}.settings.note`)} />
          </div>
          <span className="text-nowrap">
            <Button size="sm" variant="plain" className="icon" disabled={index === 0} aria-label={`Move ${nameOf(field.itemId)} up`} onClick={() => move(index, index - 1)}>
              <ArrowUp size={15} aria-hidden />
            </Button>
            <Button
              size="sm"
              variant="plain"
              className="icon"
              disabled={index === fields.length - 1}
              aria-label={`Move ${nameOf(field.itemId)} down`}
              onClick={() => move(index, index + 1)}
            >
              <ArrowDown size={15} aria-hidden />
            </Button>
            <Button size="sm" variant="plain" className="icon" aria-label={`Take ${nameOf(field.itemId)} out`} onClick={() => remove(index)}>
              <X size={15} aria-hidden />
            </Button>
          </span>
        </div>
      ))}
      {errors && <div className="invalid-feedback d-block">Gain is −60 to 90 dB, a pad 0 to 40 dB, low-cut 0 to 500 Hz.</div>}
      <div className="row-line mt-2">
        <Form.Select className="w-auto grow" aria-label="Item to add" value={chosen} onChange={(event) => setChosen(event.target.value)}>
          <option value="">{items.length === 0 ? 'The library is empty: add items below the candidates first' : 'Add from the library'}</option>
          {itemKindSchema.options.map((kind) => {
            const ofKind = items.filter((item) => item.kind === kind);
            return (
              ofKind.length > 0 && (
                <optgroup key={kind} label={kind}>
                  {ofKind.map((item) => (
                    <option key={item.id} value={item.id}>
                      {item.name}
                    </option>
                  ))}
                </optgroup>
              )
            );
          })}
        </Form.Select>
        <Button
          variant="outline"
          disabled={!chosen}
          onClick={() => {
            append({ itemId: chosen, settings: linkSettingsSchema.parse({}) });
            setChosen('');
          }}
        >
          Add
        </Button>
      </div>
    </fieldset>
  );
}
