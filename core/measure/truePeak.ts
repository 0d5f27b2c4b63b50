import { kaiser } from '../audio/kaiser.ts';
import { Extremes, STRETCH } from './tracks/extremes.ts';

const TAPS = 24;
const KAISER = 7;
const HISTORY = TAPS - 1;

/** Interpolated phases between two samples, Kaiser-windowed sinc, for a factor of 2 or 4. */
function interpolator(factor: number): Float64Array[] {
  return Array.from({ length: factor - 1 }, (_, phase) => {
    const shift = (phase + 1) / factor;
    const taps = new Float64Array(TAPS);
    for (let tap = 0; tap < TAPS; tap++) {
      const t = tap - TAPS / 2 + 1 - shift;
      const window = kaiser(t / (TAPS / 2), KAISER);
      taps[tap] = (t === 0 ? 1 : Math.sin(Math.PI * t) / (Math.PI * t)) * window;
    }
    const sum = taps.reduce((total, value) => total + value, 0);
    return taps.map((value) => value / sum);
  });
}

/**
 * Highest absolute value of the signal between its samples, ITU-R BS.1770-5 Annex 2: interpolated four
 * times up to 96 kHz, twice above. A stretch whose samples times the interpolator's largest possible
 * gain stay under the maximum so far cannot raise it and is passed over.
 */
export class TruePeak {
  private readonly phases: Float64Array[];
  private readonly largestGain: number;
  /** The last samples of the block before, then room for the first of the next. */
  private readonly seam = new Float64Array(2 * HISTORY);
  private historyPeak = 0;
  private peak = 0;

  constructor(sampleRateHz: number) {
    this.phases = interpolator(sampleRateHz < 96_000 ? 4 : 2);
    this.largestGain = Math.max(...this.phases.map((taps) => taps.reduce((sum, value) => sum + Math.abs(value), 0)));
  }

  /** @param extremes of the same block */
  push(samples: Float64Array, frames: number, { most, least }: Extremes): void {
    const { seam } = this;
    const first = Math.min(HISTORY, frames);
    for (let index = 0; index < first; index++) seam[HISTORY + index] = samples[index] as number;
    for (let from = 0, stretch = 0; from < frames; from += STRETCH, stretch++) {
      const to = Math.min(frames, from + STRETCH);
      const peak = Math.max(most[stretch] as number, -(least[stretch] as number));
      if (peak > this.peak) this.peak = peak;
      if (Math.max(peak, this.historyPeak) * this.largestGain > this.peak) {
        // The taps of the first samples reach back into the block before.
        if (from < HISTORY) this.interpolate(seam, HISTORY + from, HISTORY + Math.min(to, HISTORY));
        this.interpolate(samples, Math.max(from, HISTORY), to);
      }
      // A stretch may be shorter than the taps reach back.
      this.historyPeak = to - from >= HISTORY ? peak : Math.max(this.historyPeak, peak);
    }
    if (frames >= HISTORY) for (let index = 0; index < HISTORY; index++) seam[index] = samples[frames - HISTORY + index] as number;
    else seam.copyWithin(0, frames, frames + HISTORY);
  }

  /** The maximum so far, silence after the last sample. */
  finish(): number {
    const silence = new Float64Array(TAPS);
    const extremes = new Extremes();
    extremes.push(silence, TAPS);
    this.push(silence, TAPS, extremes);
    return this.peak;
  }

  /** Raises the peak by what lies between the samples from `from` to `to`; the taps before them are in the same array. */
  private interpolate(line: Float64Array, from: number, to: number): void {
    const [first, second = first, third = first] = this.phases as [Float64Array, Float64Array?, Float64Array?];
    let peak = this.peak;
    for (let start = from - HISTORY; start < to - HISTORY; start++) {
      let a = 0;
      let b = 0;
      let c = 0;
      for (let tap = 0; tap < TAPS; tap++) {
        const value = line[start + tap] as number;
        a += (first[tap] as number) * value;
        b += (second[tap] as number) * value;
        c += (third[tap] as number) * value;
      }
      peak = Math.max(peak, Math.abs(a), Math.abs(b), Math.abs(c));
    }
    this.peak = peak;
  }
}
