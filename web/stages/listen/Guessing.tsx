import type { BlindRound } from '@marvet/core/domain/round';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { troubleText } from '../../data/api.ts';
import { useFinishMutation, useGuessMutation } from '../../data/judging.ts';
import { Sheet, Trouble } from '../../parts/states.tsx';
import { BlindMark } from '../../parts/TapeMark.tsx';

interface GuessingProps {
  round: BlindRound;
  candidates: NonNullable<BlindRound['guess']>;
}

/** Which clip is which, guessed once the scores are closed: each candidate once. */
export function Guessing({ round: { listenerId, letters }, candidates }: GuessingProps) {
  const [taken, setTaken] = useState<Record<string, string>>({});
  const [guess, { error, isLoading }] = useGuessMutation();
  const [finish, { error: notFinished, isLoading: finishing }] = useFinishMutation();
  const complete = letters.every((letter) => taken[letter]);
  const take = (letter: string, candidateId: string) => {
    // One that was taken for another clip before is that one's no longer.
    const others = Object.fromEntries(Object.entries(taken).filter(([other, id]) => other !== letter && id !== candidateId));
    setTaken(candidateId ? { ...others, [letter]: candidateId } : others);
  };
  const keep = async () => {
    const { error: failed } = await guess({ listenerId, guess: { candidateIds: taken } });
    if (!failed) await finish(listenerId);
  };
  if (candidates.length === 0)
    return (
      <Sheet title="Nothing to guess" aside={<span className="small soft">Your scores are closed.</span>}>
        <p>Some of these clips were hidden checks: one was there twice, or was made worse on purpose. So there is nothing to guess.</p>
        {notFinished && <Trouble error={notFinished} />}
        <Button size="lg" disabled={finishing} onClick={() => void finish(listenerId)}>
          Finish
        </Button>
      </Sheet>
    );
  return (
    <Sheet title="Which is which?" aside={<span className="small soft">Your scores are closed. Guesses do not count in the verdict.</span>}>
      {letters.map((letter) => (
        <div key={letter} className="row-line mb-2">
          <BlindMark letter={letter} />
          <Form.Select className="w-auto grow" aria-label={`Clip ${letter} is`} value={taken[letter] ?? ''} onChange={(event) => take(letter, event.target.value)}>
            <option value="">not guessed yet</option>
            {candidates.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Form.Select>
        </div>
      ))}
      {[error, notFinished].map((each) => each && troubleText(each) && <Trouble key={troubleText(each)} error={each} />)}
      <div className="row-line apart">
        <Button variant="outline" disabled={finishing} onClick={() => void finish(listenerId)}>
          Finish without guessing
        </Button>
        <Button size="lg" disabled={!complete || isLoading || finishing} onClick={() => void keep()}>
          Keep the guess and finish
        </Button>
      </div>
    </Sheet>
  );
}
