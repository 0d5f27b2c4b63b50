import type { PairedKind, RoundKind } from '@marvet/core/domain/round';

/** What a kind of round asks, in short. */
export const KIND_WORDS: Record<RoundKind, string> = {
  scores: 'points for every clip',
  ranked: 'clips put in order',
  better: 'which of two is better',
  same: 'is X A or B',
  odd: 'which of three is the odd one',
};

/** Comparisons that a round begins with: enough to find what is heard in some two of three. */
export const USUAL_COMPARISONS: Record<PairedKind, number> = { better: 12, same: 16, odd: 18 };

/** What a kind is for, where it is chosen. */
export const KIND_HELP: Record<RoundKind, string> = {
  scores: 'How good each is, with the reasons. These points go into the verdict.',
  ranked: 'Which is best, next best and so on, by drag. Quicker than points, and says nothing of how far apart they are.',
  better: 'Two at a time, each two as often one way round as the other. Finds what a scale is too coarse for.',
  same: 'Whether a difference is heard at all. A and B stay, X is thrown anew each time.',
  odd: 'Whether a difference is heard at all, without learning A and B first. Two of three are one recording.',
};

/** Letters of a comparison as they are called: of "is X A or B" the third is X. */
export const calledLetter = (kind: RoundKind, letter: string): string => (kind === 'same' && letter === 'C' ? 'X' : letter);
