import type { EffectWords } from '@marvet/core/decide/effects/sayEffects';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';

/** How what was varied, and its levels, are called in this trial. */
export function useEffectWords(): EffectWords {
  const words = useTrialWords(useTrialId());
  return {
    term: (term) => (term === 'listener' ? 'Listener' : term === 'candidate' ? 'Candidate' : words.kindName(term)),
    level: (term, level) => (term === 'listener' ? level : term === 'candidate' ? (words.chains.get(level)?.name ?? 'gone') : words.label(term, level)),
  };
}
