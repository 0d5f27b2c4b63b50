import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { Criterion } from '@marvet/core/domain/criterion';
import type { Listener, Round } from '@marvet/core/domain/round';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { signed } from '@marvet/core/measure/catalogue';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useAddListenerMutation, useBinListenerMutation, useRestoreListenerMutation } from '../../data/judging.ts';
import { placed, useTrialWords } from '../../data/trialData.ts';
import { useNotice } from '../../parts/notices.tsx';
import { PickTape } from '../../parts/PickTape.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';
import { BlindMark } from '../../parts/TapeMark.tsx';
import { useBin } from '../../parts/useBin.ts';
import { useTold } from '../../parts/useTold.ts';
import { OnPhone } from './OnPhone.tsx';

interface RoundCardProps {
  trialId: string;
  round: Round;
  criteria: Criterion[];
  recordings: RecordingRow[];
  takes: Take[];
}

/** One round: who listened on what, what they scored once done, and a seat for the next listener. */
export function RoundCard({ trialId, round, criteria, recordings, takes }: RoundCardProps) {
  const bin = useBin(trialId, 'round');
  const words = useTrialWords(trialId);
  const held = [...new Set(recordings.filter((recording) => round.recordingIds.includes(recording.id)).map((recording) => recording.takeId))].flatMap(
    (id) => takes.find((take) => take.id === id) ?? [],
  );
  const delays = (round.delaysMs ?? []).filter((delay) => delay !== null && Math.abs(delay) >= 0.5) as number[];
  const used = criteria.filter((criterion) => round.criterionIds.includes(criterion.id));
  return (
    <Sheet
      title={round.title}
      aside={
        <span className="row-line">
          <span className="small soft">
            {round.recordingIds.length} clips at {signed(round.matchedLufs, 1)} LUFS{round.sample && ', sample data'}
          </span>
          <Button size="sm" variant="plain" aria-label={`Delete ${round.title}`} onClick={() => bin(round.id, round.title)}>
            <Trash2 size={15} aria-hidden />
          </Button>
        </span>
      }
    >
      <p className="small soft mb-2">
        {held.map((take) => `Take ${slateLabel(take)}: ${words.condition(take)}`).join('; ')}
        {delays.length > 0 && `. Delays taken out against the first: ${delays.map((delay) => `${signed(delay, 1)} ms`).join(', ')}`}
      </p>
      {round.listeners.map((listener) => (
        <ListenerScores key={listener.id} trialId={trialId} round={round} listener={listener} criteria={used} recordings={recordings} takes={takes} />
      ))}
      <NewListener trialId={trialId} roundId={round.id} />
    </Sheet>
  );
}

interface ListenerScoresProps {
  trialId: string;
  round: Round;
  listener: Listener;
  criteria: Criterion[];
  recordings: RecordingRow[];
  takes: Take[];
}

function ListenerScores({ trialId, round, listener, criteria, recordings, takes }: ListenerScoresProps) {
  const words = useTrialWords(trialId);
  const byId = new Map(takes.map((take) => [take.id, take]));
  const open = round.listeners.every((each) => each.finishedAtMs !== null);
  const tell = useNotice();
  const told = useTold();
  const [remove] = useBinListenerMutation();
  const [restore] = useRestoreListenerMutation();
  const binListener = () =>
    void told(remove({ trialId, roundId: round.id, id: listener.id })).then(({ error }) => !error && tell(`${listener.name} is in the bin`, () => void told(restore(listener.id))));
  return (
    <div className="mb-3">
      <div className="row-line apart">
        <span>
          <b>{listener.name}</b> <span className="soft small">on {listener.listenedOn}</span>
        </span>
        <span className="row-line">
          {listener.finishedAtMs === null && <a href={`/listen/${listener.id}`}>Listen blind</a>}
          {listener.finishedAtMs === null && <OnPhone trialId={trialId} listener={listener} />}
          <Button size="sm" variant="plain" aria-label={`Delete ${listener.name}`} onClick={binListener}>
            <Trash2 size={14} aria-hidden />
          </Button>
        </span>
      </div>
      {listener.letters ? (
        <div className="sheet-scroll">
          <table className="plain">
            <thead>
              <tr>
                <th>Heard as</th>
                <th>Was</th>
                {criteria.map((criterion) => (
                  <th key={criterion.id} className="num">
                    {criterion.name}
                  </th>
                ))}
                <th>Why</th>
              </tr>
            </thead>
            <tbody>
              {Object.entries(listener.letters).map(([letter, recordingId]) => {
                const recording = recordings.find((each) => each.id === recordingId);
                const { chain, take, setup } = placed(recording, byId, words.chains);
                const ratings = listener.ratings.filter((rating) => rating.letter === letter);
                return (
                  <tr key={letter}>
                    <td>
                      <BlindMark letter={letter} />
                    </td>
                    <td>
                      {chain && take && setup ? <PickTape take={take} setup={setup} chain={chain} levels={words.setup(setup)} /> : 'gone'}{' '}
                      <span className="mono small">{take && slateLabel(take)}</span>
                    </td>
                    {criteria.map((criterion) => (
                      <td key={criterion.id} className="num">
                        {ratings.find((rating) => rating.criterionId === criterion.id)?.points}
                      </td>
                    ))}
                    <td className="small">
                      {ratings
                        .map((rating) => rating.reason)
                        .filter(Boolean)
                        .join(' ')}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      ) : (
        <div className="small soft">
          {listener.finishedAtMs === null
            ? 'Not done yet. Which letter is which stays on the server until then.'
            : open
              ? ''
              : 'Done. The scores open once every listener of this round is done, so that nobody listens with those of others in mind.'}
        </div>
      )}
    </div>
  );
}

function NewListener({ trialId, roundId }: { trialId: string; roundId: string }) {
  const [add, { error, isLoading }] = useAddListenerMutation();
  const [name, setName] = useState('');
  const [listenedOn, setListenedOn] = useState('');
  return (
    <Form
      className="row-line border-top pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        void add({ trialId, roundId, draft: { name, listenedOn } }).then(({ data }) => data && window.location.assign(`/listen/${data.id}`));
      }}
    >
      <Form.Control className="grow w-auto" aria-label="Listener" placeholder="who listens" maxLength={120} value={name} onChange={(event) => setName(event.target.value)} />
      <Form.Control
        className="grow w-auto"
        aria-label="Listened on"
        placeholder="on what: closed headphones, buds, loudspeakers"
        maxLength={120}
        value={listenedOn}
        onChange={(event) => setListenedOn(event.target.value)}
      />
      <Button type="submit" disabled={!name.trim() || !listenedOn.trim() || isLoading}>
        Listen blind
      </Button>
      <Trouble error={error} />
    </Form>
  );
}
