import { type BlindRound, isPaired } from '@marvet/core/domain/round';
import { signed } from '@marvet/core/measure/catalogue';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { troubleText } from '../../data/api.ts';
import { useCloseScoresMutation, useFinishMutation, useRoundQuery } from '../../data/judging.ts';
import { RailFoot } from '../../parts/RailFoot.tsx';
import { Loaded, Sheet, Trouble } from '../../parts/states.tsx';
import { ClipOrderSheet } from './ClipOrderSheet.tsx';
import { ClipPlayer } from './ClipPlayer.tsx';
import { Comparing } from './Comparing.tsx';
import { Guessing } from './Guessing.tsx';
import { RestHint } from './RestHint.tsx';
import { ScoreSheet } from './ScoreSheet.tsx';
import { Unheard } from './Unheard.tsx';

/**
 * The page of one listener. It stands outside the trial and asks only for the round, so that nothing it
 * receives can name a candidate.
 */
export function Blind({ listenerId }: { listenerId: string }) {
  const query = useRoundQuery(listenerId);
  useEffect(() => {
    document.title = 'Blind listening';
    return () => {
      document.title = 'Marvet';
    };
  }, []);
  return (
    <main className="blind">
      <Loaded of={[query]}>
        {() => (
          <>
            <div className="row-line apart">
              <div>
                <h1>Blind listening</h1>
                <div className="small soft">
                  {query.data!.listenerName}, on {query.data!.listenedOn}. All clips at {signed(query.data!.matchedLufs, 1)} LUFS
                  {query.data!.matchedLufs < query.data!.targetLufs - 0.05 && `, held below ${signed(query.data!.targetLufs, 1)} by the true-peak ceiling of one of them`}.
                </div>
              </div>
              <RailFoot />
            </div>
            {query.data!.finished ? (
              <Finished round={query.data!} />
            ) : query.data!.closed ? (
              <Closed />
            ) : isPaired(query.data!.kind) ? (
              <Comparing round={query.data!} />
            ) : (
              <Round round={query.data!} />
            )}
          </>
        )}
      </Loaded>
    </main>
  );
}

function Round({ round }: { round: BlindRound }) {
  const ranked = round.kind === 'ranked';
  const wanted = ranked ? round.criteria.length : round.letters.length * round.criteria.length;
  const open = wanted - (ranked ? Object.keys(round.orders).length : round.ratings.length);
  const rated = new Set(round.ratings.map(({ letter }) => letter));
  const [played, setPlayed] = useState<readonly string[]>([]);
  const clips = round.letters.map((letter) => ({ letter, said: rated.has(letter) ? 'scored' : ' ' }));
  return (
    <>
      <RestHint />
      <ClipPlayer clips={clips} source={{ pieces: `/api/listen/${round.listenerId}/pieces` }} matchedLufs={round.matchedLufs} onPlayed={setPlayed} />
      {ranked &&
        round.criteria.map((criterion) => (
          <ClipOrderSheet key={criterion.id} listenerId={round.listenerId} letters={round.letters} criterion={criterion} given={round.orders[criterion.id]} />
        ))}
      {!ranked &&
        !round.guess &&
        round.criteria.map((criterion) => (
          <ScoreSheet
            key={criterion.id}
            listenerId={round.listenerId}
            letters={round.letters}
            criterion={criterion}
            ratings={round.ratings.filter((rating) => rating.criterionId === criterion.id)}
          />
        ))}
      {round.guess ? (
        <Guessing round={round} candidates={round.guess} />
      ) : (
        <Ending round={round} open={open} wanted={wanted} unheard={round.letters.filter((letter) => !played.includes(letter))} />
      )}
    </>
  );
}

function Ending({ round, open, wanted, unheard }: { round: BlindRound; open: number; wanted: number; unheard: readonly string[] }) {
  const given = round.kind === 'ranked' ? 'orders' : 'scores';
  const [finish, { error, isLoading }] = useFinishMutation();
  const [close, { error: notClosed, isLoading: closing }] = useCloseScoresMutation();
  return (
    <>
      {[error, notClosed].map((each) => each && troubleText(each) && <Trouble key={troubleText(each)} error={each} />)}
      <div className="row-line apart">
        <span className="soft">
          {open === 0
            ? `All ${given} are in. Finishing shows which letter was which; after that they cannot change.`
            : `${open} of ${wanted} ${given} ${open === 1 ? 'is' : 'are'} open.`}
          <Unheard letters={unheard} />
        </span>
        <span className="row-line">
          {round.guessable && open === 0 && (
            <Button size="lg" variant="outline" disabled={closing || isLoading} onClick={() => void close(round.listenerId)}>
              Guess which is which
            </Button>
          )}
          <Button size="lg" disabled={open > 0 || isLoading || closing} onClick={() => void finish(round.listenerId)}>
            Finish
          </Button>
        </span>
      </div>
    </>
  );
}

function Finished({ round: { kind, opens } }: { round: BlindRound }) {
  return (
    <Sheet title="Done">
      <p className="mb-0">
        Thank you. What you answered is kept, and the identities open in the trial, under Listen{kind === 'scores' ? ' and Verdict' : ''}, once{' '}
        {opens === 'closed' ? 'whoever made this round closes it' : 'every listener of this round is done'}. You may close this page.
      </p>
    </Sheet>
  );
}

function Closed() {
  return (
    <Sheet title="Closed">
      <p className="mb-0">This round was closed by whoever made it before you were done. What you gave is kept, and does not count.</p>
    </Sheet>
  );
}
