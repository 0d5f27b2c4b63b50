import type { FileRow, RecordingRow } from '@marvet/core/contract/recordings';
import { isCutShort } from '@marvet/core/domain/fileFormat';
import { formatText } from '@marvet/core/domain/formatRemarks';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { METHOD_VERSION } from '@marvet/core/measure/report.types';
import { type ColumnDef, createColumnHelper, type SortingState } from '@tanstack/react-table';
import { RefreshCw, Scissors, Square, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useCancelMeasuringMutation, useMeasureAgainMutation, useMeasureManyMutation } from '../../data/work.ts';
import { Progress } from '../../parts/Progress.tsx';
import { useBin } from '../../parts/useBin.ts';
import { useTold } from '../../parts/useTold.ts';
import { VirtualTable } from '../../parts/VirtualTable.tsx';
import { AssignDialog } from './AssignDialog.tsx';

interface Row extends FileRow {
  take: Take | undefined;
  /** Takes that it was cut about; one where it was not. */
  takes: number;
  loose: number;
}

interface FileTableProps {
  trialId: string;
  files: FileRow[];
  recordings: RecordingRow[];
  takes: Take[];
  progress: ReadonlyMap<string, number>;
}

const column = createColumnHelper<Row>();

/** Files as they came in: how each found its take, how far measuring is, and what can be done with it. */
export function FileTable({ trialId, files, recordings, takes, progress }: FileTableProps) {
  const [sorting, setSorting] = useState<SortingState>([{ id: 'match', desc: false }]);
  const [assigning, setAssigning] = useState<FileRow | null>(null);
  const [cancel] = useCancelMeasuringMutation();
  const [again] = useMeasureAgainMutation();
  const [many] = useMeasureManyMutation();
  const bin = useBin(trialId, 'file');
  const told = useTold();
  const rows = useMemo(() => {
    const takeById = new Map(takes.map((take) => [take.id, take]));
    const loose = new Map<string, number>();
    const takesOf = new Map<string, Set<string>>();
    for (const { fileId, takeId } of recordings) if (takeId) takesOf.set(fileId, (takesOf.get(fileId) ?? new Set()).add(takeId));
    for (const recording of recordings) if (!recording.setupId && !recording.backup) loose.set(recording.fileId, (loose.get(recording.fileId) ?? 0) + 1);
    return files.map((file): Row => ({ ...file, take: takeById.get(file.takeId ?? ''), takes: takesOf.get(file.id)?.size ?? 0, loose: loose.get(file.id) ?? 0 }));
  }, [files, recordings, takes]);
  const columns = useMemo(
    () =>
      [
        column.accessor('name', { header: 'File' }),
        column.accessor((row) => (row.take ? 1 + row.take.slate : 0), {
          id: 'match',
          header: 'Take',
          cell: ({ row: { original } }) =>
            original.takes > 1 ? (
              <Link to="?view=places">in {original.takes} takes</Link>
            ) : (
              <Button size="sm" variant={original.take && original.loose === 0 ? 'plain' : 'primary'} onClick={() => setAssigning(original)} aria-label={`Match ${original.name}`}>
                {original.take ? <b className="mono">{slateLabel(original.take)}</b> : 'Match'}
                {original.take && original.loose > 0 && `, ${original.loose} channels open`}
              </Button>
            ),
        }),
        column.accessor((row) => row.matchedBy ?? '', { id: 'by', header: 'Matched by' }),
        column.accessor((row) => row.format?.channels ?? 0, { id: 'channels', header: 'Channels', meta: { numeric: true } }),
        column.accessor((row) => row.format?.durationS ?? 0, {
          id: 'length',
          header: 'Length s',
          meta: { numeric: true },
          cell: ({ row: { original } }) => original.format?.durationS.toFixed(1),
        }),
        column.accessor((row) => (row.format ? formatText(row.format) : ''), {
          id: 'format',
          header: 'Format',
        }),
        column.accessor('state', {
          header: 'Measuring',
          cell: ({ row: { original } }) => <MeasureStateCell file={original} share={progress.get(original.id)} />,
        }),
        column.display({
          id: 'actions',
          header: () => <span className="visually-hidden">Actions</span>,
          cell: ({ row: { original } }) => (
            <span className="text-nowrap">
              {original.state === 'queued' || original.state === 'measuring' ? (
                <Button
                  size="sm"
                  variant="plain"
                  title="Stop measuring"
                  aria-label={`Stop measuring ${original.name}`}
                  onClick={() => void told(cancel({ trialId, fileId: original.id }))}
                >
                  <Square size={14} aria-hidden />
                </Button>
              ) : (
                <Button
                  size="sm"
                  variant="plain"
                  title="Measure again"
                  aria-label={`Measure ${original.name} again`}
                  onClick={() => void told(again({ trialId, fileId: original.id }))}
                >
                  <RefreshCw size={14} aria-hidden />
                </Button>
              )}
              <Link className="btn btn-plain btn-sm" to={`files/${original.id}`} title="Cut into passages" aria-label={`Passages of ${original.name}`}>
                <Scissors size={14} aria-hidden />
              </Link>
              <Button size="sm" variant="plain" title="Put into the bin" aria-label={`Delete ${original.name}`} onClick={() => bin(original.id, original.name)}>
                <Trash2 size={14} aria-hidden />
              </Button>
            </span>
          ),
        }),
      ] as ColumnDef<Row, unknown>[],
    [progress, again, cancel, bin, told, trialId],
  );
  const old = files.filter((file) => file.state === 'done' && file.methodVersion !== METHOD_VERSION).length;
  return (
    <>
      <div className="filters mb-2">
        <Button size="sm" variant="outline" onClick={() => void told(many({ trialId, which: 'all' }))}>
          Measure all again
        </Button>
        <span className="small soft ms-auto">
          All files as a ZIP, named by slate and tape: <a href={`/api/trials/${trialId}/files/sounds.zip`}>as they came</a>, or{' '}
          <a href={`/api/trials/${trialId}/files/named.zip`}>copies with slate and candidates written into them</a>
        </span>
        {old > 0 && (
          <Button size="sm" variant="primary" onClick={() => void told(many({ trialId, which: 'old' }))}>
            Measure the {old} of an older method again
          </Button>
        )}
      </div>
      <VirtualTable label="Table of files" rows={rows} columns={columns} rowKey={(row) => row.id} sorting={sorting} onSorting={setSorting} />
      {assigning && (
        <AssignDialog
          trialId={trialId}
          file={assigning}
          recordings={recordings.filter((recording) => recording.fileId === assigning.id)}
          takes={takes}
          onClose={() => setAssigning(null)}
        />
      )}
    </>
  );
}

function MeasureStateCell({ file, share }: { file: FileRow; share: number | undefined }) {
  if (file.state === 'measuring') return <Progress widthPx={120} share={share ?? 0} label={`${file.name}, measured`} />;
  if (file.state === 'failed') return <span className="alarm small">{file.failure}</span>;
  if (file.state === 'queued') return <span className="small soft">waits</span>;
  return (
    <span className="small">
      done
      {file.warnings.map((warning) => (
        <span key={warning} className={`d-block ${isCutShort(warning) ? 'alarm' : 'soft'}`}>
          {warning}
        </span>
      ))}
    </span>
  );
}
