import type { Chain } from '@marvet/core/domain/chain';
import { lastSetups, type Take, type TakeSetup } from '@marvet/core/domain/take';
import { type LinkState, linkNow, type WalkPress } from '@marvet/core/domain/walk';
import Button from 'react-bootstrap/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import type { TrialWords } from '../../data/trialData.ts';
import { NOT_BEHIND_DIALOG } from '../../parts/keys.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

interface WalkLinksProps {
  take: Take;
  chains: readonly Chain[];
  words: TrialWords;
  onPress: (press: WalkPress | ((now: Take) => WalkPress)) => void;
}

/** What is heard of each link, as the largest buttons of the walk; where several run, one row for all of them comes first. */
export function WalkLinks({ take, chains, words, onPress }: WalkLinksProps) {
  const setupsNow = lastSetups(take);
  const heard = (setups: readonly TakeSetup[], state: LinkState) => onPress({ what: 'link', setupIds: setups.map(({ id }) => id), state });
  const stateOf = (setups: readonly TakeSetup[]) => (setups.every(({ id }) => linkNow(take.walk, id) === 'unusable') ? 'unusable' : null);
  const swap = (setups: readonly TakeSetup[]) =>
    onPress(({ walk }) => ({
      what: 'link',
      setupIds: setups.map(({ id }) => id),
      state: setups.every(({ id }) => linkNow(walk, id) === 'unusable') ? 'back again' : 'unusable',
    }));
  useHotkeys(
    '1, 2, 3, 4, 5, 6, 7, 8, 9',
    (event) => {
      const setup = setupsNow[Number(event.code.slice(-1)) - 1];
      if (setup) heard([setup], 'broke up');
    },
    NOT_BEHIND_DIALOG,
    [take],
  );
  useHotkeys('0', () => heard(setupsNow, 'broke up'), NOT_BEHIND_DIALOG, [take]);
  useHotkeys(
    'shift+1, shift+2, shift+3, shift+4, shift+5, shift+6, shift+7, shift+8, shift+9',
    (event) => {
      const setup = setupsNow[Number(event.code.slice(-1)) - 1];
      if (setup) swap([setup]);
    },
    NOT_BEHIND_DIALOG,
    [take],
  );
  const counted = (setup: TakeSetup) => take.walk.filter((entry) => entry.what === 'link' && entry.state === 'broke up' && entry.setupIds.includes(setup.id)).length;
  const row = (setups: readonly TakeSetup[], name: string, count: number | null) => (
    <>
      <Button variant="outline" className="walk-broke" aria-label={`${name} broke up`} onClick={() => heard(setups, 'broke up')}>
        Broke up {count !== null && count > 0 && <b className="mono">{count}</b>}
      </Button>
      <Button
        variant="outline"
        className={stateOf(setups) === 'unusable' ? 'walk-unusable' : ''}
        aria-pressed={stateOf(setups) === 'unusable'}
        aria-label={stateOf(setups) === 'unusable' ? `${name} is back again` : `${name} is unusable`}
        onClick={() => swap(setups)}
      >
        {stateOf(setups) === 'unusable' ? 'Back again' : 'Unusable'}
      </Button>
    </>
  );
  return (
    <ul className="walk-links" aria-label="What is heard">
      {setupsNow.length > 1 && (
        <li>
          <span className="walk-whose">all</span>
          {row(setupsNow, 'All of them', null)}
        </li>
      )}
      {setupsNow.map((setup) => {
        const chain = chains.find(({ id }) => id === setup.candidateId);
        const name = [chain?.name ?? 'A candidate', words.setup(setup)].filter(Boolean).join(', ');
        return (
          <li key={setup.id}>
            <span className="walk-whose" title={name}>
              {chain && <TapeMark tape={chain.tape} name="" width={48} />}
            </span>
            {row([setup], name, counted(setup))}
          </li>
        );
      })}
    </ul>
  );
}
