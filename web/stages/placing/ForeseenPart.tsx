import type { ForeseenAndFound } from '@marvet/core/contract/placing';
import type { StoredChain } from '@marvet/core/domain/chain';
import type { StoredStation } from '@marvet/core/domain/station';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { signed } from '@marvet/core/measure/catalogue';
import { FORESEEN_KINDS, type ForeseenKind, type ForeseenRow, type ForeseenSum, offWords } from '@marvet/core/place/foreseen';
import Nav from 'react-bootstrap/Nav';
import { Link } from 'react-router';
import { useForeseenQuery } from '../../data/placing.ts';
import { useChainsQuery, useStationsQuery } from '../../data/records.ts';
import { useTakesQuery } from '../../data/work.ts';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { ForeseenChart } from './ForeseenChart.tsx';

/** What was foreseen of a trial's takes, beside what was measured: how right the model is here. */
export function ForeseenPart({ trialId }: { trialId: string }) {
  const foreseen = useForeseenQuery(trialId);
  const chains = useChainsQuery(trialId);
  const stations = useStationsQuery(trialId);
  const takes = useTakesQuery(trialId);
  return (
    <Loaded of={[foreseen, chains, stations, takes]}>{() => <ForeseenDesk foreseen={foreseen.data!} chains={chains.data!} stations={stations.data!} takes={takes.data!} />}</Loaded>
  );
}

interface ForeseenDeskProps {
  foreseen: ForeseenAndFound;
  chains: readonly StoredChain[];
  stations: readonly StoredStation[];
  takes: readonly Take[];
}

function ForeseenDesk({ foreseen, chains, stations, takes }: ForeseenDeskProps) {
  const [search, changeAddress] = useAddress();
  const kinds = FORESEEN_KINDS.filter((each) => foreseen.rows.some(({ kind }) => kind === each));
  const kind = kinds.find((each) => each === search.get('kind')) ?? kinds[0];
  if (!kind)
    return (
      <Empty>
        <p>Once takes are measured, what was foreseen stands here beside what was found, and how far the model is off in this place.</p>
        <p className="mb-0">
          {foreseen.unforeseen > 0
            ? `${foreseen.unforeseen} recordings are measured, but too little is known of them: say in Kit where each microphone sits, in Plan how far it is, and here what the place is like.`
            : 'Nothing is measured yet.'}
        </p>
      </Empty>
    );
  const stationName = (id: string) => stations.find((station) => station.id === id)?.name ?? 'a station that is gone';
  const rows = foreseen.rows.filter((row) => row.kind === kind);
  return (
    <div className="stack">
      <Sheet
        title="How right it was"
        aside={
          <span className="small soft">
            <Link to="/methods#foreseen">how it is foreseen</Link>
          </span>
        }
      >
        <SumTable sums={foreseen.sums} stationName={stationName} />
        <p className="small soft mb-0 mt-2">
          Drop-outs are not foreseen: what a link bears is known of no receiver here. {foreseen.unforeseen > 0 && `Of ${foreseen.unforeseen} more recordings too little is known.`}
        </p>
      </Sheet>
      <Nav variant="underline" className="parts" activeKey={kind} onSelect={(key) => changeAddress({ kind: key === kinds[0] ? null : key })} aria-label="What was foreseen">
        {kinds.map((each) => (
          <Nav.Item key={each}>
            <Nav.Link eventKey={each} as="button" type="button">
              {each}
            </Nav.Link>
          </Nav.Item>
        ))}
      </Nav>
      <div className="columns">
        <Sheet title={`Foreseen against found: ${kind}`}>
          <ForeseenChart rows={rows} chains={chains} unit={unitOf(kind)} />
        </Sheet>
        <Sheet title="Farthest off">
          <RowTable rows={rows} kind={kind} chains={chains} takes={takes} stationName={stationName} />
        </Sheet>
      </div>
    </div>
  );
}

const unitOf = (kind: ForeseenKind) => (kind === 'decay' ? 's' : 'dB');
const errorText = (kind: ForeseenKind, error: number) => (kind === 'decay' ? `${signed(100 * error, 0)} %` : `${signed(error, 1)} dB`);

function sumWords(sum: ForeseenSum): string {
  if (sum.off) return `Off here: ${offWords(sum)}.`;
  if (sum.count < 3) return 'too few to say';
  return sum.scattered ? 'right in the middle, but single takes are far off' : 'as good as foreseen';
}

function SumTable({ sums, stationName }: { sums: readonly ForeseenSum[]; stationName: (id: string) => string }) {
  return (
    <table className="plain" aria-label="How right it was">
      <thead>
        <tr>
          <th>Figure</th>
          <th>Where</th>
          <th className="num">Recordings</th>
          <th className="num">Found less foreseen</th>
          <th className="num">Per doubling of distance</th>
          <th>In words</th>
        </tr>
      </thead>
      <tbody>
        {sums.map((sum) => (
          <tr key={`${sum.kind}/${sum.stationId}`}>
            <td>{sum.kind}</td>
            <td>{stationName(sum.stationId)}</td>
            <td className="num">{sum.count}</td>
            <td className="num">
              {errorText(sum.kind, sum.medianError)}
              <div className="small soft">± {errorText(sum.kind, sum.spread).replace(/^\+/, '')}</div>
            </td>
            <td className="num">{sum.perDoubling === null ? 'too few' : errorText(sum.kind, sum.perDoubling)}</td>
            <td className="small">{sumWords(sum)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const MOST_ROWS = 12;

interface RowTableProps {
  rows: readonly ForeseenRow[];
  kind: ForeseenKind;
  chains: readonly StoredChain[];
  takes: readonly Take[];
  stationName: (id: string) => string;
}

function RowTable({ rows, kind, chains, takes, stationName }: RowTableProps) {
  const worst = [...rows].sort((a, b) => Math.abs(b.error) - Math.abs(a.error)).slice(0, MOST_ROWS);
  const digits = kind === 'decay' ? 2 : 1;
  return (
    <>
      <table className="plain" aria-label="Farthest off">
        <thead>
          <tr>
            <th>Take</th>
            <th className="num">Foreseen</th>
            <th className="num">Found</th>
            <th className="num">Off by</th>
          </tr>
        </thead>
        <tbody>
          {worst.map((row) => {
            const take = takes.find(({ id }) => id === row.takeId);
            const chain = chains.find(({ id }) => id === row.candidateId);
            return (
              <tr key={row.recordingId}>
                <td>
                  <Link to={`../takes/${row.recordingId}`} relative="path">
                    {take ? slateLabel(take) : 'take'}
                  </Link>{' '}
                  {chain && <TapeMark tape={chain.tape} />}
                  <div className="small soft">{stationName(row.stationId)}</div>
                </td>
                <td className="num">{signed(row.foreseen, digits)}</td>
                <td className="num">{signed(row.found, digits)}</td>
                <td className="num">{errorText(kind, row.error)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {rows.length > MOST_ROWS && (
        <p className="small soft mb-0 mt-2">
          The {MOST_ROWS} farthest off of {rows.length}.
        </p>
      )}
    </>
  );
}
