import { signed } from '@marvet/core/measure/catalogue';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import type { MatchFilter } from '@marvet/core/measure/report.types';
import { Link } from 'react-router';
import { Sheet } from '../../parts/states.tsx';

const FILTER_NAMES: Record<MatchFilter['type'], string> = { peaking: 'bell', lowShelf: 'shelf down from', highShelf: 'shelf up from' };

/** Timing, level and the equalisation needed. */
export function PairFigures({ compared: { pair, warnings } }: { compared: ComparedPair }) {
  const rows: [string, string][] = [
    ['Later than the second', pair.latencyMs === null ? 'not measured' : `${signed(pair.latencyMs, 2)} ms`],
    ['Drift', pair.driftPpm === null ? 'not measured' : `${signed(pair.driftPpm, 1)} ppm`],
    ['Polarity', pair.polarity === null ? 'not measured' : pair.polarity > 0 ? 'same' : 'turned over'],
    ['Level over the second', pair.levelDiffDb === null ? 'not measured' : `${signed(pair.levelDiffDb, 1)} dB`],
    ['Spectral distance', pair.spectralDistanceDb === null ? 'not measured' : `${pair.spectralDistanceDb.toFixed(1)} dB`],
    ['Distance once equalised', pair.matchedDistanceDb === null ? 'not measured' : `${pair.matchedDistanceDb.toFixed(1)} dB`],
    ['Coherent signal to noise', pair.coherentSnrDb === null ? 'not measured' : `${signed(pair.coherentSnrDb, 0)} dB`],
  ];
  return (
    <Sheet title="Against the second" aside={<Link to="/methods#pair">How this is measured</Link>}>
      {warnings.map((warning) => (
        <p key={warning} className="caution p-2">
          {warning[0]?.toUpperCase()}
          {warning.slice(1)}.{pair.latencyMs === null && ' Are these two of the same performance?'}
        </p>
      ))}
      <table className="plain">
        <tbody>
          {rows.map(([label, value]) => (
            <tr key={label}>
              <td>{label}</td>
              <td className="num">{value}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h3 className="small mt-3">Equalisation that brings the first nearest</h3>
      {pair.eqMatch.length === 0 ? (
        <p className="small soft mb-0">{pair.spectralDistanceDb === null ? 'Nothing can be said of it here.' : 'None would help.'}</p>
      ) : (
        <table className="plain small">
          <thead>
            <tr>
              <th>Filter</th>
              <th className="num">Hz</th>
              <th className="num">Gain dB</th>
              <th className="num">Q</th>
            </tr>
          </thead>
          <tbody>
            {pair.eqMatch.map((filter) => (
              <tr key={`${filter.type} ${filter.frequencyHz}`}>
                <td>{FILTER_NAMES[filter.type]}</td>
                <td className="num">{filter.frequencyHz.toFixed(0)}</td>
                <td className="num">{signed(filter.gainDb, 1)}</td>
                <td className="num">{filter.q.toFixed(1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Sheet>
  );
}
