import { kaiser } from '../audio/kaiser.ts';
import { openSampleBlock } from '../audio/kernels/sampleBlock.ts';
import { MOST_SAMPLES, type SampleBlock, STRETCH, TAPS } from '../audio/kernels/sampleBlock.types.ts';

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
  private readonly largestGain: number;
  private historyPeak = 0;
  private peak = 0;

  /** @param block that the samples come in; its phases are set here */
  constructor(
    private readonly block: SampleBlock,
    sampleRateHz: number,
  ) {
    const phases = interpolator(sampleRateHz < 96_000 ? 4 : 2);
    block.setPhases(phases);
    this.largestGain = Math.max(...phases.map((taps) => taps.reduce((sum, value) => sum + Math.abs(value), 0)));
  }

  /** Looks at the samples that the block holds, whose extremes are known. */
  push(frames: number): void {
    const { block } = this;
    const { most, least } = block;
    for (let from = 0, stretch = 0; from < frames; from += STRETCH, stretch++) {
      const to = Math.min(frames, from + STRETCH);
      const peak = Math.max(most[stretch] as number, -(least[stretch] as number));
      if (peak > this.peak) this.peak = peak;
      if (Math.max(peak, this.historyPeak) * this.largestGain > this.peak) this.peak = Math.max(this.peak, block.peak(from, to));
      // A stretch may be shorter than the taps reach back.
      this.historyPeak = to - from >= HISTORY ? peak : Math.max(this.historyPeak, peak);
    }
  }

  /** The maximum so far, silence after the last sample. */
  finish(): number {
    this.block.take(new Float64Array(TAPS), TAPS);
    this.block.extremes(TAPS);
    this.push(TAPS);
    return this.peak;
  }
}

/** The true peak of a signal that comes piece by piece, each of any length. */
export class TruePeakOfPieces {
  private readonly block = openSampleBlock();
  private readonly meter: TruePeak;

  /** @param atOnce samples that are looked at together */
  constructor(
    sampleRateHz: number,
    private readonly atOnce = MOST_SAMPLES,
  ) {
    this.meter = new TruePeak(this.block, sampleRateHz);
  }

  push(samples: Float64Array): void {
    for (let from = 0; from < samples.length; from += this.atOnce) {
      const piece = samples.subarray(from, Math.min(samples.length, from + this.atOnce));
      this.block.take(piece, piece.length);
      this.block.extremes(piece.length);
      this.meter.push(piece.length);
    }
  }

  finish(): number {
    return this.meter.finish();
  }
}

/** The true peak of a signal that is at hand as a whole; 0 of silence. */
export function truePeakOf(samples: Float64Array, sampleRateHz: number, pieces = MOST_SAMPLES): number {
  const meter = new TruePeakOfPieces(sampleRateHz, pieces);
  meter.push(samples);
  return meter.finish();
}
