import { kaiser } from './kaiser.ts';

/** Taps for each step down, and the Kaiser window's parameter: 70 dB in a transition as wide as the new rate less twice the band kept. */
const TAPS_A_STEP = 6;
const KAISER = 6.8;

/**
 * Keeps every n-th sample of a stream behind a symmetric low-pass of half the new rate (windowed sinc).
 * Only what is kept is computed, without feedback, which is cheaper than a recursive filter of all
 * samples. What folds into the lowest tenth of the new rate is 70 dB down.
 */
export class Decimator {
  private readonly half: Float64Array;
  private readonly reach: number;
  private readonly middle: number;
  /** The last samples of the block before, then the first of this one. */
  private readonly seam: Float64Array;
  private waiting = 0;

  constructor(private readonly factor: number) {
    this.reach = factor === 1 ? 0 : (TAPS_A_STEP * factor) / 2;
    const taps = Float64Array.from({ length: this.reach + 1 }, (_, k) => {
      const x = (Math.PI * k) / factor;
      return (k === 0 ? 1 : Math.sin(x) / x) * kaiser(k / (this.reach + 1), KAISER);
    });
    const sum = taps.reduce((total, tap, k) => total + (k === 0 ? tap : 2 * tap), 0);
    this.middle = (taps[0] as number) / sum;
    this.half = taps.slice(1).map((tap) => tap / sum);
    this.seam = new Float64Array(4 * this.reach);
  }

  /** Gain at a frequency, in dB. */
  gainDb(frequencyHz: number, sampleRateHz: number): number {
    const w = (2 * Math.PI * frequencyHz) / sampleRateHz;
    return 20 * Math.log10(Math.abs(this.half.reduce((sum, tap, k) => sum + 2 * tap * Math.cos(w * (k + 1)), this.middle)));
  }

  /** Takes `frames` samples, writes what is kept into `output` and returns how many that were. They come `reach` samples late. */
  process(input: Float64Array, frames: number, output: Float64Array): number {
    const { seam, reach, factor } = this;
    const history = 2 * reach;
    const early = Math.min(history, frames);
    for (let index = 0; index < early; index++) seam[history + index] = input[index] as number;
    let kept = 0;
    let at = this.waiting;
    for (; at < frames; at += factor) output[kept++] = at < history ? this.around(seam, at + reach) : this.around(input, at - reach);
    this.waiting = at - frames;
    if (frames >= history) for (let index = 0; index < history; index++) seam[index] = input[frames - history + index] as number;
    else seam.copyWithin(0, frames, frames + history);
    return kept;
  }

  private around(samples: Float64Array, centre: number): number {
    const { half } = this;
    let even = (samples[centre] as number) * this.middle;
    let odd = 0;
    for (let k = 0; k + 1 < half.length; k += 2) {
      even += (half[k] as number) * ((samples[centre - k - 1] as number) + (samples[centre + k + 1] as number));
      odd += (half[k + 1] as number) * ((samples[centre - k - 2] as number) + (samples[centre + k + 2] as number));
    }
    if (half.length % 2 === 1) {
      const k = half.length - 1;
      odd += (half[k] as number) * ((samples[centre - k - 1] as number) + (samples[centre + k + 1] as number));
    }
    return even + odd;
  }
}
