import type { AudioFile } from '@marvet/core/domain/recording';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { matchChannels } from '@marvet/core/takes/matchFile';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { useTrialWords } from '../../data/trialData.ts';
import { type RecordingRow, useAssignFileMutation } from '../../data/work.ts';
import { dateTimeText } from '../../parts/dateText.ts';
import { Field } from '../../parts/fields.tsx';
import { RecordDialog } from '../../parts/RecordDialog.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { SafePlayer } from './SafePlayer.tsx';

interface AssignDialogProps {
  trialId: string;
  file: AudioFile;
  recordings: RecordingRow[];
  takes: Take[];
  onClose: () => void;
}

/** Ties a file to a take by hand: hear it, choose the take, say which channel is which candidate. */
export function AssignDialog({ trialId, file, recordings, takes, onClose }: AssignDialogProps) {
  const words = useTrialWords(trialId);
  const [assign, { error, isLoading }] = useAssignFileMutation();
  const [takeId, setTakeId] = useState(file.takeId ?? '');
  const [candidates, setCandidates] = useState(() => recordings.map((recording) => recording.candidateId));
  const [names, setNames] = useState(() => recordings.map((recording) => recording.trackName ?? ''));
  const take = takes.find((each) => each.id === takeId);
  const inTake = (take?.candidateIds ?? []).flatMap((id) => words.chains.get(id) ?? []);
  const chooseTake = (id: string) => {
    setTakeId(id);
    const chosen = takes.find((each) => each.id === id);
    const chains = (chosen?.candidateIds ?? []).flatMap((each) => words.chains.get(each) ?? []);
    setCandidates(
      matchChannels(
        file.name,
        recordings.map((recording) => recording.trackName),
        chains,
      ),
    );
  };
  const submit = async () => {
    const channels = recordings.map((recording, index) => ({
      channelIndex: recording.channelIndex,
      candidateId: takeId ? (candidates[index] ?? null) : null,
      trackName: names[index] ?? '',
    }));
    const { error: failed } = await assign({ trialId, fileId: file.id, assignment: { takeId: takeId || null, channels } });
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
      {recordings.map((recording, index) => (
        <div key={recording.id} className="stack gap-1 border-top pt-2">
          <div className="row-line apart">
            <span className="row-line">
              <b>Channel {recording.channelIndex + 1}</b>
              <Form.Control
                size="sm"
                className="w-auto"
                placeholder="no name"
                maxLength={60}
                aria-label={`Name of channel ${recording.channelIndex + 1}`}
                value={names[index] ?? ''}
                onChange={(event) => setNames(names.with(index, event.target.value))}
              />
            </span>
            <span className="row-line">
              {candidates[index] && words.chains.get(candidates[index]) && <TapeMark tape={words.chains.get(candidates[index])!.tape} />}
              <Form.Select
                size="sm"
                className="w-auto"
                aria-label={`Candidate of channel ${recording.channelIndex + 1}`}
                disabled={!take}
                value={candidates[index] ?? ''}
                onChange={(event) => setCandidates(candidates.map((each, at) => (at === index ? event.target.value || null : each)))}
              >
                <option value="">none</option>
                {inTake.map((chain) => (
                  <option key={chain.id} value={chain.id}>
                    {chain.name}
                  </option>
                ))}
              </Form.Select>
            </span>
          </div>
          <SafePlayer src={`/api/trials/${trialId}/recordings/${recording.id}/audio`} label={`Channel ${recording.channelIndex + 1} of ${file.name}`} />
        </div>
      ))}
    </RecordDialog>
  );
}
