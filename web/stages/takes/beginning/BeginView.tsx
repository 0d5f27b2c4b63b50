import type { Beginning, LaidOut } from '@marvet/core/contract/beginning';
import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { Chain } from '@marvet/core/domain/chain';
import { STARTING_POINTS, type StartingPointId } from '@marvet/core/domain/startingPoint';
import { useState, useSyncExternalStore } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useBeginningQuery, useLayBackMutation, useLayOutMutation } from '../../../data/beginning.ts';
import { useCriteriaQuery, useStartFromMutation } from '../../../data/records.ts';
import { useAppDispatch, useAppSelector } from '../../../data/store.ts';
import { replaced, type TrayEntry } from '../../../data/tray.ts';
import { isOpen, uploadQueueOf } from '../../../data/uploadQueue.ts';
import { useNotice } from '../../../parts/notices.tsx';
import { Progress } from '../../../parts/Progress.tsx';
import { Loaded, Trouble } from '../../../parts/states.tsx';
import { useTold } from '../../../parts/useTold.ts';
import { BeginTable } from './BeginTable.tsx';
import { type BeginChanges, beginDraft, layOutOf, NO_CHANGES, tapesOf } from './beginDraft.ts';
import { MicrophoneTable } from './MicrophoneTable.tsx';

interface BeginViewProps {
  trialId: string;
  recordings: readonly RecordingRow[];
  chains: readonly Chain[];
  /** No take is there yet. */
  isFirst: boolean;
  onDone(): void;
}

/** Begins with recordings: which of them sounded at one moment, and of which microphone each is, in one table; then they lie side by side. */
export function BeginView({ trialId, ...given }: BeginViewProps) {
  const query = useBeginningQuery(trialId);
  return <Loaded of={[query]}>{() => <BeginDesk trialId={trialId} found={query.data!} {...given} />}</Loaded>;
}

function BeginDesk({ trialId, recordings, chains, isFirst, found, onDone }: BeginViewProps & { found: Beginning }) {
  const [changes, setChanges] = useState<BeginChanges>(NO_CHANGES);
  const [judgedOn, setJudgedOn] = useState<StartingPointId | ''>('any');
  const queue = uploadQueueOf(trialId);
  const coming = useSyncExternalStore(queue.subscribe, queue.all).filter(isOpen).length;
  const criteria = useCriteriaQuery(trialId);
  const [start] = useStartFromMutation();
  const [layOut, { error, isLoading }] = useLayOutMutation();
  const [layBack] = useLayBackMutation();
  const inTray = useAppSelector((state) => state.tray.byTrial[trialId]);
  const dispatch = useAppDispatch();
  const told = useTold();
  const tell = useNotice();
  if (found.channels.length === 0) {
    return (
      <p className="soft mb-0" role="status">
        {coming > 0 ? `${coming} ${coming === 1 ? 'recording is' : 'recordings are'} on the way.` : 'Every recording lies in a take. Drop more above, and they are laid out here.'}
      </p>
    );
  }
  const draft = beginDraft(found, changes);
  const { rows, microphones, moments } = draft;
  const tapes = tapesOf(
    microphones.map(({ name }) => name),
    chains,
  );
  const twice = rows.filter((row) => row.twice);
  const listening = found.looked < found.of || coming > 0;
  const change = (patch: Partial<BeginChanges>) => setChanges({ ...changes, ...patch });
  // A question to start from is chosen before there are takes; after that criteria are added one by one.
  const asksWhat = isFirst && criteria.data?.length === 0;
  const submit = async () => {
    if (asksWhat && judgedOn !== '') {
      const { error: refused } = await told(start({ trialId, id: judgedOn }));
      if (refused) return;
    }
    const { data } = await layOut({ trialId, draft: layOutOf(draft) });
    if (!data) return;
    dispatch(replaced({ trialId, entries: firstInTray(data) }));
    const [takes, candidates] = [data.takes.length, data.candidateIds.length];
    tell(`${takes} ${takes === 1 ? 'take' : 'takes'} of ${candidates} ${candidates === 1 ? 'microphone' : 'microphones'}, the first in the tray`, () => {
      dispatch(replaced({ trialId, entries: inTray ?? [] }));
      void told(layBack({ trialId, back: data.back }));
    });
    onDone();
  };
  return (
    <div className="stack">
      {found.looked < found.of && (
        <div className="row-line small" role="status">
          <Progress share={found.looked / Math.max(1, found.of)} label="Pairs listened to" widthPx={160} /> Listening for what sounded at one moment: {found.looked} of {found.of}{' '}
          pairs
        </div>
      )}
      {found.tooMany && (
        <div className="caution" role="status">
          More than two hundred files are too many to listen for what sounded at one moment. Bring in a day or a card at a time, or say below which files are of one take.
        </div>
      )}
      {found.troubles.map((trouble) => (
        <div key={trouble} className="caution" role="status">
          {trouble}
        </div>
      ))}
      <MicrophoneTable
        microphones={microphones}
        tapes={tapes}
        onName={(read, name) => change({ names: { ...changes.names, [read]: name }, channels: renamed(changes.channels, read, name) })}
        onOtherReading={found.readings.length > 1 ? () => change({ reading: changes.reading + 1, names: {}, channels: {} }) : null}
      />
      <div className="filters">
        {asksWhat && (
          <Form.Label className="row-line mb-0">
            Judged on
            <Form.Select size="sm" className="w-auto" aria-label="Judged on" value={judgedOn} onChange={(event) => setJudgedOn(event.target.value as StartingPointId | '')}>
              {STARTING_POINTS.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
              <option value="">what is decided later</option>
            </Form.Select>
          </Form.Label>
        )}
        <Button variant={listening ? 'outline' : 'primary'} disabled={isLoading || twice.length > 0 || microphones.length === 0} onClick={() => void submit()}>
          {listening ? 'Lay them out as they are now' : 'Lay them side by side'}
        </Button>
        {twice.length > 0 && (
          <span className="alarm small">
            {twice[0]?.microphone} stands twice in a take: give {twice[0]?.fileName} another microphone or another take.
          </span>
        )}
        <span className="small soft">
          No file is altered. Distance, place and text are not known then, and that is said wherever it counts. <Link to="/methods#beginning">How they are laid out</Link>
        </span>
      </div>
      <Trouble error={error} />
      <BeginTable
        trialId={trialId}
        recordings={recordings}
        rows={rows}
        moments={moments}
        microphones={tapes}
        onMicrophone={(key, microphone) => change({ channels: { ...changes.channels, [key]: microphone } })}
        onTake={(fileId, withId) => change({ takes: { ...changes.takes, [fileId]: withId } })}
      />
    </div>
  );
}

/** The take that most microphones heard is the fairest to begin with; where they were recorded in turn, one take of each. */
function firstInTray({ takes, candidateIds }: LaidOut): TrayEntry[] {
  const entries = takes.flatMap(({ takeId, setups }) => setups.map((setup) => ({ takeId, ...setup })));
  const widest = takes.reduce((best, take) => (take.setups.length > best.setups.length ? take : best), takes[0] ?? { takeId: '', setups: [] });
  const shown =
    widest.setups.length > 1 ? entries.filter(({ takeId }) => takeId === widest.takeId) : candidateIds.flatMap((id) => entries.find(({ candidateId }) => candidateId === id) ?? []);
  return shown.map(({ takeId, setupId }) => ({ takeId, setupId }));
}

/** Channels that were given a microphone by itself follow when it gets another name. */
function renamed(channels: BeginChanges['channels'], from: string, to: string): BeginChanges['channels'] {
  return Object.fromEntries(Object.entries(channels).map(([key, microphone]) => [key, microphone === from ? to : microphone]));
}
