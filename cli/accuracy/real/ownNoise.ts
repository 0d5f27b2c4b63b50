import { cascadeDb } from '@marvet/core/audio/biquad';
import { fftOf } from '@marvet/core/audio/fftOf';
import { PowerSpectrum } from '@marvet/core/audio/powerSpectrum';
import { aWeighting } from '@marvet/core/audio/weighting';
import type { RandomSource } from '@marvet/core/simulate/random';
import { RATE_HZ } from './decoded.ts';

const SIZE = 1024;
/** What a talker's clips hold when nobody speaks: the quietest frames of them all, so many of them. */
const QUIET_SHARE = 0.05;
/** A frame under this is digital silence around a clip, which is nobody's noise. */
const SILENCE = 1e-9;
const WEIGHTS = Float64Array.from({ length: SIZE / 2 + 1 }, (_, bin) => (bin === 0 ? 0 : 10 ** (cascadeDb(aWeighting(RATE_HZ), (bin * RATE_HZ) / SIZE, RATE_HZ) / 10)));

interface Frame {
  power: number;
  /** Behind the A weighting, by which frames are ranked: the power of a noise that falls steeply is that of a few low bins, and wavers by itself. */
  weighted: number;
  bins: Float64Array;
}

/**
 * The half of a talker's clips with least noise in them, and the spectrum of that noise, as mean squares by bin of
 * {@link SIZE} samples: of the quietest twentieth of their frames. Clips from a home were recorded one by one, with
 * noises that lie up to twenty decibels apart; said one after another, the place would change with every word.
 */
export function quietestOf(words: readonly Float64Array[]): { words: Float64Array[]; noise: Float64Array } {
  const ranked = words
    .map((word) => {
      const frames = framesOf(word);
      return { word, frames, noise: quietPart(frames) };
    })
    .sort((a, b) => a.noise - b.noise);
  const kept = ranked.slice(0, Math.ceil(words.length / 2));
  return { words: kept.map(({ word }) => word), noise: meanOfQuiet(kept.flatMap(({ frames }) => frames)) };
}

/** Level of a clip's quietest frames against the clip. */
function quietPart(frames: readonly Frame[]): number {
  return meanPower(quietFrames(frames)) / Math.max(meanPower(frames), SILENCE);
}

const meanPower = (frames: readonly Frame[]) => frames.reduce((sum, { power }) => sum + power, 0) / Math.max(1, frames.length);

function quietFrames(frames: readonly Frame[]): Frame[] {
  return [...frames].sort((a, b) => a.weighted - b.weighted).slice(0, Math.ceil(QUIET_SHARE * frames.length));
}

/** Frames of a clip, digital silence apart. */
function framesOf(word: Float64Array): Frame[] {
  const frames: Frame[] = [];
  const spectrum = new PowerSpectrum(SIZE, (bins) => {
    const power = bins.reduce((sum, bin) => sum + bin, 0);
    if (power > SILENCE) frames.push({ power, weighted: bins.reduce((sum, bin, index) => sum + bin * (WEIGHTS[index] as number), 0), bins: Float64Array.from(bins) });
  });
  spectrum.push(word, word.length);
  spectrum.flush();
  return frames;
}

function meanOfQuiet(frames: readonly Frame[]): Float64Array {
  const quiet = quietFrames(frames);
  const mean = new Float64Array(SIZE / 2 + 1);
  for (const { bins } of quiet) for (let bin = 0; bin < mean.length; bin++) mean[bin] = (mean[bin] as number) + (bins[bin] as number) / quiet.length;
  return mean;
}

/**
 * Noise without end that has a spectrum, but for what lies under 23 Hz: frames of random phases, overlapped so that its power is even.
 * @param spectrum mean squares by bin, as {@link quietestOf} gives
 */
export function noiseOf(spectrum: Float64Array, length: number, random: RandomSource): Float64Array {
  const fft = fftOf(SIZE);
  const out = new Float64Array(length + SIZE);
  const half = SIZE / 2;
  const bins = new Float64Array(2 * SIZE);
  const frame = new Float64Array(2 * SIZE);
  for (let start = 0; start < length; start += half) {
    bins.fill(0);
    for (let bin = 1; bin < half; bin++) {
      // A bin and its mirror share the power of the bin; two normal numbers have twice a mean square of one.
      const amplitude = (SIZE / 2) * Math.sqrt(spectrum[bin] as number);
      const [real, imaginary] = [amplitude * random.normal(), amplitude * random.normal()];
      bins.set([real, imaginary], 2 * bin);
      bins.set([real, -imaginary], 2 * (SIZE - bin));
    }
    fft.inverseTransform(frame, bins);
    // Sines whose squares add up to one at every place.
    for (let index = 0; index < SIZE; index++) out[start + index] = (out[start + index] as number) + (frame[2 * index] as number) * Math.sin((Math.PI * (index + 0.5)) / SIZE);
  }
  return out.subarray(0, length);
}
