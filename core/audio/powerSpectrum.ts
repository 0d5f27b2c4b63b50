import FFT from 'fft.js';

/**
 * Power spectra of overlapping frames of a stream: Hann window, half overlap. The sum over all bins is
 * the mean square of the frame, so a full-scale sine gives 0.5.
 */
export class PowerSpectrum {
  private readonly fft: FFT;
  private readonly window: Float64Array;
  private readonly line: Float64Array;
  private readonly windowed: Float64Array;
  private readonly spectrum: number[];
  /** Power of each bin of the frame last seen. */
  readonly power: Float64Array;
  private filled = 0;
  private seen = 0;
  private readonly scale: number;

  constructor(
    readonly size: number,
    private readonly onFrame: (power: Float64Array, endSample: number) => void,
  ) {
    this.fft = new FFT(size);
    this.window = Float64Array.from({ length: size }, (_, index) => 0.5 - 0.5 * Math.cos((2 * Math.PI * index) / size));
    this.line = new Float64Array(size);
    this.windowed = new Float64Array(size);
    this.spectrum = this.fft.createComplexArray() as number[];
    this.power = new Float64Array(size / 2 + 1);
    this.scale = 1 / (size * this.window.reduce((sum, value) => sum + value * value, 0));
  }

  push(samples: Float64Array, frames: number): void {
    let at = 0;
    while (at < frames) {
      const take = Math.min(this.size - this.filled, frames - at);
      this.line.set(samples.subarray(at, at + take), this.filled);
      this.filled += take;
      this.seen += take;
      at += take;
      if (this.filled === this.size) this.transform();
    }
  }

  private transform(): void {
    const { line, window, windowed, spectrum, power, size, scale } = this;
    for (let index = 0; index < size; index++) windowed[index] = (line[index] as number) * (window[index] as number);
    this.fft.realTransform(spectrum, windowed as unknown as number[]);
    for (let bin = 0; bin <= size / 2; bin++) {
      const re = spectrum[2 * bin] as number;
      const im = spectrum[2 * bin + 1] as number;
      power[bin] = (re * re + im * im) * scale * (bin === 0 || bin === size / 2 ? 1 : 2);
    }
    this.onFrame(power, this.seen);
    line.copyWithin(0, size / 2);
    this.filled = size / 2;
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
