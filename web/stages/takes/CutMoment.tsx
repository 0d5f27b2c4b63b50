import type { RecordingDetail } from '@marvet/core/contract/recordings';
import type { CutBy } from '@marvet/core/domain/recording';
import { useMoveCutMutation } from '../../data/work.ts';
import { KeptNumber } from '../../parts/fields.tsx';
import { Trouble } from '../../parts/states.tsx';

const BY: Record<NonNullable<CutBy>, string> = {
  clock: 'as the clocks of file and log have the press of the switch',
  press: 'by the press of the switch, as if the file had begun with the take: look at the level, and set it',
  hand: 'set by hand',
  log: 'cut out about its take by the clock of its recorder',
  passage: 'cut out of its file as a passage',
};

/** From where on in its file a recording is, where something was switched there: to be set by hand for all channels at once. */
export function CutMoment({ recording }: { recording: RecordingDetail }) {
  const [move, { error }] = useMoveCutMutation();
  const { id, trialId, startS, cutBy, file } = recording;
  return (
    <div className="stack gap-1">
      <div className="row-line">
        <KeptNumber
          size="sm"
          hideLabel
          label="Begins at, seconds of its file"
          min={0}
          max={file.format.durationS}
          value={startS === null ? null : Number(startS.toFixed(2))}
          onKeep={(at) => at !== null && void move({ trialId, id, startS: at })}
        />
        <span className="small soft">s of its file, {BY[cutBy ?? 'press']}</span>
      </div>
      <Trouble error={error} />
    </div>
  );
}
