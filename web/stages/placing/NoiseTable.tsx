import type { Acoustics } from '@marvet/core/domain/station';
import { signed } from '@marvet/core/measure/catalogue';
import { bestAim } from '@marvet/core/place/bestAim';
import { boomOverNoise, movedByAMetre, spotsOverNoise } from '@marvet/core/place/noiseAt';
import { useMemo } from 'react';
import { Empty } from '../../parts/states.tsx';
import { SIDE_WORDS } from './boomWords.ts';
import type { StationListener } from './stationListeners.ts';

const WAYS = [
  'farther from the camera',
  'away and to the right',
  'to the right',
  'nearer and to the right',
  'nearer to the camera',
  'nearer and to the left',
  'to the left',
  'away and to the left',
];
/** Less than this nobody hears. */
const WORTH_DB = 0.5;

/** What noise each microphone takes in, from where, and what aim, spot and a metre to the side would win. */
export function NoiseTable({ acoustics, listeners }: { acoustics: Acoustics; listeners: readonly StationListener[] }) {
  const rows = useMemo(
    () =>
      listeners.map(({ name, frame, boom }) => ({
        name,
        boom,
        over: boomOverNoise(frame, boom, acoustics),
        aim: bestAim(frame, boom, acoustics),
        spot: spotsOverNoise(frame, boom, acoustics)[0] ?? null,
        moved: movedByAMetre(frame, boom, acoustics)[0] ?? null,
      })),
    [acoustics, listeners],
  );
  if (rows.every(({ over }) => over === null))
    return <Empty>No noise is known here. Read a level with a meter, or add what is heard: a road, an engine, a refrigerator, and where it stands.</Empty>;
  return (
    <div className="table-scroll">
      <table className="plain" aria-label="Voice over noise at each microphone">
        <thead>
          <tr>
            <th>Microphone</th>
            <th className="num">Voice over noise</th>
            <th className="num">Noise dB A</th>
            <th>From</th>
            <th>What would win</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, boom, over, aim, spot, moved }) => (
            <tr key={boom.id}>
              <td>{name}</td>
              {over ? (
                <>
                  <td className="num">{signed(over.overDb, 0)} dB</td>
                  <td className="num">{over.noise.totalDba?.toFixed(0)}</td>
                  <td className="small">
                    {over.noise.sources.map(({ id, levelDba, distanceM }) => (
                      <div key={id}>
                        {acoustics.sources.find((source) => source.id === id)?.name}, {distanceM.toFixed(1)} m: {levelDba.toFixed(0)}
                      </div>
                    ))}
                    {over.noise.aroundDba !== null && <div>all around: {over.noise.aroundDba.toFixed(0)}</div>}
                  </td>
                  <td className="small">
                    {winsOf({ over: over.overDb, boom, aim, spot, moved }).map((words) => (
                      <div key={words}>{words}</div>
                    ))}
                  </td>
                </>
              ) : (
                <td colSpan={4}>not known</td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="small soft mb-0 mt-2">
        A voice of 60 dB A at 1 m, its direct sound. Levels of sources are those at 1 m in the open; a hard room lifts them. A source that moves stands where it is nearest.
      </p>
    </div>
  );
}

interface Wins {
  over: number;
  boom: StationListener['boom'];
  aim: ReturnType<typeof bestAim>;
  spot: ReturnType<typeof spotsOverNoise>[number] | null;
  moved: ReturnType<typeof movedByAMetre>[number] | null;
}

/** What would be better, each in a line; nothing is said of what nobody would hear. */
function winsOf({ over, boom, aim, spot, moved }: Wins): string[] {
  const wins: string[] = [];
  if (aim) wins.push(`aim ${aim.offMouthDeg.toFixed(0)}° past the mouth: ${signed(aim.gainDb, 1)} dB`);
  if (spot && spot.boom.from !== boom.from && spot.overDb - over > WORTH_DB) wins.push(`${SIDE_WORDS[spot.boom.from]}, just out of frame: ${signed(spot.overDb - over, 1)} dB`);
  if (moved && moved.gainDb > WORTH_DB) wins.push(`talker and microphone a metre ${WAYS[Math.round(moved.directionDeg / 45)]}: ${signed(moved.gainDb, 1)} dB`);
  return wins.length > 0 ? wins : ['nothing that is heard'];
}
