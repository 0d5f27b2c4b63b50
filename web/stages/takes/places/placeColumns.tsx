import type { FilePlace } from '@marvet/core/contract/places';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { type ColumnDef, createColumnHelper } from '@tanstack/react-table';
import { Play } from 'lucide-react';
import { useMemo, useRef } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { TrialWords } from '../../../data/trialData.ts';
import { KeptText } from '../../../parts/fields.tsx';
import { Progress } from '../../../parts/Progress.tsx';
import { placeReason, type SlateOf } from './placeWords.ts';

/** A file in the table of places. */
export interface PlaceRow extends FilePlace {
  name: string;
  lengthS: number;
  doubtful: boolean;
}

interface PlaceColumns {
  takes: readonly Take[];
  words: TrialWords;
  slateOf: SlateOf;
  onPut(row: PlaceRow, takeId: string | null): void;
  onHear(fileId: string): void;
  onRecorder(row: PlaceRow, recorder: string): void;
}

const column = createColumnHelper<PlaceRow>();
const timeText = (ms: number | null) =>
  ms === null ? '' : new Date(ms).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', second: '2-digit' });
/** Where it lies counts before where it may belong. */
const takeOf = (row: PlaceRow) => row.placed?.takeId ?? row.takeId;

/** Columns of the table of places: a choice of takes in each row, its guess chosen beforehand. */
export function usePlaceColumns(given: PlaceColumns): ColumnDef<PlaceRow, unknown>[] {
  const latest = useRef(given);
  latest.current = given;
  const { takes, words } = given;
  return useMemo(() => {
    const options = takes.map((take) => (
      <option key={take.id} value={take.id}>
        {slateLabel(take)}: {words.condition(take)}
      </option>
    ));
    return [
      column.accessor('name', { header: 'File' }),
      column.accessor('recorder', {
        header: 'Recorder',
        cell: ({ row: { original } }) => (
          <KeptText
            label={`Recorder of ${original.name}`}
            hideLabel
            maxLength={120}
            value={original.recorder}
            onKeep={(recorder) => recorder && latest.current.onRecorder(original, recorder)}
          />
        ),
      }),
      column.accessor((row) => row.ownStartMs ?? 0, {
        id: 'own',
        header: 'Began, its clock',
        cell: ({ row: { original } }) => <span className="mono">{timeText(original.ownStartMs)}</span>,
      }),
      column.accessor((row) => row.startsAtMs ?? 0, {
        id: 'log',
        header: "By the log's",
        cell: ({ row: { original } }) => <span className="mono">{timeText(original.startsAtMs)}</span>,
      }),
      column.accessor('lengthS', { header: 'Length s', meta: { numeric: true }, cell: ({ row: { original } }) => original.lengthS.toFixed(1) }),
      column.accessor((row) => latest.current.slateOf(takeOf(row) ?? ''), {
        id: 'take',
        header: 'Take',
        cell: ({ row: { original } }) => (
          <Form.Select
            size="sm"
            aria-label={`Take of ${original.name}`}
            value={takeOf(original) ?? ''}
            onChange={(event) => latest.current.onPut(original, event.target.value || null)}
          >
            <option value="">no take</option>
            {options}
          </Form.Select>
        ),
      }),
      // Doubt first: what lies somewhere and is contradicted, then what nobody knows, then what is likely.
      column.accessor((row) => (row.placed ? (row.doubtful ? 0 : 2) : row.confidence), {
        id: 'sure',
        header: 'How sure',
        cell: ({ row: { original } }) =>
          original.placed ? (
            <span className="small">in place</span>
          ) : (
            <span className="row-line">
              <Progress widthPx={60} share={original.confidence} label={`${original.name}, how sure`} />
              <span className="mono">{Math.floor(original.confidence * 100)} %</span>
            </span>
          ),
      }),
      column.display({
        id: 'why',
        header: 'Why',
        cell: ({ row: { original } }) => <span className={`small ${original.doubtful && original.placed ? 'alarm' : ''}`}>{placeReason(original, latest.current.slateOf)}</span>,
      }),
      column.display({
        id: 'actions',
        header: () => <span className="visually-hidden">Actions</span>,
        cell: ({ row: { original } }) => (
          <span className="text-nowrap">
            <Button size="sm" variant="plain" title="Hear it" aria-label={`Hear ${original.name}`} onClick={() => latest.current.onHear(original.fileId)}>
              <Play size={14} aria-hidden />
            </Button>
            {!original.placed && original.takeId !== null && (
              <Button size="sm" variant="outline" aria-label={`Put ${original.name} there`} onClick={() => latest.current.onPut(original, original.takeId)}>
                Put
              </Button>
            )}
          </span>
        ),
      }),
    ] as ColumnDef<PlaceRow, unknown>[];
  }, [takes, words]);
}
