import { slateLabel, type Take } from '@marvet/core/domain/take';
import type { WalkPress } from '@marvet/core/domain/walk';
import { readTrack } from '@marvet/core/formats/trackPoints';
import type { WalkTrack } from '@marvet/core/radio/walkTrack';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { FileBox } from '../../parts/FileBox.tsx';
import type { FieldState } from './useFieldLog.ts';
import { usePosition } from './usePosition.ts';

interface WalkToolsProps {
  take: Take;
  track: WalkTrack | null;
  /** Whether it was said by this phone or a file. */
  trackSaid: boolean;
  log: FieldState;
  onPress: (press: WalkPress) => void;
}

const POINTS_A_LINE = 500;
/** A track of another day is most likely of another walk. */
const HOUR_MS = 3_600_000;

/** Where the talker is known from: this phone, a device, or a file; and the way as a file to take away. */
export function WalkTools({ take, track, trackSaid, log, onPress }: WalkToolsProps) {
  const position = usePosition(take.status === 'rolling' ? take.id : null, log.write);
  const [said, setSaid] = useState('');
  const bring = async (file: File) => {
    if (take.startedAtMs === null) return setSaid('Start the take first: a track is laid on it by its times.');
    const { points, leftOut, trouble } = readTrack(await file.text());
    const [fromMs, toMs] = [take.startedAtMs - HOUR_MS, (take.stoppedAtMs ?? Date.now()) + HOUR_MS];
    const own = points.filter(({ atMs }) => atMs >= fromMs && atMs <= toMs);
    if (trouble || own.length === 0)
      return setSaid(`${file.name}: ${trouble ?? `none of its ${points.length} points is within an hour of this take; is it of this walk, and was its clock right?`}`);
    for (let start = 0; start < own.length; start += POINTS_A_LINE) await log.write({ kind: 'positions', takeId: take.id, points: own.slice(start, start + POINTS_A_LINE) });
    setSaid(`${file.name}: ${own.length} points are the way of this take.${leftOut > 0 ? ` ${leftOut} had no time or no place.` : ''}`);
  };
  return (
    <div className="stack">
      <div className="row-line">
        <Form.Check
          type="switch"
          id="phone-position"
          label="Take where this phone is for where the talker is"
          checked={position.on}
          onChange={(event) => position.turn(event.target.checked)}
        />
        {position.last && (
          <>
            <span className="small soft mono">± {Math.round(position.last.accuracyM ?? 0)} m</span>
            <Button
              size="sm"
              variant="outline"
              onClick={() => position.last && onPress({ what: 'receiver', latitudeDeg: position.last.latitudeDeg, longitudeDeg: position.last.longitudeDeg })}
            >
              The receiver stands here
            </Button>
          </>
        )}
      </div>
      {position.trouble && (
        <div className="caution" role="status">
          {position.trouble}
        </div>
      )}
      <div className="row-line align-items-end">
        <FileBox label="A track of this walk, GPX, CSV or NMEA" accept=".gpx,.csv,.nmea,.txt,.log" onFile={bring} />
        {track && (
          <span className="row-line">
            {trackSaid && (
              <Button size="sm" variant="plain" onClick={() => void log.write({ kind: 'unpositions', takeId: take.id }).then(() => setSaid(''))}>
                Take the track back
              </Button>
            )}
            {(['gpx', 'csv'] as const).map((kind) => (
              <a key={kind} className="btn btn-outline btn-sm" href={`/api/trials/${take.trialId}/readings/${take.id}/track.${kind}`} download>
                Track of {slateLabel(take)} as {kind.toUpperCase()}
              </a>
            ))}
          </span>
        )}
      </div>
      {said && (
        <p className="small mb-0" role="status">
          {said}
        </p>
      )}
    </div>
  );
}
