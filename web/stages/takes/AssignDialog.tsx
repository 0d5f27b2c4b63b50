import type { FileRow, RecordingRow } from '@marvet/core/contract/recordings';
import { firstSetups, slateLabel, type Take } from '@marvet/core/domain/take';
import { matchSources } from '@marvet/core/takes/matchFile';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { useTrialWords } from '../../data/trialData.ts';
import { useAssignFileMutation } from '../../data/work.ts';
import { dateTimeText } from '../../parts/dateText.ts';
import { Field } from '../../parts/fields.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { SafePlayer } from '../../parts/SafePlayer.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { backupText } from './BackupUse.tsx';
import { channelsText, StereoPairs } from './StereoPairs.tsx';

interface AssignDialogProps {
  trialId: string;
  file: FileRow;
  recordings: RecordingRow[];
  takes: Take[];
  onClose: () => void;
}

type ByChannel<Value> = Partial<Record<number, Value>>;
const channelOf = ({ channels }: Pick<RecordingRow, 'channels'>) => channels[0] ?? 0;

/** Ties a file to a take by hand: hear it, choose the take, say which channel is which candidate. */
export function AssignDialog({ trialId, file, recordings: all, takes, onClose }: AssignDialogProps) {
  // A channel is tied as a whole: where something was switched, its stretches follow.
  const recordings = all.filter(({ startS }) => startS === null);
  const words = useTrialWords(trialId);
  const [assign, { error, isLoading }] = useAssignFileMutation();
  const [takeId, setTakeId] = useState(file.takeId ?? '');
  // By channel: what was chosen stays while channels are joined to stereo, or parted.
  const [setupIds, setSetupIds] = useState<ByChannel<string | null>>(() => Object.fromEntries(recordings.map((recording) => [channelOf(recording), recording.setupId])));
  const [names, setNames] = useState<ByChannel<string>>(() => Object.fromEntries(recordings.map((recording) => [channelOf(recording), recording.trackName ?? ''])));
  const [slateSpoken, setSlateSpoken] = useState(file.slateSpoken);
  const take = takes.find((each) => each.id === takeId);
  const chainOf = (setupId: string | null | undefined) => words.chains.get(take?.setups.find((setup) => setup.id === setupId)?.candidateId ?? '');
  const chooseTake = (id: string) => {
    setTakeId(id);
    const chosen = takes.find((each) => each.id === id);
    const setups = chosen ? firstSetups(chosen) : [];
    const sources = recordings.filter(({ backup }) => !backup).map(channelOf);
    setSetupIds({ ...matchSources(file.name, file.format.trackNames, sources, setups, [...words.chains.values()]) });
  };
  const submit = async () => {
    const channels = recordings.map((recording) => ({
      channelIndex: channelOf(recording),
      setupId: takeId ? (setupIds[channelOf(recording)] ?? null) : null,
      trackName: names[channelOf(recording)] ?? '',
    }));
    const { error: failed } = await assign({ trialId, fileId: file.id, assignment: { takeId: takeId || null, channels, slateSpoken } });
    if (!failed) onClose();
  };
  return (
    <RecordDialog title={`Match ${file.name}`} onClose={onClose} onSubmit={() => void submit()} error={error} saving={isLoading} saveLabel="Match">
      <dl className="facts small">
        <dt>Length</dt>
        <dd>{file.format?.durationS.toFixed(1)} s</dd>
        <dt>Scene, take</dt>
        <dd>{[file.format?.scene, file.format?.take].filter(Boolean).join(', ') || 'not in the file'}</dd>
        <dt>Arrived</dt>
        <dd>{dateTimeText(file.uploadedAtMs)}</dd>
      </dl>
      <Field label="Take">
        {(id) => (
          <Form.Select id={id} value={takeId} onChange={(event) => chooseTake(event.target.value)}>
            <option value="">no take</option>
            {takes.map((each) => (
              <option key={each.id} value={each.id}>
                {slateLabel(each)}: {words.condition(each)} {each.status === 'done' ? '' : `(${each.status})`}
              </option>
            ))}
          </Form.Select>
        )}
      </Field>
      <Field label="Slate spoken on this file">
        {(id) => (
          <Form.Select
            id={id}
            value={slateSpoken === null ? '' : String(slateSpoken)}
            onChange={(event) => setSlateSpoken(event.target.value === '' ? null : event.target.value === 'true')}
          >
            <option value="">as the trial says</option>
            <option value="true">yes: what is judged begins after it</option>
            <option value="false">no</option>
          </Form.Select>
        )}
      </Field>
      <StereoPairs key={recordings.map(({ channels }) => channels.length).join()} trialId={trialId} file={file} recordings={recordings} />
      {recordings.map((recording) => (
        <div key={recording.id} className="stack gap-1 border-top pt-2">
          <div className="row-line apart">
            <span className="row-line">
              <b>{channelsText(recording.channels)}</b>
              <Form.Control
                size="sm"
                className="w-auto"
                placeholder="no name"
                maxLength={60}
                aria-label={`Name of channel ${channelOf(recording) + 1}`}
                value={names[channelOf(recording)] ?? ''}
                onChange={(event) => setNames({ ...names, [channelOf(recording)]: event.target.value })}
              />
            </span>
            <span className="row-line">
              {chainOf(setupIds[channelOf(recording)]) && <TapeMark tape={chainOf(setupIds[channelOf(recording)])!.tape} />}
              <Form.Select
                size="sm"
                className="w-auto"
                aria-label={`Candidate of channel ${channelOf(recording) + 1}`}
                disabled={!take}
                value={setupIds[channelOf(recording)] ?? ''}
                onChange={(event) => setSetupIds({ ...setupIds, [channelOf(recording)]: event.target.value || null })}
              >
                <option value="">none</option>
                {(take ? firstSetups(take) : []).map((setup) => (
                  <option key={setup.id} value={setup.id}>
                    {[words.chains.get(setup.candidateId)?.name, words.setup(setup)].filter(Boolean).join(', ')}
                  </option>
                ))}
              </Form.Select>
            </span>
          </div>
          {recording.backup && <span className="small soft">{backupText(recording.backup)}: the same sound, and no microphone of its own</span>}
          <SafePlayer src={`/api/trials/${trialId}/recordings/${recording.id}/audio`} label={`Channel ${channelOf(recording) + 1} of ${file.name}`} />
        </div>
      ))}
    </RecordDialog>
  );
}
