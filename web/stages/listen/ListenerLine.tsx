import type { Listener, Round } from '@marvet/core/domain/round';
import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import { useBinListenerMutation, useRestoreListenerMutation } from '../../data/judging.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';
import { OnPhone } from './OnPhone.tsx';

interface ListenerLineProps {
  trialId: string;
  round: Round;
  listener: Listener;
  /** What is shown once identities are open. */
  children: ReactNode;
}

/** A listener of a round: who, on what, how far, and the ways in and out. */
export function ListenerLine({ trialId, round, listener, children }: ListenerLineProps) {
  const mayListen = listener.finishedAtMs === null && round.closedAtMs === null;
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
          {mayListen && <a href={`/listen/${listener.id}`}>Listen blind</a>}
          {mayListen && <OnPhone trialId={trialId} listener={listener} />}
          <Button size="sm" variant="plain" aria-label={`Delete ${listener.name}`} onClick={binListener}>
            <Trash2 size={14} aria-hidden />
          </Button>
        </span>
      </div>
      {listener.letters ? children : <div className="small soft">{waitText(round, listener)}</div>}
    </div>
  );
}

function waitText({ kind, opens, closedAtMs }: Round, { finishedAtMs, compared: [answered, of], scored }: Listener): string {
  if (closedAtMs !== null) return 'Was not done when the round was closed: what they gave does not count.';
  if (finishedAtMs !== null && opens === 'closed') return 'Done. What was answered opens once you close the round.';
  if (finishedAtMs !== null) return 'Done. What was answered opens once every listener of this round is done, so that nobody listens with the answers of others in mind.';
  if (kind === 'scores') return `${scored[0]} of ${scored[1]} scores given. Which letter is which stays on the server until the end.`;
  return `${answered} ${of === null ? '' : `of ${of} `}answered. Which clip is which stays on the server until the end.`;
}
