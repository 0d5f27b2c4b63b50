import type { Chain } from '@marvet/core/domain/chain';
import type { FactorKind } from '@marvet/core/domain/factor';
import type { Plan } from '@marvet/core/domain/plan';
import { isSpoiled, slateLabel, type Take } from '@marvet/core/domain/take';
import { MEASURES, type MeasureId, signed } from '@marvet/core/measure/catalogue';
import { METHOD_VERSION } from '@marvet/core/measure/report.types';
import { levelLabel } from '@marvet/core/plan/levelWords';
import { planKinds } from '@marvet/core/plan/matrix';
import { type ColumnDef, createColumnHelper } from '@tanstack/react-table';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useAppDispatch, useAppSelector } from '../../data/store.ts';
import { inTray, picked, type TrayEntry } from '../../data/tray.ts';
import type { RecordingRow } from '../../data/work.ts';
import { Field } from '../../parts/fields.tsx';
import { Empty } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { VirtualTable } from '../../parts/VirtualTable.tsx';

const SHOWN: { id: MeasureId; head: string }[] = [
  { id: 'noise.snrDb', head: 'Voice over noise dB' },
  { id: 'noise.practicalFloorDbfsA', head: 'Practical floor dBFS A' },
  { id: 'loudness.integratedLufs', head: 'Loudness LUFS' },
  { id: 'levels.truePeakDbtp', head: 'True peak dBTP' },
  { id: 'levels.clippedRuns', head: 'Clipped runs' },
];

interface Row extends RecordingRow {
  take: Take | undefined;
  chain: Chain | undefined;
  levels: Partial<Record<FactorKind, string>>;
}

interface RecordingTableProps {
  trialId: string;
  recordings: RecordingRow[];
  takes: Take[];
  plan: Plan;
  chains: Chain[];
}

const NOTHING: TrayEntry[] = [];
const column = createColumnHelper<Row>();

/** Every recording with its setup and figures; filters and order are in the address. */
export function RecordingTable({ trialId, recordings, takes, plan, chains }: RecordingTableProps) {
  const [search, changeAddress] = useAddress();
  const dispatch = useAppDispatch();
  const entries = useAppSelector((state) => state.tray.byTrial[trialId] ?? NOTHING);
  const rows = useMemo(() => joinRows(recordings, takes, plan, chains), [recordings, takes, plan, chains]);
  const kinds = useMemo(() => planKinds(plan.factors), [plan.factors]);
  const filters = kinds.filter((kind) => search.get(kind));
  const shown = useMemo(() => rows.filter((row) => filters.every((kind) => levelId(row, kind) === search.get(kind))), [rows, filters, search]);
  const sorting = useMemo(() => {
    const [id, direction] = (search.get('sort') ?? 'slate.asc').split(/\.(?=asc$|desc$)/);
    return [{ id: id ?? 'slate', desc: direction === 'desc' }];
  }, [search]);
  const columns = useMemo(() => columnsOf(entries, (entry) => dispatch(picked({ trialId, entry }))), [entries, dispatch, trialId]);
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
          picked={(row) => !!row.takeId && !!row.candidateId && inTray(entries, { takeId: row.takeId, candidateId: row.candidateId })}
        />
      )}
    </>
  );
}

function joinRows(recordings: RecordingRow[], takes: Take[], plan: Plan, chains: Chain[]): Row[] {
  const takeById = new Map(takes.map((take) => [take.id, take]));
  const chainById = new Map(chains.map((chain) => [chain.id, chain]));
  return recordings.map((recording) => {
    const take = takeById.get(recording.takeId ?? '');
    const levels = take ? Object.fromEntries(Object.entries(take.condition).map(([kind, id]) => [kind, levelLabel(plan.factors, kind as FactorKind, id)])) : {};
    return { ...recording, take, chain: chainById.get(recording.candidateId ?? ''), levels };
  });
}

function levelId(row: Row, kind: FactorKind): string | null {
  return kind === 'candidate' ? row.candidateId : (row.take?.condition[kind] ?? null);
}

function columnsOf(entries: TrayEntry[], pick: (entry: TrayEntry) => void): ColumnDef<Row, unknown>[] {
  const level = (kind: 'station' | 'distance' | 'windscreen' | 'script') =>
    column.accessor((row) => (kind === 'distance' ? Number(row.take?.condition.distance ?? -1) : (row.levels[kind] ?? '')), {
      id: kind,
      header: kind.charAt(0).toUpperCase() + kind.slice(1),
      cell: ({ row }) => row.original.levels[kind] ?? '',
    });
  const columns = [
    column.display({
      id: 'tray',
      header: 'Tray',
      cell: ({ row: { original } }) => {
        const { takeId, candidateId } = original;
        if (!takeId || !candidateId) return null;
        const name = `Take ${original.take ? slateLabel(original.take) : ''} ${original.chain?.name ?? ''} in the tray`;
        return <Form.Check aria-label={name} checked={inTray(entries, { takeId, candidateId })} onChange={() => pick({ takeId, candidateId })} />;
      },
    }),
    column.accessor((row) => (row.take ? row.take.slate + row.take.pass / 100 : 99_999), {
      id: 'slate',
      header: 'Slate',
      cell: ({ row: { original } }) => (
        <Link to={original.id} className="mono fw-bold">
          {original.take ? slateLabel(original.take) : 'no take'}
        </Link>
      ),
    }),
    column.accessor((row) => row.chain?.name ?? '', {
      id: 'candidate',
      header: 'Candidate',
      cell: ({ row: { original } }) =>
        original.chain ? (
          <TapeMark tape={original.chain.tape} name={original.chain.name} />
        ) : (
          <span className="soft">{original.trackName ?? `channel ${original.channelIndex + 1}`}</span>
        ),
    }),
    level('station'),
    level('distance'),
    level('windscreen'),
    level('script'),
    ...SHOWN.map(({ id, head }) =>
      column.accessor((row) => row.figures?.[id], {
        id,
        header: head,
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
  const flags = [...new Set(row.take?.flags.map((mark) => mark.flag))].join(', ');
  if (row.take && isSpoiled(row.take)) return `not judged: ${flags}`;
  if (row.state !== 'done') return { queued: 'waits', measuring: 'is measured', failed: 'failed' }[row.state];
  if (row.methodVersion !== METHOD_VERSION) return 'old method';
  return flags;
}
