import { zodResolver } from '@hookform/resolvers/zod';
import { acousticsSchema, hazardSchema, type StationDraft, type StoredStation, stationDraftSchema } from '@marvet/core/domain/station';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { useSaveStationMutation } from '../../data/records.ts';
import { Field } from '../../parts/fields.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { useRecordForm } from '../../parts/useRecordForm.ts';
import { AcousticsFields } from './AcousticsFields.tsx';

interface StationDialogProps {
  trialId: string;
  station: StoredStation | null;
  position: number;
  onClose: () => void;
}

/** A spot on location: surfaces, noise, and what is dangerous there. */
export function StationDialog({ trialId, station, position, onClose }: StationDialogProps) {
  const [save, { error, isLoading }] = useSaveStationMutation();
  const form = useForm({
    resolver: zodResolver(stationDraftSchema),
    defaultValues: station ?? {
      name: '',
      surfaces: '',
      noise: '',
      indoors: false,
      latitudeDeg: null,
      longitudeDeg: null,
      needsDaylight: false,
      hazards: [],
      acoustics: acousticsSchema.parse({}),
      remark: '',
      position,
    },
  });
  const { errors } = form.formState;
  const record = useRecordForm({ form: form as never, record: station, what: 'This station', send: (draft: StationDraft, from) => save({ trialId, from, draft }), onClose });
  return (
    <RecordDialog title={station ? 'Change station' : 'New station'} {...record} error={error} saving={isLoading}>
      <Field label="Name" error={errors.name?.message}>
        {(id) => <Form.Control id={id} autoFocus isInvalid={!!errors.name} {...form.register('name')} />}
      </Field>
      <Field label="Surfaces">{(id) => <Form.Control id={id} placeholder="wet stone, bare timber, carpet" {...form.register('surfaces')} />}</Field>
      <Field label="Noise">{(id) => <Form.Control id={id} placeholder="traffic, engine, wind off the water" {...form.register('noise')} />}</Field>
      <div className="row-line">
        <Form.Check id="indoors" label="indoors" {...form.register('indoors')} />
        <Form.Check id="needs-daylight" label="needs daylight" {...form.register('needsDaylight')} />
      </div>
      <div className="row-line align-items-start">
        <NumberField form={form} schema={stationDraftSchema} name="latitudeDeg" label="Latitude (°, north is positive)" />
        <NumberField form={form} schema={stationDraftSchema} name="longitudeDeg" label="Longitude (°, east is positive)" />
      </div>
      <fieldset>
        <legend className="form-label">Dangers here; each brings its caution into Plan, run sheet and Field</legend>
        <div className="row-line">
          {hazardSchema.options.map((hazard) => (
            <Form.Check key={hazard} id={`hazard-${hazard}`} label={hazard} value={hazard} {...form.register('hazards')} />
          ))}
        </div>
      </fieldset>
      <AcousticsFields form={form as never} />
      <Field label="Remarks">{(id) => <Form.Control as="textarea" rows={2} id={id} {...form.register('remark')} />}</Field>
      {station && <Photos ownerKind="station" ownerId={station.id} name={station.name} />}
    </RecordDialog>
  );
}
