import { exact } from '../../measure/pair/align.ts';
import type { PairTrack } from '../../measure/pair/track.ts';
import { likenesses } from './likeness.ts';
import type { SoundPrint } from './soundPrint.ts';

/** A sound with its print, and the channel that is read where the print alone does not decide. */
export interface PrintedSound {
  id: string;
  print: SoundPrint;
  track: PairTrack;
}

/** Two sounds that hold the same performance. */
export interface SoundLink {
  a: string;
  b: string;
  /** A moment t of a is at t + lagS of b. */
  lagS: number;
  /** How likely it is that they do, 0 to 1. */
  confidence: number;
  /** Whether the waves themselves agree, or only how they rise and fall. */
  exact: boolean;
}

/** Places that are tried in a pair: a sentence that comes again has several. */
const TRIED = 3;
/**
 * How far likeness stands over chance: Fisher's transform of the correlation by the root of what they have in common, times how far
 * the place stands over all others. Of recorded talkers on two microphones each, unrelated sounds lie under 12 in 99 of 100 pairs and
 * reach 31; the same words from the same recordings, set anew, reach 44; the same moment lies at 9 to 100, its middle at 35.
 */
const [LEAST_WORTH, SURE_WORTH] = [10, 45];
const [QUITE_SURE, EXACT] = [0.85, 0.99];
/** So many stretches of those that are looked at agree on one lag to 1.5 ms; by chance none do. */
const [LEAST_SUPPORT, STRETCHES] = [3, 12];

/**
 * Whether two sounds are of one moment, and how they lie: first by how they rise and fall, then by their waves. The same text said
 * again rises and falls alike, but has other waves: it is not taken for the same moment.
 * @returns null where nothing says that they are
 */
export function sameSound(a: PrintedSound, b: PrintedSound): SoundLink | null {
  const found = likenesses(a.print, b.print, TRIED)
    .map((each) => ({ ...each, worth: Math.atanh(Math.min(0.999, each.score)) * Math.sqrt(each.overlapS) * each.standsOut }))
    .filter(({ worth }) => worth >= LEAST_WORTH);
  for (const { lagS } of found) {
    const alignment = exact(b.track, a.track, lagS, STRETCHES);
    if (alignment && alignment.support >= LEAST_SUPPORT) return { a: a.id, b: b.id, lagS: alignment.latencyS, confidence: EXACT, exact: true };
  }
  const [best] = found;
  return best && best.worth >= SURE_WORTH ? { a: a.id, b: b.id, lagS: best.lagS, confidence: QUITE_SURE, exact: false } : null;
}
