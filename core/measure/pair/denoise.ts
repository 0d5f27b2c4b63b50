import { bandEdgesHz, THIRD_OCTAVE_HZ } from '../../audio/bands.ts';
import { filled } from '../../audio/filled.ts';
import type { Denoise } from '../report.types.ts';
import { quantile } from '../tracks/frames.ts';
import type { Alignment } from './align.ts';
import { BothTransform } from './bothSpectra.ts';
import { commonStretches } from './commonSpectra.ts';
import { denoiseMoments, type Frame } from './denoiseMoments.ts';
import type { PairTrack } from './track.ts';

const FRAME_S = 0.021;
const LOWEST_HZ = 100;
const HIGHEST_HZ = 10_000;
/** Of the reference's frames the quietest are noise, when the loud ones stand so far over them. */
const NOISE_SHARE = 0.15;
const LEAST_CONTRAST_DB = 15;
/** Loud frames, and a band's moments in which noise has no part. */
const LOUD_DB = 8;
const CLEAR_DB = 20;
/** The faint ends of words: over the noise by this, under the loud frames by that. */
const EDGE_OVER_NOISE_DB = 8;
const EDGE_UNDER_LOUD_DB = 15;
const LEAST_FRAMES = 20;
/** Less than this is the same noise. */
const SAME_NOISE_DB = 1.5;
/** Noise that was processed still follows what it was made from; that of another microphone does not. */
const COHERENT_TO_HZ = 1000;
const LEAST_COHERENCE = 0.1;
/** A part of a spectrum that is gone altogether. */
const NOTHING = 1e-16;

/**
 * What was done to the noise and the voice of a reference, frame by frame and bin by bin. All is told against the
 * strongest moments of the voice, which no noise reduction touches, so that gain does not count. Warble is
 * told by the kurtosis of the noise's power spectrum after against before (Uemura et al., Automatic
 * optimization scheme of spectral subtraction based on musical noise assessment, IWAENC 2008).
 * @returns 'same noise' where nothing was taken of it; null where there is too little of noise or voice to judge
 */
export function denoiseOf(channel: PairTrack, reference: PairTrack, alignment: Alignment): Denoise | 'same noise' | null {
  const rateHz = reference.sampleRateHz;
  const size = 2 ** Math.round(Math.log2(rateHz * FRAME_S));
  const frames = spectraOf(channel, reference, alignment, size);
  const levels = Float64Array.from(frames, ({ level }) => level).sort();
  const [quiet, loud] = [quantile(levels, NOISE_SHARE), quantile(levels, 0.95)];
  if (frames.length < LEAST_FRAMES || loud - quiet < LEAST_CONTRAST_DB || quiet < -140) return null;
  const noise = frames.filter(({ level }) => level <= quiet + 1);
  const words = frames.filter(({ level }) => level > loud - LOUD_DB);
  const edges = frames.filter(({ level }) => level > quiet + EDGE_OVER_NOISE_DB && level < loud - EDGE_UNDER_LOUD_DB);
  const binHz = rateHz / size;
  const bins: [number, number] = [Math.ceil(LOWEST_HZ / binHz), Math.floor(Math.min(HIGHEST_HZ, 0.45 * rateHz) / binHz)];
  const noiseBins = meanOf(noise, size);
  const gainDb = gainOf(words, noiseBins, bins);
  if (gainDb === null) return null;
  const noiseReductionDb = lossDb(noise, bins, gainDb);
  if (coherenceOf(noise, [bins[0], Math.ceil(COHERENT_TO_HZ / binHz)]) < LEAST_COHERENCE) return null;
  if (Math.abs(noiseReductionDb) < SAME_NOISE_DB) return 'same noise';
  const warble = (some: readonly Frame[]) => Math.log(kurtosis(some, 'own', bins) / kurtosis(some, 'other', bins));
  return {
    noiseReductionDb,
    voiceLossDb: THIRD_OCTAVE_HZ.map((hz) => {
      const [low, high] = bandEdgesHz(hz);
      const band: [number, number] = [Math.round(low / binHz), Math.max(Math.round(low / binHz) + 1, Math.round(high / binHz))];
      if (hz < LOWEST_HZ * 0.95 || band[1] > bins[1] + 1) return null;
      const spoken = frames.filter(({ other }) => sumOf(other, band) > 4 * sumOf(noiseBins, band));
      return spoken.length < LEAST_FRAMES ? null : lossDb(spoken, band, gainDb);
    }),
    wordEdgeLossDb: edges.length < LEAST_FRAMES ? null : lossDb(edges, bins, gainDb),
    musicalNoise: warble(noise),
    moments: denoiseMoments({ noise, edges, frameS: size / rateHz, lossDb: (frame) => lossDb([frame], bins, gainDb), warble }),
  };
}

function sumOf(powers: Float64Array | Float32Array, [from, to]: readonly [number, number]): number {
  let sum = 0;
  for (let bin = from; bin < to; bin++) sum += powers[bin] as number;
  return sum;
}

const db = (power: number) => 10 * Math.log10(Math.max(power, NOTHING));

/** Powers of both in every frame of what they have in common. */
function spectraOf(channel: PairTrack, reference: PairTrack, alignment: Alignment, size: number): Frame[] {
  const transform = new BothTransform(size);
  const frames: Frame[] = [];
  for (const { atS, own: a, other: b } of commonStretches(channel, reference, alignment)) {
    for (let from = 0; from + size <= b.length; from += size / 2) {
      const [own, other, re, im] = Array.from({ length: 4 }, () => new Float32Array(size / 2 + 1)) as [Float32Array, Float32Array, Float32Array, Float32Array];
      transform.addTo({ own, other, re, im }, a.subarray(from, from + size), b.subarray(from, from + size), 1);
      frames.push({ atS: atS + from / reference.sampleRateHz, own, other, re, im, level: db(sumOf(other, [1, size / 2])) });
    }
  }
  return frames;
}

/** How much of the noise of both is the same sound, 0 to 1, over some bins. */
function coherenceOf(frames: readonly Frame[], [from, to]: readonly [number, number]): number {
  let coherence = 0;
  for (let bin = from; bin < to; bin++) {
    let [re, im, own, other] = [0, 0, 0, 0];
    for (const frame of frames) {
      re += frame.re[bin] as number;
      im += frame.im[bin] as number;
      own += frame.own[bin] as number;
      other += frame.other[bin] as number;
    }
    if (own > 0 && other > 0) coherence += (re * re + im * im) / (own * other) / (to - from);
  }
  return coherence;
}

/** Mean powers of the reference. */
function meanOf(frames: readonly Frame[], size: number): Float64Array {
  const mean = new Float64Array(size / 2);
  for (const frame of frames) for (let bin = 0; bin < mean.length; bin++) mean[bin] = (mean[bin] as number) + (frame.other[bin] as number) / frames.length;
  return mean;
}

/** How much louder the channel's strongest parts of words are than the reference's. */
function gainOf(words: readonly Frame[], noise: Float64Array, [from, to]: readonly [number, number]): number | null {
  const clear = 10 ** (CLEAR_DB / 10);
  let own = 0;
  let other = 0;
  for (const frame of words) {
    for (let bin = from; bin < to; bin++) {
      if ((frame.other[bin] as number) < clear * (noise[bin] as number)) continue;
      own += frame.own[bin] as number;
      other += frame.other[bin] as number;
    }
  }
  return other > 0 && own > 0 ? db(own / other) : null;
}

/** How much of the power of some frames is gone, beyond the gain: the median over the frames. */
function lossDb(frames: readonly Frame[], bins: readonly [number, number], gainDb: number): number {
  const losses = Float64Array.from(frames, ({ own, other }) => {
    return db(sumOf(other, bins)) - db(sumOf(own, bins)) + gainDb;
  }).sort();
  return quantile(losses, 0.5);
}

/**
 * Kurtosis of the powers of all bins and frames, each against the mean of its bin and then of its frame, so that neither
 * colour nor a level that comes and goes counts.
 */
function kurtosis(frames: readonly Frame[], which: 'own' | 'other', [from, to]: readonly [number, number]): number {
  const means = new Float64Array(to);
  for (const frame of frames) for (let bin = from; bin < to; bin++) means[bin] = (means[bin] as number) + (frame[which][bin] as number) / frames.length;
  let second = 0;
  let fourth = 0;
  let count = 0;
  for (const frame of frames) {
    const powers = filled(to - from, (index) => (frame[which][from + index] as number) / Math.max(means[from + index] as number, NOTHING));
    const mean = powers.reduce((sum, power) => sum + power, 0) / powers.length;
    if (mean < NOTHING) continue;
    for (const each of powers) {
      const power = each / mean;
      second += power * power;
      fourth += power ** 4;
      count++;
    }
  }
  return count === 0 ? 1 : fourth / count / (second / count) ** 2;
}
