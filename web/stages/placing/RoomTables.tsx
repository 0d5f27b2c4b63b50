import { criticalDistanceM, decaysOf, ROOM_OCTAVES_HZ, tubeWinsDb } from '@marvet/core/place/roomFigures';
import { Sheet } from '../../parts/states.tsx';
import type { PatternInRoom } from './roomLines.ts';

const TOLD_BANDS = [1, 3, 5];

/** How a room rings by octave, how near is near, and what a tube is worth in it. */
export function RoomTables({ walls, patterns }: { walls: { sizeM: [number, number, number]; absorption: number[] }; patterns: readonly PatternInRoom[] }) {
  return (
    <Sheet title="How it rings, and how near is near">
      <div className="row-line align-items-start">
        <table className="plain w-auto grow" aria-label="Decay by octave">
          <thead>
            <tr>
              <th className="num">Octave Hz</th>
              <th className="num">Sabine s</th>
              <th className="num">Eyring s</th>
            </tr>
          </thead>
          <tbody>
            {decaysOf(walls).map(({ hz, sabineS, eyringS }) => (
              <tr key={hz}>
                <td className="num">{hz}</td>
                <td className="num">{sabineS.toFixed(2)}</td>
                <td className="num">{eyringS.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <table className="plain w-auto grow" aria-label="Critical distance">
          <thead>
            <tr>
              <th>As strong as the room at</th>
              {TOLD_BANDS.map((band) => (
                <th key={band} className="num">
                  {ROOM_OCTAVES_HZ[band]} Hz
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {patterns.map(({ name, letters, pattern }) => (
              <tr key={name}>
                <td>
                  {name}
                  {letters.length > 0 && <div className="small soft">{letters.join(', ')}</div>}
                </td>
                {TOLD_BANDS.map((band) => (
                  <td key={band} className="num">
                    {criticalDistanceM(walls, pattern, band).toFixed(2)} m
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {patterns
        .filter(({ pattern }) => pattern.tubeM > 0)
        .map(({ name, pattern }) => (
          <p key={name} className="small mb-0 mt-2">
            Against its capsule alone the {name} keeps {TOLD_BANDS.map((band) => `${tubeWinsDb(pattern)[band]?.toFixed(1)} dB at ${ROOM_OCTAVES_HZ[band]} Hz`).join(', ')} more of
            the room away.
          </p>
        ))}
    </Sheet>
  );
}
