import { signed } from '@marvet/core/measure/catalogue';
import { handMeasures } from '@marvet/core/place/boomFigures';
import { placeOnBody } from '@marvet/core/place/nearMouth';
import type { WornRisk } from '@marvet/core/place/wornRisks';
import Button from 'react-bootstrap/Button';
import { colourBetween, type WornRow } from './wornRows.ts';

interface WornTableProps {
  rows: readonly WornRow[];
  chosenId: string | null;
  onChoose: (id: string) => void;
}

/** What is to be expected of every placement: against the boom, when the head turns, and what may be heard of body and cloth. */
export function WornTable({ rows, chosenId, onChoose }: WornTableProps) {
  return (
    <div className="table-scroll">
      <table className="plain worn" aria-label="What is to be expected">
        <thead>
          <tr>
            <th>Placement</th>
            <th className="num">Mouth</th>
            <th className="num" title="Voice against the boom’s, dB A; computed">
              Level dB
            </th>
            <th className="num" title="80 to 500 Hz against the boom, without level">
              Chest dB
            </th>
            <th className="num" title="3 to 8 kHz against the boom, without level">
              Top dB
            </th>
            <th className="num" title="Level and top when the head turns 60° to the left and to the right; computed">
              Turned L, R
            </th>
            <th title="Breath, rub and cable, by rule">Likely heard</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.placement.id} className={row.placement.id === chosenId ? 'chosen' : ''}>
              <td>
                <Button size="sm" variant="plain" className="text-start p-0" aria-pressed={row.placement.id === chosenId} onClick={() => onChoose(row.placement.id)}>
                  <b>{row.letters}</b> {row.placement.name}
                </Button>
                <div className="small soft">{row.learned ? `learned from ${row.learned.takes} takes` : row.figures ? 'computed' : 'its spot is not drawn'}</div>
              </td>
              {row.figures ? <Figures row={row} /> : <td colSpan={5}>not known</td>}
              <Risks risks={row.risks} />
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Figures({ row }: { row: WornRow }) {
  const figures = row.figures!;
  const at = placeOnBody(row.placement);
  const [chest, top] = [colourBetween(row, 100, 500), colourBetween(row, 3000, 8000)];
  const spread = row.learned && middleSpread(row.learned.spreadDb);
  return (
    <>
      <td className="num">
        {(100 * figures.distanceM).toFixed(0)} cm
        <div className="small soft">{at && handMeasures(figures.distanceM)}</div>
      </td>
      <td className="num">{signed(figures.levelDb, 0)}</td>
      <td className="num">{chest === null ? 'in noise' : signed(chest, 1)}</td>
      <td className="num">
        {top === null ? 'in noise' : signed(top, 1)}
        {spread !== null && spread !== undefined && <div className="small soft">± {spread.toFixed(1)}</div>}
      </td>
      <td className="num">
        {figures.turned.map(({ levelDb }) => signed(levelDb, 0)).join(', ')}
        <div className="small soft">top {figures.turned.map(({ topDb }) => signed(topDb, 0)).join(', ')}</div>
      </td>
    </>
  );
}

function middleSpread(spreads: readonly (number | null)[]): number | null {
  const known = spreads.filter((each) => each !== null).sort((a, b) => a - b);
  return known[Math.floor(known.length / 2)] ?? null;
}

/** What of breath, cloth and cable is not unlikely. */
function Risks({ risks }: { risks: readonly WornRisk[] }) {
  const told = risks.filter(({ level }) => level !== 'low');
  return (
    <td className="small">
      {told.length === 0 && 'nothing'}
      {told.map(({ kind, level, why }) => (
        <div key={kind} className={level === 'high' ? 'bad' : ''} title={why}>
          {kind} {level}
        </div>
      ))}
    </td>
  );
}
