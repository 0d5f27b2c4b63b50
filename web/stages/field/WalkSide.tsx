import type { Chain } from '@marvet/core/domain/chain';
import type { Take } from '@marvet/core/domain/take';
import type { WalkPress } from '@marvet/core/domain/walk';
import { levelsAlongWalk } from '@marvet/core/radio/levelsAlongWalk';
import { Link } from 'react-router';
import { useDevicesQuery, useTakeReadingsQuery } from '../../data/devices.ts';
import { Sheet, Trouble } from '../../parts/states.tsx';
import type { FieldState } from './useFieldLog.ts';
import { WalkChart } from './WalkChart.tsx';
import { WalkMapDrawing } from './WalkMapDrawing.tsx';
import { WalkTools } from './WalkTools.tsx';

const ASK_EVERY_MS = 3000;

/** The walk as it was: the way with its marks and break-ups, radio level against distance, and where positions come from. */
export function WalkSide({ take, chains, log, onPress }: { take: Take; chains: readonly Chain[]; log: FieldState; onPress: (press: WalkPress) => void }) {
  const { trialId, id: takeId, status } = take;
  // What devices tell meanwhile is asked for now and then, while there is something to see.
  const readings = useTakeReadingsQuery({ trialId, takeId }, { skip: take.startedAtMs === null, pollingInterval: status === 'rolling' ? ASK_EVERY_MS : 0 });
  const devices = useDevicesQuery(trialId);
  const track = readings.data?.track ?? null;
  const levels = levelsAlongWalk(readings.data?.devices ?? [], devices.data ?? [], take.walk, track);
  return (
    <Sheet title="The walk" aside={<Link to={`/trials/${trialId}/takes?view=range&station=${take.condition.station}`}>How far each link holds</Link>}>
      <div className="stack">
        <Trouble error={readings.error} />
        {track && <WalkMapDrawing track={track} take={take} chains={chains} />}
        <WalkChart take={take} chains={chains} levels={levels} track={track} />
        {!track && levels.size === 0 && (
          <p className="small soft mb-0">
            Marks and presses are enough for a range. With a receiver among the devices the radio level is drawn against distance; with positions, from this phone, a device or a
            file, the way itself.
          </p>
        )}
        <WalkTools key={takeId} take={take} track={track} trackSaid={readings.data?.trackSaid ?? false} log={log} onPress={onPress} />
      </div>
    </Sheet>
  );
}
