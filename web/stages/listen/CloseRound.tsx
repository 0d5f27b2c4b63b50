import type { Round } from '@marvet/core/domain/round';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useCloseRoundMutation } from '../../data/judging.ts';
import { dateTimeText } from '../../parts/dateText.ts';
import { Trouble } from '../../parts/states.tsx';

/** Closes a round by hand: what was seen cannot be unseen, so that it is asked once more. */
export function CloseRound({ trialId, round }: { trialId: string; round: Round }) {
  const [close, { error, isLoading }] = useCloseRoundMutation();
  const [asked, setAsked] = useState(false);
  if (round.closedAtMs !== null) return <div className="small soft">Closed {dateTimeText(round.closedAtMs)}.</div>;
  const open = round.listeners.filter(({ finishedAtMs }) => finishedAtMs === null).length;
  return (
    <div className="row-line apart border-top pt-3 mt-3">
      <span className="small soft">
        {asked
          ? `Identities open for good, and nobody listens in this round any more.${open > 0 ? ` ${open} ${open === 1 ? 'listener is' : 'listeners are'} not done: what they gave does not count.` : ''}`
          : 'Identities stay closed until you close the round.'}
      </span>
      <Trouble error={error} />
      {asked ? (
        <span className="row-line">
          <Button variant="outline" onClick={() => setAsked(false)}>
            Not yet
          </Button>
          <Button disabled={isLoading} onClick={() => void close({ trialId, roundId: round.id })}>
            Close it and open identities
          </Button>
        </span>
      ) : (
        <Button variant="outline" onClick={() => setAsked(true)}>
          Close the round
        </Button>
      )}
    </div>
  );
}
