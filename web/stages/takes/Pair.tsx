import type { RecordingDetail } from '@marvet/core/contract/recordings';
import { recordingLengthS } from '@marvet/core/domain/recording';
import { slateLabel } from '@marvet/core/domain/take';
import { eventText } from '@marvet/core/measure/eventWords';
import type { AudioEvent, Span } from '@marvet/core/measure/report.types';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { placed, useTrialId, useTrialWords } from '../../data/trialData.ts';
import { usePairQuery, useRecordingQuery, useTakesQuery } from '../../data/work.ts';
import { BandDifference } from '../../parts/BandDifference.tsx';
import { LevelLanes } from '../../parts/lanes/LevelLanes.tsx';
import { SafePlayer, type Seek } from '../../parts/SafePlayer.tsx';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { type HeardSide, NoiseTaken } from './NoiseTaken.tsx';
import { PairFigures } from './PairFigures.tsx';
import { useTimeWindow, WindowButtons } from './TimeWindow.tsx';

const AROUND_S = 0.6;

/** Two takes side by side, aligned: what the one is against the other. The second is the reference. */
export default function Pair() {
  const trialId = useTrialId();
  const { recordingId = '', otherId = '' } = useParams();
  const own = useRecordingQuery({ trialId, id: recordingId });
  const other = useRecordingQuery({ trialId, id: otherId });
  const takes = useTakesQuery(trialId);
  const pair = usePairQuery({ trialId, id: recordingId, other: otherId });
  const words = useTrialWords(trialId);
  const lengthS = Math.max(lengthOf(own.data), lengthOf(other.data));
  const time = useTimeWindow(lengthS);
  const [atS, setAtS] = useState(0);
  const [heard, setHeard] = useState<{ side: HeardSide; startS: number; endS: number } | null>(null);
  return (
    <Loaded of={[own, other, takes]}>
      {() => {
        const latencyS = (pair.data?.pair.latencyMs ?? 0) / 1000;
        const sides = [
          { side: 'processed' as const, recording: own.data!, shiftS: latencyS },
          { side: 'reference' as const, recording: other.data!, shiftS: 0 },
        ];
        const byId = new Map(takes.data!.map((take) => [take.id, take]));
        const placeOf = (recording: RecordingDetail) => placed(recording, byId, words.chains);
        const nameOf = (side: (typeof sides)[number]) => {
          const { take, chain } = placeOf(side.recording);
          return `${take ? slateLabel(take) : side.recording.file.name} ${chain?.name ?? ''}`.trim();
        };
        const lossy = sides.filter(({ recording }) => recording.file.format.lossy);
        return (
          <>
            <div className="row-line">
              <Link to={`/trials/${trialId}/takes`}>All takes</Link>
              <h2 className="fs-5">
                {nameOf(sides[0]!)} against {nameOf(sides[1]!)}
              </h2>
              <Link to={`/trials/${trialId}/takes/pair/${otherId}/${recordingId}`}>Turn round</Link>
            </div>
            <Loaded of={[pair]}>
              {() => (
                <div className="columns">
                  <div className="stack">
                    <Sheet title="Difference of spectra, dB" aside={<span className="small soft">the first less the second</span>}>
                      <BandDifference pair={pair.data!.pair} />
                    </Sheet>
                    <NoiseTaken pair={pair.data!.pair} onHear={(side, { startS, endS }) => setHeard({ side, startS, endS })} />
                  </div>
                  <PairFigures compared={pair.data!} />
                </div>
              )}
            </Loaded>
            {lossy.length > 0 && (
              <div className="caution" role="note">
                {lossy.map(nameOf).join(' and ')}: what was left out when the file was made smaller is part of this difference. Small ones, and those of noise and air, say little
                of the gear.
              </div>
            )}
            <Sheet title="Level over time, dBFS, aligned" aside={<WindowButtons time={time} atS={atS} />}>
              {sides.map((side) => (
                <Track
                  key={side.recording.id}
                  name={nameOf(side)}
                  mark={placeOf(side.recording).chain}
                  recording={side.recording}
                  trialId={trialId}
                  window={[time.window[0] + side.shiftS, time.window[1] + side.shiftS]}
                  hear={heard?.side === side.side ? heard : null}
                  shiftS={side.shiftS}
                  onTime={(seconds) => setAtS(seconds - side.shiftS)}
                />
              ))}
            </Sheet>
            <div className="columns">
              {sides.map((side) => (
                <Sheet key={side.recording.id} title={`Events: ${nameOf(side)}`}>
                  <Happened name={nameOf(side)} events={side.recording.report?.events ?? []} />
                </Sheet>
              ))}
            </div>
          </>
        );
      }}
    </Loaded>
  );
}

interface TrackProps {
  name: string;
  mark: { tape: Parameters<typeof TapeMark>[0]['tape']; name: string } | undefined;
  recording: NonNullable<ReturnType<typeof useRecordingQuery>['data']>;
  trialId: string;
  window: Span;
  /** A stretch that somebody asked to hear, on the reference's clock, and how much later this is. */
  hear: { startS: number; endS: number } | null;
  shiftS: number;
  onTime: (seconds: number) => void;
}

function Track({ name, mark, recording, trialId, window, hear, shiftS, onTime }: TrackProps) {
  const [seekTo, setSeekTo] = useState<Seek | null>(null);
  useEffect(() => {
    if (hear) setSeekTo({ atS: Math.max(0, hear.startS + shiftS - AROUND_S), untilS: hear.endS + shiftS + AROUND_S });
  }, [hear, shiftS]);
  const [atS, setAtS] = useState(0);
  if (!recording.report || !recording.series) return <Empty>{name} has not been measured.</Empty>;
  return (
    <div className="mb-3">
      <div className="row-line small">
        {mark && <TapeMark tape={mark.tape} name={mark.name} width={44} />} {name}
      </div>
      <LevelLanes
        label={`Level of ${name}`}
        series={recording.series}
        activity={recording.report.activity}
        events={recording.report.events ?? []}
        window={window}
        compact
        atS={atS}
        onSeek={(seconds) => setSeekTo({ atS: seconds })}
        onEvent={(event) => setSeekTo({ atS: Math.max(0, event.startS - 1), untilS: event.endS + 1 })}
      />
      <SafePlayer
        src={`/api/trials/${trialId}/recordings/${recording.id}/audio`}
        label={name}
        seekTo={seekTo}
        onTime={(seconds) => {
          setAtS(seconds);
          onTime(seconds);
        }}
      />
    </div>
  );
}

function Happened({ name, events }: { name: string; events: readonly AudioEvent[] }) {
  if (events.length === 0) return <Empty>None.</Empty>;
  return (
    <section className="event-list" tabIndex={0} aria-label={`Events of ${name}, from first to last`}>
      <table className="plain small">
        <tbody>
          {events.map((event) => (
            <tr key={`${event.kind} ${event.startS}`}>
              <td>{eventText(event)}</td>
              <td className="num">{event.severityDb.toFixed(0)} dB</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const lengthOf = (recording: RecordingDetail | undefined) => (recording ? recordingLengthS(recording, recording.file.format.durationS) : 0.1);
