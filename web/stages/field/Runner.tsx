import type { Check } from '@marvet/core/chain/preflight';
import type { Caution } from '@marvet/core/domain/caution';
import type { Chain } from '@marvet/core/domain/chain';
import { EXTRA_KINDS } from '@marvet/core/domain/factor';
import type { Plan } from '@marvet/core/domain/plan';
import type { Script } from '@marvet/core/domain/script';
import { COUNTED_FLAGS, lastSetups, slateLabel, TAKE_FLAGS, type Take, type TakeFlag } from '@marvet/core/domain/take';
import type { LadderTurn } from '@marvet/core/plan/design/ladderTurn';
import { Fragment } from 'react';
import Button from 'react-bootstrap/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { Cautions } from '../../parts/Cautions.tsx';
import { type KeyHelp, NOT_BEHIND_DIALOG, useKeyHelp } from '../../parts/keys.tsx';
import { PickTape } from '../../parts/PickTape.tsx';
import { ActButton } from './ActButton.tsx';
import { NotChecked } from './NotChecked.tsx';
import { RollingTime } from './RollingTime.tsx';
import { SlateSteps } from './SlateSteps.tsx';
import { Switches } from './Switches.tsx';
import { TalkerPrompt } from './TalkerPrompt.tsx';
import { type Acting, stateText } from './takeAct.ts';
import { useActKeys } from './useActKeys.ts';

const TOLD_KINDS = ['distance', 'windscreen', ...EXTRA_KINDS] as const;
const FLAG_KEYS: Record<TakeFlag, string> = { wind: 'w', traffic: 't', 'break-up': 'b', handling: 'h', spoiled: 'x' };
const FLAG_NAMES: Record<TakeFlag, string> = { wind: 'Wind', traffic: 'Traffic', 'break-up': 'Break-up', handling: 'Handling', spoiled: 'Spoiled' };
const HELP: KeyHelp[] = [
  { keys: 'Space', does: 'Start, stop, next slate' },
  ...TAKE_FLAGS.map((flag) => ({ keys: FLAG_KEYS[flag].toUpperCase(), does: COUNTED_FLAGS.includes(flag) ? 'One more break-up' : `Flag ${flag}, or take the flag back` })),
  { keys: 'R', does: 'Do the take again, under the next pass' },
  { keys: 'S', does: 'Skip, or take up again' },
  { keys: 'U', does: 'The start was an accident: the take was not started' },
  { keys: 'N', does: 'Note' },
  { keys: 'P', does: 'Show the script to the talker' },
  { keys: '← →', does: 'Slate before, slate after' },
];

interface RunnerProps extends Acting {
  chains: Chain[];
  script: Script | undefined;
  cautions: Caution[];
  plan: Plan;
  turn: LadderTurn | null;
  /** Pre-flight checks of these chains that nobody ticked. */
  unchecked: Check[];
  onStep: (step: 1 | -1) => void;
  onRedo: () => void;
}

/** One take: its slate, its setup, start and stop, flags, note and readings. One hand and no mouse suffice. */
export function Runner({ chains, script, cautions, plan, turn, unchecked, onStep, onRedo, ...acting }: RunnerProps) {
  const { take, log, onHold } = acting;
  const words = useTrialWords(useTrialId());
  useKeyHelp(HELP);
  // Of setups that followed each other the one that holds now is meant.
  const now = lastSetups(take);
  const onlyOne = now.length === 1 ? now.map((setup) => setup.id) : [];
  const flag = (each: TakeFlag) => {
    onHold();
    void log.write((takes) => {
      const flagged = takes.find((other) => other.id === take.id)?.flags.some((mark) => mark.flag === each);
      // A break-up is counted: each press is one more. All other flags are on or off.
      return flagged && !COUNTED_FLAGS.includes(each) ? { kind: 'unflag', takeId: take.id, flag: each } : { kind: 'flag', takeId: take.id, flag: each, setupIds: onlyOne };
    });
  };
  const unstart = () => void log.write({ kind: 'unstart', takeId: take.id });
  const skip = () => take.status !== 'rolling' && take.status !== 'done' && void log.write({ kind: take.status === 'skipped' ? 'unskip' : 'skip', takeId: take.id });
  useActKeys(acting, onStep);
  useHotkeys(
    'w, t, b, h, x',
    (_event, handler) => {
      const hit = TAKE_FLAGS.find((each) => FLAG_KEYS[each] === handler.keys?.join(''));
      if (hit) flag(hit);
    },
    NOT_BEHIND_DIALOG,
    [take],
  );
  useHotkeys('u', () => take.status === 'rolling' && unstart(), NOT_BEHIND_DIALOG, [take]);
  useHotkeys('r', () => take.status === 'done' && onRedo(), NOT_BEHIND_DIALOG, [take]);
  useHotkeys('s', () => skip(), NOT_BEHIND_DIALOG, [take]);
  return (
    <section className="sheet runner" aria-label={`Take ${slateLabel(take)}`}>
      <SlateSteps onStep={onStep}>
        <span className="runner-state" role="status">
          {stateText(take)} {take.status === 'rolling' && take.startedAtMs !== null && <RollingTime sinceMs={take.startedAtMs} />}
        </span>
      </SlateSteps>
      <div className="runner-head">
        <div className="slate" aria-hidden>
          {slateLabel(take)}
        </div>
        <div className="runner-tapes">
          {now.map((setup) => {
            const chain = chains.find((each) => each.id === setup.candidateId);
            return chain && <PickTape key={setup.id} take={take} setup={setup} chain={chain} levels={words.setup(setup)} width={56} />;
          })}
        </div>
      </div>
      <dl className="facts runner-facts">
        <dt>Station</dt>
        <dd>{words.label('station', take.condition.station)}</dd>
        {TOLD_KINDS.map((kind) => {
          const levelId = take.condition[kind];
          return (
            levelId !== undefined && (
              <Fragment key={kind}>
                <dt>{words.kindName(kind)}</dt>
                <dd>{words.label(kind, levelId)}</dd>
              </Fragment>
            )
          );
        })}
        <dt>Script</dt>
        <dd>
          {words.label('script', take.condition.script)} {script?.talker && <span className="soft fw-normal">{script.talker}</span>}
        </dd>
      </dl>
      {turn && (
        <p className="ladder-turn mb-0">
          Rung {words.label(plan.design.ladder.kind, turn.rungId)}: now <b>{turn.passage === 'speech' ? 'with speech' : 'without speech'}</b>
          {turn.other &&
            (turn.other.status === 'planned'
              ? `, then ${slateLabel(turn.other)} ${turn.passage === 'speech' ? 'without' : 'with'}`
              : `; ${slateLabel(turn.other)} is ${turn.other.status}`)}
        </p>
      )}
      {script && (
        <div className="row-line flex-nowrap align-items-start runner-script">
          <p className="runner-text grow">{script.text || script.name}</p>
          <TalkerPrompt key={script.id} script={script} label={`${slateLabel(take)} ${script.name}`} />
        </div>
      )}
      {take.status === 'rolling' && <Switches key={take.id} take={take} plan={plan} words={words} log={log} />}
      <Cautions cautions={cautions} foldable="always" />
      {/* Once it rolls nothing can be ticked any more. */}
      {take.status !== 'rolling' && <NotChecked checks={unchecked} />}
      <div className="runner-thumb">
        <div className="flag-grid">
          {TAKE_FLAGS.map((each) => (
            <Button
              key={each}
              variant="outline"
              aria-pressed={take.flags.some((mark) => mark.flag === each)}
              className={take.flags.some((mark) => mark.flag === each) ? `flagged ${each}` : ''}
              onClick={() => flag(each)}
            >
              {FLAG_NAMES[each]} {countOf(take, each)}
              <kbd>{FLAG_KEYS[each].toUpperCase()}</kbd>
            </Button>
          ))}
          {take.status === 'rolling' ? (
            <Button variant="outline" onClick={unstart}>
              Not started<kbd>U</kbd>
            </Button>
          ) : take.status === 'done' ? (
            <Button variant="outline" onClick={onRedo}>
              Do again<kbd>R</kbd>
            </Button>
          ) : (
            <Button variant="outline" onClick={skip}>
              {take.status === 'skipped' ? 'Take up' : 'Skip'}
              <kbd>S</kbd>
            </Button>
          )}
        </div>
        <ActButton {...acting} />
      </div>
    </section>
  );
}

function countOf(take: Take, flag: TakeFlag): string {
  const count = take.flags.filter((mark) => mark.flag === flag).length;
  return COUNTED_FLAGS.includes(flag) && count > 0 ? String(count) : '';
}
