import FFT from 'fft.js';

/**
 * Power spectra of overlapping frames of a stream: Hann window, half overlap or less. The sum over all
 * bins is the mean square of the frame, so a full-scale sine gives 0.5. Two frames go through one
 * complex transform, one as its real and one as its imaginary part, which is cheaper than two of their
 * own; so frames come in pairs, and `flush` brings a last single one.
 */
export class PowerSpectrum {
  private readonly fft: FFT;
  private readonly window: Float64Array;
  /** Samples from the start of the first frame of a pair to the end of the second. */
  private readonly waiting: Float64Array;
  /** Both frames behind the window, one as real and one as imaginary parts. */
  private readonly pair: Float64Array;
  private readonly spectrum: number[];
  private readonly first: Float64Array;
  private readonly second: Float64Array;
  private filled = 0;
  private seen = 0;
  private readonly scale: number;

  /** @param hop samples from one frame to the next, from half a frame to a whole one */
  constructor(
    readonly size: number,
    private readonly onFrame: (power: Float64Array, endSample: number) => void,
    private readonly hop = size / 2,
  ) {
    this.fft = new FFT(size);
    this.window = Float64Array.from({ length: size }, (_, index) => 0.5 - 0.5 * Math.cos((2 * Math.PI * index) / size));
    this.waiting = new Float64Array(size + hop);
    this.pair = new Float64Array(2 * size);
    this.spectrum = this.fft.createComplexArray() as number[];
    this.first = new Float64Array(size / 2 + 1);
    this.second = new Float64Array(size / 2 + 1);
    // Every bin but the first and the last stands for two, itself and its mirror; halves make up for the unpacking.
    this.scale = 2 / 4 / (size * this.window.reduce((sum, value) => sum + value * value, 0));
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
      this.onFrame(this.first, this.seen - hop);
      this.onFrame(this.second, this.seen);
      this.drop(2 * hop);
    }
  }

  /** Brings a frame that still waits for its second; the stream may go on after it. */
  flush(): void {
    const { size, hop, filled } = this;
    if (filled < size) return;
    this.transform(null);
    this.onFrame(this.first, this.seen - (filled - size));
    this.drop(hop);
  }

  private drop(samples: number): void {
    this.waiting.copyWithin(0, samples, this.filled);
    this.filled -= samples;
  }

  /** Spectra of both frames: the even part of the transform is the first's, the odd part the second's. */
  private transform(secondStart: number | null): void {
    const { spectrum, size, scale, first, second, pair, waiting, window } = this;
    for (let index = 0; index < size; index++) {
      const weight = window[index] as number;
      pair[2 * index] = weight * (waiting[index] as number);
      pair[2 * index + 1] = secondStart === null ? 0 : weight * (waiting[secondStart + index] as number);
    }
    this.fft.transform(spectrum, pair as unknown as number[]);
    const half = size / 2;
    for (let bin = 0, at = 0, mirror = 0; bin <= half; bin++, at += 2, mirror = 2 * (size - bin)) {
      const zr = spectrum[at] as number;
      const zi = spectrum[at + 1] as number;
      const mr = spectrum[mirror] as number;
      const mi = spectrum[mirror + 1] as number;
      const evenRe = zr + mr;
      const evenIm = zi - mi;
      const oddRe = zi + mi;
      const oddIm = mr - zr;
      first[bin] = (evenRe * evenRe + evenIm * evenIm) * scale;
      second[bin] = (oddRe * oddRe + oddIm * oddIm) * scale;
    }
    for (const power of [first, second]) {
      power[0] = (power[0] as number) / 2;
      power[half] = (power[half] as number) / 2;
    }
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
