import { ChannelMeter, dbfsText } from './ChannelMeters.tsx';
import { Recorded } from './Recorded.tsx';
import { useRecorderState } from './useTakeRecorder.ts';

/** Beside the runner, while takes are recorded: the meters, what was heard, and anything that is wrong. */
export function RecordStrip() {
  const { open, armed, levels, recording, trouble } = useRecorderState();
  if (!open) return null;
  return (
    <section className="sheet record-strip" aria-label="Recorder">
      {!armed && !recording && <div className="small soft">The inputs are open, but takes are not recorded: switch it on under Record.</div>}
      {trouble && (
        <div className="trouble" role="alert">
          {trouble}
        </div>
      )}
      {levels.map((level, channel) => {
        const name = recording?.names[recording.channels.indexOf(channel)] ?? open.channels[channel] ?? '';
        const shown = recording === null || recording.channels.includes(channel);
        return (
          shown && (
            <div key={name} className="strip-line small">
              <span>{name}</span>
              <ChannelMeter name={name} level={level} />
              <span className={`mono ${level.clipped || level.dead ? 'alarm' : ''}`}>{level.dead ? 'dead' : level.clipped ? 'clip' : dbfsText(level.highestDbfs)}</span>
            </div>
          )
        );
      })}
      <Recorded />
    </section>
  );
}
