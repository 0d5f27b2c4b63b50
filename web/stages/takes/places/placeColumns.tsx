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
import { isCut, percentText, placeReason, type SlateOf } from './placeWords.ts';

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
  onCut(row: PlaceRow): void;
  onHear(fileId: string): void;
  onRecorder(row: PlaceRow, recorder: string): void;
}

const column = createColumnHelper<PlaceRow>();
const timeOfDay = (ms: number) => new Date(ms).toLocaleTimeString('en-GB');
/** A time by a recorder's own clock: with its day where that is not the day of the log, or not known to be. */
function ownTimeText({ ownStartMs, startsAtMs }: PlaceRow): string {
  if (ownStartMs === null) return '';
  const sameDay = startsAtMs !== null && new Date(ownStartMs).toDateString() === new Date(startsAtMs).toDateString();
  return sameDay ? timeOfDay(ownStartMs) : `${timeOfDay(ownStartMs)}, ${new Date(ownStartMs).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}`;
}
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
      column.accessor('name', {
        header: 'File, recorder',
        cell: ({ row: { original } }) => (
          <div className="named-by">
            {original.name}
            <KeptText
              label={`Recorder of ${original.name}`}
              hideLabel
              maxLength={120}
              value={original.recorder}
              onKeep={(recorder) => recorder && latest.current.onRecorder(original, recorder)}
            />
          </div>
        ),
      }),
      // By the log's clock where that is known; else by its own alone.
      column.accessor((row) => row.startsAtMs ?? row.ownStartMs ?? 0, {
        id: 'began',
        header: 'Began, by its clock',
        cell: ({ row: { original } }) => (
          <div className="named-by mono">
            {original.startsAtMs === null ? '?' : timeOfDay(original.startsAtMs)}
            <div className="small soft">{ownTimeText(original)}</div>
          </div>
        ),
      }),
      column.accessor('lengthS', { header: 'Length s', meta: { numeric: true }, cell: ({ row: { original } }) => original.lengthS.toFixed(1) }),
      column.accessor((row) => latest.current.slateOf(takeOf(row) ?? ''), {
        id: 'take',
        header: 'Take',
        cell: ({ row: { original } }) =>
          isCut(original) ? (
            <span className="row-line">
              in {original.placed?.takes} takes
              <Button size="sm" variant="plain" aria-label={`Join ${original.name} again`} onClick={() => latest.current.onPut(original, null)}>
                Join again
              </Button>
            </span>
          ) : (
            <Form.Select
              size="sm"
              className="choice"
              aria-label={`Take of ${original.name}`}
              value={takeOf(original) ?? ''}
              onChange={(event) => latest.current.onPut(original, event.target.value || null)}
            >
              <option value="">no take</option>
              {options}
            </Form.Select>
          ),
      }),
      column.display({
        id: 'actions',
        header: () => <span className="visually-hidden">Actions</span>,
        cell: ({ row: { original } }) => (
          <span className="text-nowrap">
            <Button size="sm" variant="plain" title="Hear it" aria-label={`Hear ${original.name}`} onClick={() => latest.current.onHear(original.fileId)}>
              <Play size={14} aria-hidden />
            </Button>
            {original.cuts.length > 1 && !isCut(original) && (
              <Button size="sm" variant="primary" aria-label={`Cut ${original.name} into ${original.cuts.length} takes`} onClick={() => latest.current.onCut(original)}>
                Cut into {original.cuts.length}
              </Button>
            )}
            {!original.placed && original.takeId !== null && original.cuts.length < 2 && (
              <Button size="sm" variant="outline" aria-label={`Put ${original.name} there`} onClick={() => latest.current.onPut(original, original.takeId)}>
                Put
              </Button>
            )}
          </span>
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
            <span className="row-line flex-nowrap">
              <Progress widthPx={60} share={original.confidence} label={`${original.name}, how sure`} />
              <span className="mono">{percentText(original.confidence)}</span>
            </span>
          ),
      }),
      column.display({
        id: 'why',
        header: 'Why',
        cell: ({ row: { original } }) => (
          <span className={`small text-wrap ${original.doubtful && original.placed ? 'alarm' : ''}`}>{placeReason(original, latest.current.slateOf)}</span>
        ),
      }),
    ] as ColumnDef<PlaceRow, unknown>[];
  }, [takes, words]);
}
