import { WALK_CAUTION } from '@marvet/core/domain/caution';
import type { Chain } from '@marvet/core/domain/chain';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { type WalkNow, type WalkPress, walkNow } from '@marvet/core/domain/walk';
import { nextMarkM } from '@marvet/core/radio/nextMark';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTrialWords } from '../../data/trialData.ts';
import { Cautions } from '../../parts/Cautions.tsx';
import { type KeyHelp, NOT_BEHIND_DIALOG, useKeyHelp } from '../../parts/keys.tsx';
import { ActButton } from './ActButton.tsx';
import { RollingTime } from './RollingTime.tsx';
import { SlateSteps } from './SlateSteps.tsx';
import { type Acting, stateText } from './takeAct.ts';
import { useActKeys } from './useActKeys.ts';
import { WalkLegs } from './WalkLegs.tsx';
import { WalkLinks } from './WalkLinks.tsx';
import { WalkLog } from './WalkLog.tsx';
import { WalkMarkPad } from './WalkMarkPad.tsx';

const HELP: KeyHelp[] = [
  { keys: 'Space', does: 'Start, stop, next slate' },
  { keys: 'M', does: 'The next mark was passed' },
  { keys: 'F', does: 'Facing, or turned' },
  { keys: 'O', does: 'Out, or back' },
  { keys: '1 – 9', does: 'A break-up of that candidate' },
  { keys: '0', does: 'A break-up of all' },
  { keys: '⇧ 1 – 9', does: 'That candidate is unusable, or back again' },
  { keys: '← →', does: 'Slate before, slate after' },
];

interface WalkViewProps extends Acting {
  chains: readonly Chain[];
  /** Distances that are pegged out, in metres. */
  marksM: readonly number[];
  onStep: (step: 1 | -1) => void;
}

/** The range walk of a take: marks, legs and what was heard of each link, as large buttons; one hand and no mouse suffice. */
export function WalkView({ chains, marksM, onStep, ...acting }: WalkViewProps) {
  const { take, log } = acting;
  const words = useTrialWords(take.trialId);
  useKeyHelp(HELP);
  /** What was pressed, as the walk stands when it is written: two presses in a hurry are two steps. */
  const press = (of: WalkPress | ((now: Take) => WalkPress | null)) => {
    acting.onHold();
    void log.write((takes) => {
      const walked = typeof of === 'function' ? of(takes.find(({ id }) => id === take.id) ?? take) : of;
      return walked && { kind: 'walk', takeId: take.id, press: walked };
    });
  };
  const leg = (changed: (now: WalkNow) => Partial<WalkNow>) =>
    press(({ walk }) => {
      const { side, heading } = walkNow(walk);
      return { what: 'leg', side, heading, ...changed({ side, heading, distanceM: null }) };
    });
  const passNext = () =>
    press(({ walk }) => {
      const distanceM = nextMarkM(marksM, walkNow(walk));
      return distanceM === null ? null : { what: 'mark', distanceM, by: 'peg' };
    });
  const now = walkNow(take.walk);
  useActKeys(acting, onStep);
  useHotkeys('m', passNext, NOT_BEHIND_DIALOG, [take]);
  useHotkeys('f', () => leg(({ side }) => ({ side: side === 'facing' ? 'turned' : 'facing' })), NOT_BEHIND_DIALOG, [take]);
  useHotkeys('o', () => leg(({ heading }) => ({ heading: heading === 'out' ? 'back' : 'out' })), NOT_BEHIND_DIALOG, [take]);
  return (
    <section className="sheet runner walk" aria-label={`Range walk, take ${slateLabel(take)}`}>
      <SlateSteps onStep={onStep}>
        <span className="walk-slate mono">{slateLabel(take)}</span>
        <span className="runner-state" role="status">
          {stateText(take)} {take.status === 'rolling' && take.startedAtMs !== null && <RollingTime sinceMs={take.startedAtMs} />}
        </span>
      </SlateSteps>
      <WalkMarkPad key={take.id} now={now} nextM={nextMarkM(marksM, now)} onNext={passNext} onMark={(distanceM, by) => press({ what: 'mark', distanceM, by })} />
      <WalkLegs now={now} onLeg={(changed) => leg(() => changed)} />
      <WalkLinks take={take} chains={chains} words={words} onPress={press} />
      <WalkLog take={take} chains={chains} words={words} onPress={press} onTakeBack={(entryId) => void log.write({ kind: 'unwalk', takeId: take.id, entryId })} />
      <Cautions foldable="always" cautions={[WALK_CAUTION]} />
      <div className="runner-thumb">
        <ActButton {...acting} />
      </div>
    </section>
  );
}
