import { type Device, deviceDraftSchema } from '@marvet/core/domain/device';
import { readMeterCsv } from '@marvet/core/formats/meterCsv';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { usePostLinesMutation, useSaveDeviceMutation } from '../../data/devices.ts';
import { FileBox } from '../../parts/FileBox.tsx';
import { Field } from '../../parts/fields.tsx';
import { Progress } from '../../parts/Progress.tsx';

const LINES_AT_ONCE = 500;

/** Brings in what a meter kept by itself, and lays it on takes by its time. */
export function MeterFile({ trialId, devices }: { trialId: string; devices: readonly Device[] }) {
  const [day, setDay] = useState(() => localDay(Date.now()));
  const [share, setShare] = useState<number | null>(null);
  const [said, setSaid] = useState('');
  const [save] = useSaveDeviceMutation();
  const [post] = usePostLinesMutation();
  const bring = async (file: File) => {
    setSaid('');
    const text = await file.text();
    const read = readMeterCsv(text, new Date(`${day}T00:00`).getTime());
    if (read.trouble) return setSaid(`${file.name}: ${read.trouble}.`);
    setShare(0);
    const name = file.name.slice(0, 120);
    const known = devices.find((device) => device.way.by === 'posted' && device.name === name);
    const kept = known ?? (await save({ trialId, from: null, draft: deviceDraftSchema.parse({ name, way: { by: 'posted' }, kind: 'other', position: devices.length }) })).data;
    // The same file again counts once: its lines have numbers within a session that is the file's own.
    const hello = { hello: 1, name, session: await shortHash(text), now: Date.now(), channels: read.channels };
    const lines = read.rows.map(({ atMs, values }, index) => ({ n: index + 1, at: atMs, values }));
    for (let start = 0; kept && start < lines.length; start += LINES_AT_ONCE) {
      const { error } = await post({ trialId, deviceId: kept.id, lines: [hello, ...lines.slice(start, start + LINES_AT_ONCE)] });
      if (error) {
        setShare(null);
        return setSaid(`${file.name}: ${(error as { message: string }).message} ${start} of ${lines.length} rows are in; choose it again to go on.`);
      }
      setShare((start + LINES_AT_ONCE) / lines.length);
    }
    setShare(null);
    const first = new Date(read.rows[0]?.atMs ?? 0);
    setSaid(
      `${file.name}: ${lines.length.toLocaleString('en-US')} rows from ${first.toLocaleString()} on lie with the takes of their time.${read.leftOut > 0 ? ` ${read.leftOut} rows or values were left out.` : ''}`,
    );
  };
  return (
    <details className="mt-3">
      <summary>A meter that is read afterwards</summary>
      <div className="row-line align-items-end mt-2">
        <FileBox label="CSV with a column of times" accept=".csv,.txt,text/csv" disabled={share !== null} onFile={bring} />
        <Field label="Day, where it has only hours">
          {(id) => <Form.Control id={id} type="date" value={day} onChange={(event) => event.target.value && setDay(event.target.value)} />}
        </Field>
      </div>
      {share !== null && <Progress share={Math.min(1, share)} label="Rows of the meter" />}
      <p className="small mb-0 mt-1" role="status">
        {said}
      </p>
    </details>
  );
}

function localDay(ms: number): string {
  const date = new Date(ms);
  return `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;
}

async function shortHash(text: string): Promise<string> {
  const bytes = new Uint8Array(await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text)));
  return [...bytes.slice(0, 8)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
