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
          {mayListen && listener.away && (
            <a href={`/api/trials/${trialId}/rounds/${round.id}/away/${listener.id}/page.zip`} download>
              Fetch the page to send
            </a>
          )}
          {mayListen && !listener.away && <a href={`/listen/${listener.id}`}>Listen blind</a>}
          {mayListen && !listener.away && <OnPhone trialId={trialId} listener={listener} />}
          <Button size="sm" variant="plain" aria-label={`Delete ${listener.name}`} onClick={binListener}>
            <Trash2 size={14} aria-hidden />
          </Button>
        </span>
      </div>
      {listener.awayKey && (
        <p className="small mb-1">
          The key that opens the names on their page: <code>{keyText(listener.awayKey)}</code>
        </p>
      )}
      {listener.letters ? children : <div className="small soft">{waitText(round, listener)}</div>}
    </div>
  );
}

/** A key in groups of four, as it is read aloud and typed. */
const keyText = (key: string) => key.match(/.{4}/g)?.join(' ');

function waitText({ kind, opens, closedAtMs }: Round, { finishedAtMs, compared: [answered, of], scored, away }: Listener): string {
  if (closedAtMs !== null) return 'Was not done when the round was closed: what they gave does not count.';
  if (finishedAtMs !== null && opens === 'closed') return 'Done. What was answered opens once you close the round.';
  if (finishedAtMs !== null) return 'Done. What was answered opens once every listener of this round is done, so that nobody listens with the answers of others in mind.';
  if (away) return 'Listens by a page that is sent; the answers are not read in yet. Which letter is which is locked in the page.';
  if (kind === 'ranked') return `${scored[0]} of ${scored[1]} orders given. Which letter is which stays on the server until the end.`;
  if (kind === 'scores') return `${scored[0]} of ${scored[1]} scores given. Which letter is which stays on the server until the end.`;
  return `${answered} ${of === null ? '' : `of ${of} `}answered. Which clip is which stays on the server until the end.`;
}
