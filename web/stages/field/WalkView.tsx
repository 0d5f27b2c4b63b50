import { WALK_CAUTION } from '@marvet/core/domain/caution';
import type { Chain } from '@marvet/core/domain/chain';
import { slateLabel } from '@marvet/core/domain/take';
import { type WalkPress, walkNow } from '@marvet/core/domain/walk';
import { nextMarkM } from '@marvet/core/radio/nextMark';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTrialWords } from '../../data/trialData.ts';
import { Cautions } from '../../parts/Cautions.tsx';
import { type KeyHelp, NOT_BEHIND_DIALOG, useKeyHelp } from '../../parts/keys.tsx';
import { ActButton } from './ActButton.tsx';
import { RollingTime } from './RollingTime.tsx';
import { type Acting, actOn, stateText } from './takeAct.ts';
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
];

interface WalkViewProps extends Acting {
  chains: readonly Chain[];
  /** Distances that are pegged out, in metres. */
  marksM: readonly number[];
}

/** The range walk of a take: marks, legs and what was heard of each link, as large buttons; one hand and no mouse suffice. */
export function WalkView({ chains, marksM, ...acting }: WalkViewProps) {
  const { take, log } = acting;
  const words = useTrialWords(take.trialId);
  useKeyHelp(HELP);
  const press = (walked: WalkPress) => {
    acting.onHold();
    void log.write({ kind: 'walk', takeId: take.id, press: walked });
  };
  const now = walkNow(take.walk);
  const mark = nextMarkM(marksM, now);
  const turn = () => press({ what: 'leg', side: now.side === 'facing' ? 'turned' : 'facing', heading: now.heading });
  const about = () => press({ what: 'leg', side: now.side, heading: now.heading === 'out' ? 'back' : 'out' });
  useHotkeys(
    'space',
    (event) => {
      if ((event.target as HTMLElement).closest('button, summary')) return;
      event.preventDefault();
      actOn(acting);
    },
    NOT_BEHIND_DIALOG,
    [take, acting.next],
  );
  useHotkeys('m', () => mark !== null && press({ what: 'mark', distanceM: mark, by: 'peg' }), NOT_BEHIND_DIALOG, [take]);
  useHotkeys('f', turn, NOT_BEHIND_DIALOG, [take]);
  useHotkeys('o', about, NOT_BEHIND_DIALOG, [take]);
  return (
    <section className="sheet runner walk" aria-label={`Range walk, take ${slateLabel(take)}`}>
      <div className="row-line apart flex-nowrap">
        <span className="walk-slate mono">{slateLabel(take)}</span>
        <span className="runner-state" role="status">
          {stateText(take)} {take.status === 'rolling' && take.startedAtMs !== null && <RollingTime sinceMs={take.startedAtMs} />}
        </span>
      </div>
      <WalkMarkPad key={take.id} now={now} nextM={mark} onMark={(distanceM, by) => press({ what: 'mark', distanceM, by })} />
      <WalkLegs now={now} onLeg={(leg) => press({ what: 'leg', side: now.side, heading: now.heading, ...leg })} />
      <WalkLinks take={take} chains={chains} words={words} onPress={press} />
      <WalkLog take={take} chains={chains} words={words} onPress={press} onTakeBack={(entryId) => void log.write({ kind: 'unwalk', takeId: take.id, entryId })} />
      <Cautions foldable cautions={[WALK_CAUTION]} />
      <div className="runner-thumb">
        <ActButton {...acting} />
      </div>
    </section>
  );
}
