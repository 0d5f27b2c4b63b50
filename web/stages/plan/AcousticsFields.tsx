import { type StationDraft, stationDraftSchema } from '@marvet/core/domain/station';
import Form from 'react-bootstrap/Form';
import type { Path, UseFormReturn } from 'react-hook-form';
import { NumberField } from '../../parts/NumberField.tsx';

const BANDS_HZ = ['125', '250', '500', '1 k', '2 k', '4 k'];
const SIDES = ['Length', 'Width', 'Height'];
const NUMBERS = [
  ['acoustics.noiseDba', 'Noise (dB A)'],
  ['acoustics.noiseSlopeDb', 'Its slope (dB an octave)'],
  ['acoustics.windMs', 'Wind (m/s)'],
] as const;

/** What a station sounds like, in the numbers that a simulated room is made of; folded away, since few know them. */
export function AcousticsFields({ form }: { form: UseFormReturn<StationDraft> }) {
  const { sizeM, absorption, hum } = form.watch('acoustics');
  const number = (name: Path<StationDraft>, label: string) => <NumberField key={name} form={form} schema={stationDraftSchema} name={name} label={label} size="sm" />;
  return (
    <details {...(form.formState.errors.acoustics ? { open: true } : {})}>
      <summary>Acoustics in numbers: size, surfaces, noise sources</summary>
      <div className="stack gap-2 mt-2">
        <div className="row-line align-items-start">{NUMBERS.map(([path, label]) => number(path, label))}</div>
        <Form.Check
          id="has-walls"
          label="has walls"
          checked={sizeM !== null}
          onChange={(event) => {
            form.setValue('acoustics.sizeM', event.target.checked ? [5, 4, 2.6] : null, { shouldDirty: true });
            if (!event.target.checked) form.setValue('acoustics.absorption', null, { shouldDirty: true });
          }}
        />
        {sizeM && <div className="row-line align-items-start">{SIDES.map((side, at) => number(`acoustics.sizeM.${at as 0 | 1 | 2}`, `${side} (m)`))}</div>}
        {sizeM && (
          <Form.Check
            id="has-absorption"
            label="what its surfaces take up is known, 0.01 to 0.99"
            checked={absorption !== null}
            onChange={(event) => form.setValue('acoustics.absorption', event.target.checked ? BANDS_HZ.map(() => 0.1) : null, { shouldDirty: true })}
          />
        )}
        {absorption && <div className="row-line align-items-start">{BANDS_HZ.map((band, at) => number(`acoustics.absorption.${at}`, `${band}Hz`))}</div>}
        <Form.Check
          id="has-hum"
          label="a machine is heard"
          checked={hum !== null}
          onChange={(event) => form.setValue('acoustics.hum', event.target.checked ? { fundamentalHz: 50, levelDba: 40 } : null, { shouldDirty: true })}
        />
        {hum && (
          <div className="row-line align-items-start">
            {number('acoustics.hum.fundamentalHz', 'Its fundamental (Hz)')}
            {number('acoustics.hum.levelDba', 'Its level (dB A)')}
          </div>
        )}
      </div>
    </details>
  );
}
