import type { Take } from '@marvet/core/domain/take';
import type { TrialWords } from '../../data/trialData.ts';
import { TapeMark } from '../../parts/TapeMark.tsx';

interface SetupPicksProps {
  take: Take;
  words: TrialWords;
  picked: readonly string[];
  /** What pressing a tape says, before the name of its setup. */
  says: string;
  onToggle: (setupId: string) => void;
}

/** The tapes of a take where several run: one press on each says whose something was. */
export function SetupPicks({ take, words, picked, says, onToggle }: SetupPicksProps) {
  if (take.setups.length <= 1) return null;
  return take.setups.map((setup) => {
    const chain = words.chains.get(setup.candidateId);
    return (
      chain && (
        <button
          key={setup.id}
          type="button"
          className="pick-tape"
          aria-pressed={picked.includes(setup.id)}
          aria-label={`${says} ${[chain.name, words.setup(setup)].filter(Boolean).join(', ')}`}
          onClick={() => onToggle(setup.id)}
        >
          <TapeMark tape={chain.tape} name="" width={44} />
        </button>
      )
    );
  });
}
