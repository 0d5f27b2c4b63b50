import { type FramePowers, framePowers, hannWindow } from './kernels/framePowers.ts';

/**
 * Power spectra of overlapping frames of a stream: Hann window, half overlap or less. The sum over all
 * bins is the mean square of the frame, so a full-scale sine gives 0.5. Two frames go through one
 * complex transform, one as its real and one as its imaginary part, which is cheaper than two of their
 * own; so frames come in pairs, and `flush` brings a last single one.
 */
export class PowerSpectrum {
  private readonly powers: FramePowers;
  /** Samples from the start of the first frame of a pair to the end of the second. */
  private readonly waiting: Float64Array;
  private filled = 0;
  private seen = 0;
  private readonly scale: number;

  /** @param hop samples from one frame to the next, from half a frame to a whole one */
  constructor(
    readonly size: number,
    private readonly onFrame: (power: Float64Array, endSample: number) => void,
    private readonly hop = size / 2,
  ) {
    this.powers = framePowers(size);
    this.waiting = new Float64Array(size + hop);
    // Every bin but the first and the last stands for two, itself and its mirror; halves make up for the unpacking.
    this.scale = 2 / 4 / (size * hannWindow(size).reduce((sum, value) => sum + value * value, 0));
  }

  push(samples: Float64Array, frames: number): void {
    const { waiting, hop } = this;
    for (let at = 0; at < frames; ) {
      const take = Math.min(waiting.length - this.filled, frames - at);
      waiting.set(samples.subarray(at, at + take), this.filled);
      this.filled += take;
      this.seen += take;
      at += take;
      if (this.filled < waiting.length) continue;
      this.transform(hop);
      this.onFrame(this.powers.first, this.seen - hop);
      this.onFrame(this.powers.second, this.seen);
      this.drop(2 * hop);
    }
  }

  /** Brings a frame that still waits for its second; the stream may go on after it. */
  flush(): void {
    const { size, hop, filled } = this;
    if (filled < size) return;
    this.transform(null);
    this.onFrame(this.powers.first, this.seen - (filled - size));
    this.drop(hop);
  }

  private drop(samples: number): void {
    this.waiting.copyWithin(0, samples, this.filled);
    this.filled -= samples;
  }

  private transform(secondStart: number | null): void {
    const { powers, size, waiting } = this;
    powers.frames.set(waiting.subarray(0, size));
    if (secondStart === null) powers.frames.fill(0, size);
    else powers.frames.set(waiting.subarray(secondStart, secondStart + size), size);
    powers.run(this.scale);
  }
}

/** Power between two frequencies, with bins that lie across an edge shared out in proportion. */
export function powerBetween(power: Float64Array, binHz: number, lowHz: number, highHz: number): number {
  const low = Math.max(0, lowHz / binHz + 0.5);
  const high = Math.min(power.length, highHz / binHz + 0.5);
  if (high <= low) return 0;
  const first = Math.floor(low);
  const last = Math.min(power.length - 1, Math.floor(high));
  if (first === last) return (power[first] as number) * (high - low);
  let sum = (power[first] as number) * (first + 1 - low) + (power[last] as number) * (high - last);
  for (let bin = first + 1; bin < last; bin++) sum += power[bin] as number;
  return sum;
}
