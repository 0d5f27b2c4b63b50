import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { isActive } from '@marvet/core/chain/levels';
import { type ChainDraft, linkSettingsSchema } from '@marvet/core/domain/chain';
import { powerSchema } from '@marvet/core/domain/connector';
import { type Item, wordLengthSchema } from '@marvet/core/domain/item';
import { ArrowDown, ArrowUp, GripVertical, X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { UseFormReturn } from 'react-hook-form';
import { numberOf, yesNoOrUnknown } from '../../parts/fields.tsx';

interface ChainLinkRowProps {
  id: string;
  form: UseFormReturn<ChainDraft>;
  index: number;
  last: boolean;
  item: Item | undefined;
  onMove: (to: number) => void;
  onRemove: () => void;
}

const NUMBERS = [
  { setting: 'gainDb', label: 'Gain in dB', placeholder: 'gain dB' },
  { setting: 'padDb', label: 'Pad in dB', placeholder: 'pad dB' },
  { setting: 'lowCutHz', label: 'Low-cut in Hz', placeholder: 'low-cut Hz' },
  { setting: 'safetyTrackDb', label: 'Safety track in dB', placeholder: 'safety dB' },
] as const;
const SWITCHES = [
  { setting: 'limiter', name: 'limiter' },
  { setting: 'automaticLevel', name: 'automatic level' },
  { setting: 'noiseReduction', name: 'noise reduction' },
] as const;
const RATES_HZ = [44_100, 48_000, 88_200, 96_000, 192_000];

const asChoice = { setValueAs: (value: unknown) => value || null };

/** One link with its settings: dragged by its grip, or stepped with the arrows. */
export function ChainLinkRow({ id, form, index, last, item, onMove, onRemove }: ChainLinkRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  const name = item?.name ?? 'no longer in the library';
  const errors = form.formState.errors.links?.[index]?.settings;
  const field = `links.${index}.settings` as const;
  return (
    <div ref={setNodeRef} className={`link-row ${isDragging ? 'dragged' : ''}`} style={{ transform: CSS.Transform.toString(transform), transition }}>
      <button type="button" className="btn btn-plain btn-sm icon grip" {...attributes} {...listeners} aria-label={`Drag ${name}`}>
        <GripVertical size={15} aria-hidden />
      </button>
      <b className="link-name">
        {index + 1}. {name}
      </b>
      <div className="link-settings">
        {/* A microphone has a pad, a cable or adapter one in its line; nothing else of them is set. */}
        {item && !isActive(item) && item.kind !== 'windscreen' && (
          <Form.Control
            className="mono"
            size="sm"
            placeholder="pad dB"
            aria-label={`Pad in dB of ${name}`}
            isInvalid={!!errors?.padDb}
            {...form.register(`${field}.padDb`, numberOf(linkSettingsSchema, 'padDb'))}
          />
        )}
        {item && isActive(item) && (
          <>
            {NUMBERS.map(({ setting, label, placeholder }) => (
              <Form.Control
                key={setting}
                className="mono"
                size="sm"
                placeholder={placeholder}
                aria-label={`${label} of ${name}`}
                isInvalid={!!errors?.[setting]}
                {...form.register(`${field}.${setting}`, numberOf(linkSettingsSchema, setting))}
              />
            ))}
            {SWITCHES.map(({ setting, name: what }) => (
              <Form.Select
                key={setting}
                size="sm"
                aria-label={`${what.charAt(0).toUpperCase()}${what.slice(1)} of ${name}`}
                {...form.register(`${field}.${setting}`, yesNoOrUnknown)}
              >
                <option value="">{what}?</option>
                <option value="true">{what} on</option>
                <option value="false">{what} off</option>
              </Form.Select>
            ))}
            <Form.Select size="sm" aria-label={`Level of the input of ${name}`} {...form.register(`${field}.lineLevel`, asChoice)}>
              <option value="">mic or line?</option>
              <option value="mic">mic level</option>
              <option value="line">line level</option>
            </Form.Select>
            <Form.Select size="sm" aria-label={`Power that ${name} feeds`} {...form.register(`${field}.power`, asChoice)}>
              <option value="">feeds?</option>
              {powerSchema.options.map((each) => (
                <option key={each} value={each}>
                  feeds {each}
                </option>
              ))}
            </Form.Select>
            <Form.Select size="sm" aria-label={`Sample rate of ${name}`} {...form.register(`${field}.sampleRateHz`, { setValueAs: (value) => (value ? Number(value) : null) })}>
              <option value="">rate?</option>
              {(item.sampleRatesHz.length > 0 ? item.sampleRatesHz : RATES_HZ).map((rateHz) => (
                <option key={rateHz} value={rateHz}>
                  {rateHz / 1000} kHz
                </option>
              ))}
            </Form.Select>
            <Form.Select size="sm" aria-label={`Word length of ${name}`} {...form.register(`${field}.wordLength`, asChoice)}>
              <option value="">word length?</option>
              {(item.wordLengths.length > 0 ? item.wordLengths : wordLengthSchema.options).map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Form.Select>
          </>
        )}
        <Form.Control size="sm" className="note" placeholder="other settings" aria-label={`Other settings of ${name}`} {...form.register(`${field}.note`)} />
      </div>
      <span className="text-nowrap">
        <Button size="sm" variant="plain" className="icon" disabled={index === 0} aria-label={`Move ${name} up`} onClick={() => onMove(index - 1)}>
          <ArrowUp size={15} aria-hidden />
        </Button>
        <Button size="sm" variant="plain" className="icon" disabled={last} aria-label={`Move ${name} down`} onClick={() => onMove(index + 1)}>
          <ArrowDown size={15} aria-hidden />
        </Button>
        <Button size="sm" variant="plain" className="icon" aria-label={`Take ${name} out`} onClick={onRemove}>
          <X size={15} aria-hidden />
        </Button>
      </span>
    </div>
  );
}
