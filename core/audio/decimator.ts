/** Samples more than one stage hands on at a time. */
const LARGEST_BLOCK = 8192;

/**
 * Keeps one sample of 2^n of a stream, for those who want only its lowest tenth. Each stage halves the
 * rate behind binomial weights, whose many zeros lie where half of its rate folds onto nothing: what
 * folds into the lowest tenth of the last rate is at least 85 dB down, for four multiplications a sample. The droop is gentle and known ({@link Decimator.gainDb}).
 */
export class Decimator {
  private readonly stages: Halving[];
  private readonly between = new Float64Array(LARGEST_BLOCK / 2);

  /** @param halvings how often the rate is halved; 0 passes everything through */
  constructor(halvings: number) {
    this.stages = Array.from({ length: halvings }, () => new Halving());
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

/** Zeros of a stage at half of its rate. */
const ORDER = 6;

/** Every second sample behind the weights 1 6 15 20 15 6 1. */
class Halving {
  private readonly even = new Float64Array(3);
  private readonly odd = new Float64Array(3);
  /** An odd sample comes next. */
  private half = false;

  /** Writes every second sample; input and output may be the same array. */
  halve(input: Float64Array, frames: number, output: Float64Array): number {
    let e1 = this.even[0] as number;
    let e2 = this.even[1] as number;
    let e3 = this.even[2] as number;
    let o1 = this.odd[0] as number;
    let o2 = this.odd[1] as number;
    let o3 = this.odd[2] as number;
    let kept = 0;
    let at = 0;
    if (this.half && frames > 0) {
      o3 = o2;
      o2 = o1;
      o1 = input[at++] as number;
      this.half = false;
    }
    for (const last = frames - 1; at < last; at += 2) {
      const e = input[at] as number;
      const o = input[at + 1] as number;
      output[kept++] = (e + e3 + 15 * (e1 + e2) + 6 * (o1 + o3) + 20 * o2) * 0.015625;
      e3 = e2;
      e2 = e1;
      e1 = e;
      o3 = o2;
      o2 = o1;
      o1 = o;
    }
    if (at < frames) {
      const e = input[at] as number;
      output[kept++] = (e + e3 + 15 * (e1 + e2) + 6 * (o1 + o3) + 20 * o2) * 0.015625;
      e3 = e2;
      e2 = e1;
      e1 = e;
      this.half = true;
    }
    this.even[0] = e1;
    this.even[1] = e2;
    this.even[2] = e3;
    this.odd[0] = o1;
    this.odd[1] = o2;
    this.odd[2] = o3;
    return kept;
  }
}
