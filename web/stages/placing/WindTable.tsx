import { signed } from '@marvet/core/measure/catalogue';
import { mouthOf, tipOf } from '@marvet/core/place/boomPlace';
import { voiceAtDba } from '@marvet/core/place/noiseAt';
import { between } from '@marvet/core/place/point';
import { NOBODY_MINDS_DB, WIND_DOUBT_DB, windAgainstScreens } from '@marvet/core/place/windFigures';
import { Link } from 'react-router';
import { KeptNumber } from '../../parts/fields.tsx';
import { Sheet } from '../../parts/states.tsx';
import type { StationListener } from './stationListeners.ts';

interface WindTableProps {
  windMs: number | null;
  listeners: readonly StationListener[];
  onChange: (windMs: number | null) => void;
}

/** Wind against each kind of screen at the nearest microphone, with its doubt. */
export function WindTable({ windMs, listeners, onChange }: WindTableProps) {
  const voices = listeners.map(({ name, frame, boom }) => {
    const talker = frame.talkers[boom.aimsAt] ?? frame.talkers[0]!;
    const listening = { at: tipOf(boom), axis: between(tipOf(boom), mouthOf(talker)), pattern: { pressureShare: boom.pressureShare, tubeM: boom.tubeM } };
    return { name, dba: voiceAtDba(listening, talker) };
  });
  const nearest = voices.reduce((best, each) => (each.dba > best.dba ? each : best));
  return (
    <Sheet title="Wind">
      <div className="stack">
        <KeptNumber size="sm" label="Wind m/s" min={0} max={60} value={windMs} placeholder="not known" onKeep={onChange} />
        {windMs ? (
          <>
            <table className="plain" aria-label="Wind against screens">
              <thead>
                <tr>
                  <th>{nearest.name}</th>
                  <th className="num">Voice over wind</th>
                  <th className="num">Holds to</th>
                </tr>
              </thead>
              <tbody>
                {windAgainstScreens(windMs, nearest.dba).map(({ screen, overDb, holdsToMs }) => (
                  <tr key={screen}>
                    <td>{screen}</td>
                    <td className="num">
                      {signed(overDb, 0)} ± {WIND_DOUBT_DB} dB
                    </td>
                    <td className="num">{holdsToMs.toFixed(holdsToMs < 10 ? 1 : 0)} m/s</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="small soft mb-0">
              Holds while the voice stands {NOBODY_MINDS_DB} dB over it. Screens of one kind differ by {WIND_DOUBT_DB} dB to either side: trust a take more.{' '}
              <Link to="/methods#wind-foreseen">How</Link>
            </p>
          </>
        ) : (
          <p className="small soft mb-0">{windMs === 0 ? 'No wind here.' : 'Read it with a wind meter, or guess: leaves move at 3 m/s, dust flies at 6.'}</p>
        )}
      </div>
    </Sheet>
  );
}
