import { type Halving, MOST_AT_ONCE, ORDER, openHalving } from './kernels/halving.ts';

/**
 * Keeps one sample of 2^n of a stream, for those who want only its lowest tenth. Each stage halves the
 * rate behind binomial weights, whose many zeros lie where half of its rate folds onto nothing: what
 * folds into the lowest tenth of the last rate is at least 85 dB down, for four multiplications a sample. The droop is gentle and known ({@link Decimator.gainDb}).
 */
export class Decimator {
  private readonly stages: Halving[];
  private readonly between = new Float64Array(MOST_AT_ONCE / 2);

  /** @param halvings how often the rate is halved; 0 passes everything through */
  constructor(halvings: number) {
    this.stages = Array.from({ length: halvings }, () => openHalving());
  }

  /** Gain at a frequency, in dB. */
  gainDb(frequencyHz: number, sampleRateHz: number): number {
    return this.stages.reduce((db, _, index) => {
      const rateHz = sampleRateHz / 2 ** index;
      return db + 20 * ORDER * Math.log10(Math.abs(Math.cos((Math.PI * frequencyHz) / rateHz)));
    }, 0);
  }

  /** Takes `frames` samples, at most 8192, writes what is kept into `output` and returns how many that were. */
  process(input: Float64Array, frames: number, output: Float64Array): number {
    const { stages, between } = this;
    if (stages.length === 0) {
      for (let index = 0; index < frames; index++) output[index] = input[index] as number;
      return frames;
    }
    let kept = frames;
    for (let stage = 0; stage < stages.length; stage++) {
      kept = (stages[stage] as Halving).halve(stage === 0 ? input : between, kept, stage === stages.length - 1 ? output : between);
    }
    return kept;
  }
}
