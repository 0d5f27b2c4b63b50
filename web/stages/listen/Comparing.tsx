import type { BlindRound } from '@marvet/core/domain/round';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import { troubleText } from '../../data/api.ts';
import { useCompareMutation, useFinishMutation } from '../../data/judging.ts';
import { Progress } from '../../parts/Progress.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';
import { ClipPlayer } from './ClipPlayer.tsx';
import { calledLetter } from './kindWords.ts';
import { RestHint } from './RestHint.tsx';
import { Unheard } from './Unheard.tsx';
import type { PlayerHabit } from './useClips.ts';
import { WHILE_CHOOSING } from './whileChoosing.ts';

/** One listener's comparisons, one after the other. Nothing tells how they are doing. */
export function Comparing({ round }: { round: BlindRound }) {
  const [habit, setHabit] = useState<PlayerHabit>();
  const { next, comparisons, listenerId } = round;
  const done = next ? next.number : (comparisons ?? 0);
  return (
    <>
      <div className="row-line apart">
        <b>{next ? `Comparison ${next.number + 1}${comparisons === null ? '' : ` of ${comparisons}`}` : 'All comparisons are answered'}</b>
        {comparisons !== null && <Progress share={done / comparisons} label="Comparisons answered" />}
      </div>
      <RestHint />
      {next && <OneComparison key={next.number} round={round} next={next} habit={habit} onHabit={setHabit} />}
      <Finish listenerId={listenerId} none={next?.number === 0} left={comparisons === null ? null : comparisons - done} />
    </>
  );
}

interface OneComparisonProps {
  round: BlindRound;
  next: NonNullable<BlindRound['next']>;
  habit: PlayerHabit | undefined;
  onHabit(habit: PlayerHabit): void;
}

function OneComparison({ round: { listenerId, kind, criteria, matchedLufs }, next: { number, letters }, habit, onHabit }: OneComparisonProps) {
  const [compare, { error, isLoading }] = useCompareMutation();
  // Without a criterion there is one question, which has a right answer.
  const asked: { id: string | null; question: string; help: string }[] =
    kind === 'better'
      ? criteria.map(({ id, name, remark }) => ({ id, question: name, help: remark }))
      : [{ id: null, question: kind === 'same' ? 'X is' : 'The odd one is', help: 'If you cannot tell, guess: that is part of the test.' }];
  const [picks, setPicks] = useState<ReadonlyMap<string | null, string>>(new Map());
  const [played, setPlayed] = useState<readonly string[]>([]);
  const answers = kind === 'odd' ? letters : letters.slice(0, 2);
  const complete = asked.every(({ id }) => picks.has(id)) && !isLoading;
  const pick = (id: string | null, letter: string) => setPicks(new Map([...picks, [id, letter]]));
  const send = () => {
    if (complete) void compare({ listenerId, number, choice: { picks: asked.map(({ id }) => ({ criterionId: id, letter: picks.get(id) as string })) } });
  };
  useHotkeys(
    '1,2,3',
    (_event, { keys }) => {
      const letter = answers[Number(keys?.join('')) - 1];
      if (letter) pick(asked[0]?.id ?? null, letter);
    },
    WHILE_CHOOSING,
    [picks, answers],
  );
  useHotkeys('enter', (event) => !(event.target as HTMLElement).closest('button') && send(), WHILE_CHOOSING, [picks, isLoading]);
  const clips = letters.map((letter) => ({ letter: calledLetter(kind, letter), said: ' ' }));
  return (
    <>
      <ClipPlayer
        clips={clips}
        source={{ pieces: `/api/listen/${listenerId}/comparisons/${number}/pieces` }}
        matchedLufs={matchedLufs}
        {...(habit ? { habit } : {})}
        onHabit={onHabit}
        onPlayed={setPlayed}
      />
      <Sheet title={QUESTIONS[kind] ?? ''}>
        {asked.map(({ id, question, help }) => (
          <div key={id ?? 'told'} className="mb-3">
            <div className="row-line apart mb-1">
              <b>{question}</b>
              <span className="small soft">{help}</span>
            </div>
            <div className="points picks" role="radiogroup" aria-label={question}>
              {answers.map((letter) => (
                <label key={letter}>
                  <input type="radio" className="visually-hidden" name={`pick-${id}`} checked={picks.get(id) === letter} onChange={() => pick(id, letter)} />
                  {letter}
                </label>
              ))}
            </div>
          </div>
        ))}
        {error && troubleText(error) && <Trouble error={error} />}
        <div className="row-line apart">
          <span className="small soft">
            {asked.length === 1 && `Keys: ${answers.map((_, at) => at + 1).join(', ')}, then Enter. `}What you answered stays.
            <Unheard letters={clips.flatMap(({ letter }) => (played.includes(letter) ? [] : letter))} />
          </span>
          <Button size="lg" disabled={!complete} onClick={send}>
            Next
          </Button>
        </div>
      </Sheet>
    </>
  );
}

const QUESTIONS: Partial<Record<BlindRound['kind'], string>> = {
  better: 'Which of the two is better?',
  same: 'Is X the recording that A is, or the one that B is?',
  odd: 'Two of the three are one recording. Which is the other?',
};

interface FinishProps {
  listenerId: string;
  /** Nothing was answered yet. */
  none: boolean;
  /** Comparisons that are left; null where there is no given number. */
  left: number | null;
}

function Finish({ listenerId, none, left }: FinishProps) {
  const [finish, { error, isLoading }] = useFinishMutation();
  return (
    <>
      {error && troubleText(error) && <Trouble error={error} />}
      <div className="row-line apart">
        <span className="soft">
          {left === null ? 'Go on as long as you hear well; the more, the surer.' : left > 0 ? `${left} to go. You may close the page and go on later.` : ''}
        </span>
        {(left === null || left === 0) && (
          <Button size="lg" variant={left === null ? 'outline' : 'primary'} disabled={none || isLoading} onClick={() => void finish(listenerId)}>
            Finish
          </Button>
        )}
      </div>
    </>
  );
}
