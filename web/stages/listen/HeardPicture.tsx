import { shownEvents } from '@marvet/core/measure/events/corrected';
import { useRecordingQuery } from '../../data/work.ts';
import { LevelLanes } from '../../parts/lanes/LevelLanes.tsx';
import { Loaded } from '../../parts/states.tsx';

interface HeardPictureProps {
  trialId: string;
  recordingId: string;
  /** Where the clip begins in its recording, and how long it is. */
  startS: number;
  lengthS: number;
  /** In seconds of the clip. */
  atS: number;
  onSeek(seconds: number): void;
}

/** Before an event is heard, so that it does not come unawares. */
const BEFORE_S = 0.5;

/** The clip that is heard: its level as it was recorded, words, pauses, and what was found in it; a click goes there in all clips. */
export function HeardPicture({ trialId, recordingId, startS, lengthS, atS, onSeek }: HeardPictureProps) {
  const query = useRecordingQuery({ trialId, id: recordingId });
  return (
    <div className="clip-picture">
      <Loaded of={[query]}>
        {() => {
          const { series, report, corrections } = query.data!;
          if (!series || !report) return null;
          return (
            <LevelLanes
              label="Level of the clip that is heard"
              series={series}
              activity={report.activity}
              events={shownEvents(report.events, corrections)}
              window={[startS, startS + lengthS]}
              compact
              atS={startS + atS}
              onSeek={(seconds) => onSeek(seconds - startS)}
              onEvent={(event) => onSeek(Math.max(0, event.startS - startS - BEFORE_S))}
            />
          );
        }}
      </Loaded>
    </div>
  );
}
