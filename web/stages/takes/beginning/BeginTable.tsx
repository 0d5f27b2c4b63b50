import type { BegunMoment } from '@marvet/core/contract/beginning';
import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { Tape } from '@marvet/core/domain/tape';
import { type ColumnDef, createColumnHelper, type SortingState } from '@tanstack/react-table';
import { Play } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { SafePlayer } from '../../../parts/SafePlayer.tsx';
import { TapeMark } from '../../../parts/TapeMark.tsx';
import { VirtualTable } from '../../../parts/VirtualTable.tsx';
import type { BeginRow } from './beginDraft.ts';

/** Choices that are no microphone. */
const [LEFT_OUT, ANOTHER] = ['', '\n'];

interface BeginTableProps {
  trialId: string;
  recordings: readonly RecordingRow[];
  rows: BeginRow[];
  moments: readonly BegunMoment[];
  /** Their names, each with its tape. */
  microphones: ReadonlyMap<string, Tape>;
  onMicrophone(key: string, microphone: string | null): void;
  onTake(fileId: string, withId: string): void;
}

const column = createColumnHelper<BeginRow>();
const isOf = (row: BeginRow) => (recording: RecordingRow) => recording.fileId === row.fileId && recording.channels[0] === row.channelIndex;

/** Every channel that came in: which take it is of, and of which microphone; all of it can be said otherwise. */
export function BeginTable(given: BeginTableProps) {
  const [sorting, setSorting] = useState<SortingState>([{ id: 'take', desc: false }]);
  const [heard, setHeard] = useState<string | null>(null);
  const latest = useRef(given);
  latest.current = given;
  const { rows, moments, microphones } = given;
  // Files of one channel without a name need no column for it.
  const tracks = rows.some(({ of, trackName }) => of > 1 || trackName);
  const columns = useMemo(
    () =>
      [
        column.accessor((row) => row.takes[0] ?? 0, {
          id: 'take',
          header: 'Take',
          cell: ({ row: { original } }) => <TakeChoice row={original} moments={moments} onTake={(withId) => latest.current.onTake(original.fileId, withId)} />,
        }),
        column.accessor('fileName', { header: 'File' }),
        ...(tracks
          ? [
              column.accessor((row) => row.trackName ?? '', {
                id: 'track',
                header: 'Channel',
                cell: ({ row: { original } }) => (original.of > 1 || original.trackName ? `${original.channelIndex + 1} ${original.trackName ?? ''}` : ''),
              }),
            ]
          : []),
        column.accessor((row) => row.microphone ?? '', {
          id: 'microphone',
          header: 'Microphone',
          cell: ({ row: { original } }) => (
            <MicrophoneChoice row={original} microphones={microphones} onMicrophone={(microphone) => latest.current.onMicrophone(original.key, microphone)} />
          ),
        }),
        column.display({
          id: 'hear',
          header: () => <span className="visually-hidden">Hear it</span>,
          cell: ({ row: { original } }) => (
            <Button
              size="sm"
              variant="plain"
              className="icon"
              aria-label={`Hear ${original.fileName}, channel ${original.channelIndex + 1}`}
              onClick={() => setHeard(original.key)}
            >
              <Play size={14} aria-hidden />
            </Button>
          ),
        }),
      ] as ColumnDef<BeginRow, unknown>[],
    [moments, microphones, tracks],
  );
  const row = rows.find(({ key }) => key === heard);
  const recording = row && given.recordings.find(isOf(row));
  return (
    <>
      {row && recording && (
        <div className="row-line">
          <span className="small text-nowrap">{row.fileName}</span>
          <SafePlayer key={recording.id} src={`/api/trials/${given.trialId}/recordings/${recording.id}/audio`} label={`Channel ${row.channelIndex + 1} of ${row.fileName}`} />
        </div>
      )}
      <VirtualTable
        label="Recordings to be laid out"
        rows={rows}
        columns={columns}
        rowKey={({ key }) => key}
        sorting={sorting}
        onSorting={setSorting}
        picked={(each) => each.twice}
      />
    </>
  );
}

interface TakeChoiceProps {
  row: BeginRow;
  moments: readonly BegunMoment[];
  onTake(withId: string): void;
}

/** The take of a file; one that ran on over several is of all of them, and is moved in Places. */
function TakeChoice({ row, moments, onTake }: TakeChoiceProps) {
  if (row.takes.length > 1) return <span title="It ran on over these takes, and is cut about them">{row.takes.join(', ')}</span>;
  const [take = 0] = row.takes;
  const own = moments.find(({ slate }) => slate === take);
  return (
    <Form.Select
      size="sm"
      className="w-auto"
      aria-label={`Take of ${row.fileName}`}
      value={take}
      onChange={(event) => {
        const other = moments.find(({ slate }) => slate === Number(event.target.value))?.parts[0];
        onTake(event.target.value === LEFT_OUT || !other ? row.fileId : other.fileId);
      }}
    >
      {moments.map(({ takeId, slate }) => (
        <option key={slate} value={slate}>
          {slate}
          {takeId === null ? '' : ', which is there'}
        </option>
      ))}
      {(own?.takeId !== null || own.parts.length > 1) && <option value={LEFT_OUT}>one of its own</option>}
    </Form.Select>
  );
}

interface MicrophoneChoiceProps {
  row: BeginRow;
  microphones: ReadonlyMap<string, Tape>;
  onMicrophone(microphone: string | null): void;
}

function MicrophoneChoice({ row, microphones, onMicrophone }: MicrophoneChoiceProps) {
  const fresh = `Microphone ${microphones.size + 1}`;
  const tape = row.microphone === null ? undefined : microphones.get(row.microphone);
  return (
    <span className="d-flex align-items-center gap-2">
      {tape ? <TapeMark tape={tape} name="" /> : <span style={{ width: 44 }} />}
      <Form.Select
        size="sm"
        className="w-auto"
        aria-label={`Microphone of ${row.fileName}, channel ${row.channelIndex + 1}`}
        value={row.microphone ?? LEFT_OUT}
        isInvalid={row.twice}
        onChange={(event) => onMicrophone(event.target.value === ANOTHER ? fresh : event.target.value || null)}
      >
        {[...microphones.keys()].map((name) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
        <option value={ANOTHER}>another microphone</option>
        <option value={LEFT_OUT}>left out</option>
      </Form.Select>
      {row.twice && <span className="alarm small">twice</span>}
    </span>
  );
}
