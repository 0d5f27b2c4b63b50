import { fftOf } from '@marvet/core/audio/fftOf';
import { PowerSpectrum } from '@marvet/core/audio/powerSpectrum';
import type { RandomSource } from '@marvet/core/simulate/random';

const SIZE = 1024;
/** What a talker's clips hold when nobody speaks: the quietest frames of them all, so many of them. */
const QUIET_SHARE = 0.05;
/** A frame under this is digital silence around a clip, which is nobody's noise. */
const SILENCE = 1e-9;

/** Level of a clip's quietest frames against the clip. */
function quietPart(word: Float64Array): number {
  const powers = framesOf(word).map(({ power }) => power);
  const mean = powers.reduce((sum, power) => sum + power, 0) / Math.max(1, powers.length);
  return (powers.sort((a, b) => a - b)[Math.floor(QUIET_SHARE * powers.length)] ?? 0) / Math.max(mean, SILENCE);
}

/**
 * The half of a talker's clips with least noise in them. Clips from a home were recorded one by one, with noises that lie
 * up to twenty decibels apart; said one after another, the place would change with every word.
 */
export function evenlyQuiet(words: readonly Float64Array[]): Float64Array[] {
  const ranked = words.map((word) => ({ word, noise: quietPart(word) })).sort((a, b) => a.noise - b.noise);
  return ranked.slice(0, Math.ceil(words.length / 2)).map(({ word }) => word);
}

/** Frames of a clip and their mean squares, digital silence apart. */
function framesOf(word: Float64Array): { power: number; bins: Float64Array }[] {
  const frames: { power: number; bins: Float64Array }[] = [];
  const spectrum = new PowerSpectrum(SIZE, (bins) => {
    const power = bins.reduce((sum, bin) => sum + bin, 0);
    if (power > SILENCE) frames.push({ power, bins: Float64Array.from(bins) });
  });
  spectrum.push(word, word.length);
  spectrum.flush();
  return frames;
}

/**
 * Spectrum of the noise that a talker was recorded in, as mean squares by bin of {@link SIZE} samples: of the
 * quietest twentieth of all frames of the words, digital silence apart.
 */
export function ownNoiseOf(words: readonly Float64Array[]): Float64Array {
  const frames = words.flatMap(framesOf).sort((a, b) => a.power - b.power);
  const quiet = frames.slice(0, Math.ceil(QUIET_SHARE * frames.length));
  const mean = new Float64Array(SIZE / 2 + 1);
  for (const { bins } of quiet) for (let bin = 0; bin < mean.length; bin++) mean[bin] = (mean[bin] as number) + (bins[bin] as number) / quiet.length;
  return mean;
}

/**
 * Noise without end that has a spectrum: frames of random phases, overlapped so that its power is even.
 * @param spectrum mean squares by bin, as {@link ownNoiseOf} gives
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
