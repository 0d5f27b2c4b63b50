import { type RecordingRow, TABLE_FIGURES } from '@marvet/core/contract/recordings';
import type { Chain } from '@marvet/core/domain/chain';
import { CONDITION_KINDS, type Condition, type ConditionKind, type FactorKind, type SharedCondition } from '@marvet/core/domain/factor';
import type { Plan } from '@marvet/core/domain/plan';
import { isSpoiled, setupCondition, slateLabel, type Take } from '@marvet/core/domain/take';
import { MEASURES, signed } from '@marvet/core/measure/catalogue';
import { METHOD_VERSION } from '@marvet/core/measure/report.types';
import { conditionWords, levelLabel } from '@marvet/core/plan/levelWords';
import { planKinds } from '@marvet/core/plan/matrix';
import { type ColumnDef, createColumnHelper } from '@tanstack/react-table';
import { useDeferredValue, useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useAppDispatch, useAppSelector } from '../../data/store.ts';
import { inTray, picked, type TrayEntry } from '../../data/tray.ts';
import { type Placed, placed } from '../../data/trialData.ts';
import { Field } from '../../parts/fields.tsx';
import { Empty } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { VirtualTable } from '../../parts/VirtualTable.tsx';
import { backupText } from './BackupUse.tsx';
import { channelsText } from './StereoPairs.tsx';

const HEADS: Record<(typeof TABLE_FIGURES)[number], string> = {
  'noise.snrDb': 'Voice over noise dB',
  'noise.practicalFloorDbfsA': 'Practical floor dBFS A',
  'loudness.integratedLufs': 'Loudness LUFS',
  'levels.truePeakDbtp': 'True peak dBTP',
  'levels.clippedRuns': 'Clipped runs',
};

interface Row extends RecordingRow {
  place: Placed;
  /** The whole condition of the setup; null where it is not known which it is. */
  condition: Condition | SharedCondition | null;
}

interface RecordingTableProps {
  trialId: string;
  recordings: RecordingRow[];
  takes: Take[];
  plan: Plan;
  chains: Chain[];
}

const NOTHING: TrayEntry[] = [];
const NOT_YET: RecordingRow[] = [];
const column = createColumnHelper<Row>();

/** Every recording with its setup and figures. Thousands of rows are put together after the rest of the page is in sight. */
export function RecordingTable(props: RecordingTableProps) {
  const recordings = useDeferredValue(props.recordings, NOT_YET);
  return recordings !== NOT_YET && <ReadyTable {...props} recordings={recordings} />;
}

/** The table itself; filters and order are in the address. */
function ReadyTable({ trialId, recordings, takes, plan, chains }: RecordingTableProps) {
  const [search, changeAddress] = useAddress();
  const dispatch = useAppDispatch();
  const entries = useAppSelector((state) => state.tray.byTrial[trialId] ?? NOTHING);
  const rows = useMemo(() => joinRows(recordings, takes, chains), [recordings, takes, chains]);
  const kinds = useMemo(() => planKinds(plan.factors), [plan.factors]);
  const filters = kinds.filter((kind) => search.get(kind));
  const shown = useMemo(() => rows.filter((row) => filters.every((kind) => levelId(row, kind) === search.get(kind))), [rows, filters, search]);
  const sorting = useMemo(() => {
    const [id, direction] = (search.get('sort') ?? 'slate.asc').split(/\.(?=asc$|desc$)/);
    return [{ id: id ?? 'slate', desc: direction === 'desc' }];
  }, [search]);
  const columns = useMemo(() => columnsOf(rows, plan, entries, (entry) => dispatch(picked({ trialId, entry }))), [rows, plan, entries, dispatch, trialId]);
  return (
    <>
      <div className="filters mb-2">
        {kinds.map((kind) => {
          const factor = plan.factors.find((each) => each.kind === kind);
          return (
            <Field key={kind} label={factor?.name ?? kind}>
              {(id) => (
                <Form.Select id={id} size="sm" value={search.get(kind) ?? ''} onChange={(event) => changeAddress({ [kind]: event.target.value || null })}>
                  <option value="">all</option>
                  {factor?.levels.map((level) => (
                    <option key={level.id} value={level.id}>
                      {level.label}
                    </option>
                  ))}
                </Form.Select>
              )}
            </Field>
          );
        })}
        <span className="small soft mb-1" role="status">
          {shown.length} of {rows.length}
        </span>
        <span className="small soft mb-1 ms-auto">
          All figures of all recordings: <a href={`/api/trials/${trialId}/recordings/figures.csv`}>CSV</a>, <a href={`/api/trials/${trialId}/recordings/figures.json`}>JSON</a>
        </span>
      </div>
      {shown.length === 0 ? (
        <Empty>
          No recording fits all filters.{' '}
          <Button size="sm" variant="outline" onClick={() => changeAddress(Object.fromEntries(kinds.map((kind) => [kind, null])))}>
            Show all
          </Button>
        </Empty>
      ) : (
        <VirtualTable
          label="Table of recordings"
          rows={shown}
          columns={columns}
          rowKey={(row) => row.id}
          sorting={sorting}
          onSorting={([first]) => changeAddress({ sort: first ? `${first.id}.${first.desc ? 'desc' : 'asc'}` : null })}
          picked={(row) => !!row.takeId && !!row.setupId && inTray(entries, { takeId: row.takeId, setupId: row.setupId })}
        />
      )}
    </>
  );
}

function joinRows(recordings: readonly RecordingRow[], takes: readonly Take[], chains: readonly Chain[]): Row[] {
  const takeById = new Map(takes.map((take) => [take.id, take]));
  const chainById = new Map(chains.map((chain) => [chain.id, chain]));
  return recordings.map((recording) => {
    const place = placed(recording, takeById, chainById);
    return { ...recording, place, condition: place.take && place.setup ? setupCondition(place.take, place.setup) : (place.take?.condition ?? null) };
  });
}

function levelId(row: Row, kind: FactorKind): string | null {
  return kind === 'candidate' ? (row.place.setup?.candidateId ?? null) : (row.condition?.[kind] ?? null);
}

/** What differs between the recordings that there are; what is the same in all needs no column. */
function variedIn(rows: readonly Row[]): ConditionKind[] {
  const varied = CONDITION_KINDS.filter((kind) => {
    const first = rows.find((row) => row.condition?.[kind] !== undefined)?.condition?.[kind];
    return rows.some((row) => row.condition?.[kind] !== undefined && row.condition[kind] !== first);
  });
  return varied.length > 0 ? varied : ['station'];
}

function columnsOf(rows: readonly Row[], plan: Plan, entries: TrayEntry[], pick: (entry: TrayEntry) => void): ColumnDef<Row, unknown>[] {
  const level = (kind: ConditionKind) => {
    const factor = plan.factors.find((each) => each.kind === kind);
    const word = (row: Row) => levelLabel(plan, kind, row.condition?.[kind] ?? '');
    const numeric = kind === 'distance' || (!!factor && factor.levels.length > 0 && factor.levels.every((each) => each.value !== null));
    const number = (row: Row) => factor?.levels.find((each) => each.id === row.condition?.[kind])?.value ?? (kind === 'distance' ? Number(row.condition?.distance ?? -1) : -1);
    return column.accessor((row) => (numeric ? number(row) : word(row)), {
      id: kind,
      header: factor?.name ?? kind,
      cell: ({ row }) => (row.original.condition?.[kind] === undefined ? '' : word(row.original)),
    });
  };
  const columns = [
    column.display({
      id: 'tray',
      header: 'Tray',
      cell: ({ row: { original } }) => {
        const { takeId, setupId, place } = original;
        if (!takeId || !setupId) return null;
        const own = [place.chain?.name ?? '', ...(place.setup ? conditionWords(plan, place.setup.levels) : [])].join(', ');
        const name = `Take ${place.take ? slateLabel(place.take) : ''} ${own} in the tray`;
        return <Form.Check aria-label={name} checked={inTray(entries, { takeId, setupId })} onChange={() => pick({ takeId, setupId })} />;
      },
    }),
    column.accessor((row) => (row.place.take ? row.place.take.slate + row.place.take.pass / 100 : 99_999), {
      id: 'slate',
      header: 'Slate',
      cell: ({ row: { original } }) => (
        <Link to={original.id} className="mono fw-bold">
          {original.place.take ? slateLabel(original.place.take) : 'no take'}
        </Link>
      ),
    }),
    column.accessor((row) => row.place.chain?.name ?? '', {
      id: 'candidate',
      header: 'Candidate',
      cell: ({ row: { original } }) =>
        original.place.chain ? (
          <TapeMark tape={original.place.chain.tape} name={original.place.chain.name} />
        ) : (
          <span className="soft">{original.backup ? backupText(original.backup) : (original.trackName ?? channelsText(original.channels).toLowerCase())}</span>
        ),
    }),
    ...variedIn(rows).map(level),
    ...TABLE_FIGURES.map((id, at) =>
      column.accessor((row) => row.table?.[at] ?? undefined, {
        id,
        header: HEADS[id],
        sortUndefined: 'last',
        meta: { numeric: true },
        cell: ({ getValue }) => {
          const value = getValue() as number | undefined;
          return value === undefined ? '' : <span className={id === 'levels.clippedRuns' && value > 0 ? 'alarm' : ''}>{signed(value, MEASURES[id].digits)}</span>;
        },
      }),
    ),
    column.accessor((row) => stateText(row), { id: 'state', header: 'State', cell: ({ getValue }) => <span className="small">{getValue()}</span> }),
  ];
  return columns as ColumnDef<Row, unknown>[];
}

function stateText(row: Row): string {
  const { take } = row.place;
  const flags = [...new Set(take?.flags.filter((mark) => mark.setupIds.length === 0 || mark.setupIds.includes(row.setupId ?? '')).map((mark) => mark.flag))].join(', ');
  if (take && isSpoiled(take)) return `not judged: ${flags}`;
  if (row.state !== 'done') return { queued: 'waits', measuring: 'is measured', failed: 'failed' }[row.state];
  const remarks = row.remarks > 0 ? (row.remarks === 1 ? 'a remark' : `${row.remarks} remarks`) : '';
  return [row.methodVersion === METHOD_VERSION ? '' : 'old method', remarks, flags].filter(Boolean).join(', ');
}
