import { bandEdgesHz, THIRD_OCTAVE_HZ } from '../../audio/bands.ts';
import { powerBetween } from '../../audio/powerSpectrum.ts';
import type { Warn } from '../family.ts';
import type { PairGroup } from '../report.types.ts';
import { type Alignment, align } from './align.ts';
import { commonSpectra } from './commonSpectra.ts';
import { denoiseOf } from './denoise.ts';
import { eqMatch, levelFreeRms } from './eqMatch.ts';
import type { PairTrack } from './track.ts';

/** A band counts where the voice, noise taken off, stands this far over the noise in both. */
const LEAST_OVER_NOISE_DB = 6;
/** So much of the one at least follows the other where both heard the same; by chance hardly a hundredth does. */
const LEAST_COMMON = 0.01;
/** Of few frames chance makes more follow, by their number. */
const CHANCE = 4;
/** Where a voice is, and what two microphones have in common is to be looked for. */
const COMMON_HZ = [150, 6000] as const;
const JUDGED_FROM_HZ = 100;
const JUDGED_TO_HZ = 10_000;
const NOTHING = 1e-14;
const LEAST_BANDS = 8;
const MOST_SNR_DB = 120;
/** Only of one microphone, heard twice, what differs is what was done to it. */
const ALIKE_DB = 3;
const ALIKE_SNR_DB = 6;

/** A pair with what could not be measured and why. */
export interface ComparedPair {
  pair: PairGroup;
  warnings: string[];
}

const NONE: PairGroup = {
  latencyMs: null,
  driftPpm: null,
  polarity: null,
  levelDiffDb: null,
  bandDiffDb: [],
  spectralDistanceDb: null,
  eqMatch: [],
  matchedDistanceDb: null,
  coherentSnrDb: null,
  denoise: null,
  sameNoise: null,
};

/**
 * Compares a channel with a reference of the same performance: aligned first, then level and bands of
 * the words, the equalisation that would make them alike, and how much of the channel is the reference
 * filtered and how much is something else.
 * @example measurePair(sampleTrack(lavalier, 48_000), sampleTrack(boom, 48_000), console.warn).latencyMs
 */
export function measurePair(channel: PairTrack, reference: PairTrack, warn: Warn): PairGroup {
  const alignment = align(channel, reference);
  if (!alignment) {
    warn('nothing in common with the reference was found: the pair could not be aligned');
    return NONE;
  }
  const spectra = commonSpectra(channel, reference, alignment);
  if (!spectra) {
    warn('too little is common with the reference to compare');
    return { ...NONE, ...timing(alignment) };
  }
  const { own, other, ownNoise, otherNoise, coherent, frames, binHz } = spectra;
  const topHz = Math.min(channel.sampleRateHz, reference.sampleRateHz) / 2;
  const sum = (powers: Float64Array) => powerBetween(powers, binHz, 20, topHz * 0.98);
  const between = (powers: Float64Array, [low, high]: readonly [number, number]) => powerBetween(powers, binHz, low, high);
  if (between(coherent, COMMON_HZ) < Math.max(LEAST_COMMON, CHANCE / frames) * between(own, COMMON_HZ)) {
    warn('nothing of this follows the reference, wherever it is laid: they are not the same performance, or one of them is buried in noise');
    return NONE;
  }
  const bands = THIRD_OCTAVE_HZ.map((hz) => {
    const edges = bandEdgesHz(hz);
    const [mine, theirs] = [voiceIn(between(own, edges), ownNoise && between(ownNoise, edges)), voiceIn(between(other, edges), otherNoise && between(otherNoise, edges))];
    if (edges[1] > topHz * 0.98 || mine === null || theirs === null) return { hz, difference: null, clear: false };
    return { hz, difference: 10 * Math.log10(mine.power / theirs.power), clear: mine.clear && theirs.clear };
  });
  const judged = bands.filter(
    (each): each is { hz: number; difference: number; clear: true } => each.difference !== null && each.clear && each.hz > JUDGED_FROM_HZ * 0.95 && each.hz < JUDGED_TO_HZ * 1.05,
  );
  const differences = judged.map(({ difference }) => difference);
  const enough = judged.length >= LEAST_BANDS;
  if (!ownNoise || !otherNoise) warn('there are no words with pauses between them: nothing can be said of what equalisation would do to a voice');
  else if (!enough) warn('the voice stands out of the noise in too few bands to say what equalisation would do');
  const hzOfJudged = judged.map(({ hz }) => hz);
  const match = enough ? eqMatch(hzOfJudged, differences) : null;
  const rest = sum(own) - sum(coherent);
  const voice = (powers: Float64Array, noise: Float64Array | null) => sum(powers) - (noise ? Math.min(0.9 * sum(powers), sum(noise)) : 0);
  const spectralDistanceDb = enough ? levelFreeRms(differences) : null;
  const coherentSnrDb = sum(coherent) <= 0 ? null : Math.min(MOST_SNR_DB, 10 * Math.log10(sum(coherent) / Math.max(rest, 1e-30)));
  const sameMicrophone = spectralDistanceDb !== null && spectralDistanceDb < ALIKE_DB && coherentSnrDb !== null && coherentSnrDb > ALIKE_SNR_DB;
  const taken = sameMicrophone ? denoiseOf(channel, reference, alignment) : null;
  return {
    ...timing(alignment),
    levelDiffDb: 10 * Math.log10(voice(own, ownNoise) / voice(other, otherNoise)),
    bandDiffDb: bands.map(({ difference, clear }) => (clear || !ownNoise ? difference : null)),
    spectralDistanceDb,
    eqMatch: match?.filters ?? [],
    matchedDistanceDb: match?.after ?? null,
    coherentSnrDb,
    denoise: taken === 'same noise' ? null : taken,
    sameNoise: taken === null ? null : taken === 'same noise',
  };
}

/** What the voice has in a band, the noise between words taken off, and whether it stands clear of that noise; null where there is nothing. */
function voiceIn(power: number, noise: number | null): { power: number; clear: boolean } | null {
  if (power < NOTHING) return null;
  if (noise === null) return { power, clear: false };
  const voice = Math.max(power - noise, 0.01 * power);
  return { power: voice, clear: voice >= noise * 10 ** (LEAST_OVER_NOISE_DB / 10) };
}

const timing = ({ latencyS, drift, polarity }: Alignment) => ({ latencyMs: latencyS * 1000, driftPpm: drift * 1e6, polarity });
