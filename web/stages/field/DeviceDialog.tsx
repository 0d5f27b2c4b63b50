import { zodResolver } from '@hookform/resolvers/zod';
import { DEVICE_KINDS, type Device, type DeviceWay, deviceDraftSchema } from '@marvet/core/domain/device';
import Form from 'react-bootstrap/Form';
import { get, useForm } from 'react-hook-form';
import type { z } from 'zod';
import { useSaveDeviceMutation } from '../../data/devices.ts';
import { Field } from '../../parts/fields.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { useRecordForm } from '../../parts/useRecordForm.ts';

type Values = z.input<typeof deviceDraftSchema>;

const WAYS: { by: DeviceWay['by']; name: string; help: string }[] = [
  { by: 'json lines', name: 'Lines of JSON over TCP', help: 'What receivers, meters and recorders are brought to by a small script: docs/devices.md.' },
  { by: 'nmea', name: 'NMEA 0183 over TCP', help: 'Positions, as phones and plotters send them on a network.' },
  { by: 'posted', name: 'It posts its lines to Marvet', help: 'For a script on this computer: its address is told once it is adopted.' },
];

/** Adopts a device, or changes how it is reached. */
export function DeviceDialog({ trialId, device, position, onClose }: { trialId: string; device: Device | null; position: number; onClose: () => void }) {
  const [save, { error, isLoading }] = useSaveDeviceMutation();
  const form = useForm<Values, unknown, z.output<typeof deviceDraftSchema>>({
    resolver: zodResolver(deviceDraftSchema),
    defaultValues: device ?? { name: '', kind: 'receiver', way: { by: 'json lines', host: '127.0.0.1', port: 4821 }, on: true, ties: [], position },
  });
  const dialog = useRecordForm<Values>({ form: form as never, record: device, what: 'This device', send: (draft, from) => save({ trialId, from, draft }), onClose });
  const by = form.watch('way.by');
  const errors = form.formState.errors;
  const message = (name: string) => (get(errors, name) as { message?: string } | undefined)?.message;
  return (
    <RecordDialog title={device ? `Change ${device.name}` : 'Adopt a device'} error={error} saving={isLoading} saveLabel={device ? 'Save' : 'Adopt'} {...dialog}>
      <Field label="Name" error={message('name')}>
        {(id) => <Form.Control id={id} maxLength={120} isInvalid={message('name') !== undefined} {...form.register('name')} />}
      </Field>
      <Field label="What it is">
        {(id) => (
          <Form.Select id={id} {...form.register('kind')}>
            {DEVICE_KINDS.map((kind) => (
              <option key={kind}>{kind}</option>
            ))}
          </Form.Select>
        )}
      </Field>
      <Field label="How its readings come in" help={WAYS.find((way) => way.by === by)?.help ?? ''}>
        {(id) => (
          <Form.Select id={id} {...form.register('way.by')}>
            {WAYS.map((way) => (
              <option key={way.by} value={way.by}>
                {way.name}
              </option>
            ))}
          </Form.Select>
        )}
      </Field>
      {by !== 'posted' && (
        <div className="row-line align-items-start flex-nowrap">
          <Field label="Address" className="grow" error={message('way.host')}>
            {(id) => <Form.Control id={id} className="mono" isInvalid={message('way.host') !== undefined} {...form.register('way.host')} />}
          </Field>
          <NumberField form={form as never} schema={deviceDraftSchema} name={'way.port' as never} label="Port" />
        </div>
      )}
      {device && by === 'posted' && (
        <p className="small mb-0">
          It posts to{' '}
          <code>
            {window.location.origin}/api/trials/{trialId}/devices/{device.id}/lines
          </code>
        </p>
      )}
    </RecordDialog>
  );
}
