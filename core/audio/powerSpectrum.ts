import FFT from 'fft.js';

/**
 * Power spectra of overlapping frames of a stream: Hann window, half overlap or less. The sum over all bins is
 * the mean square of the frame, so a full-scale sine gives 0.5.
 */
export class PowerSpectrum {
  private readonly fft: FFT;
  private readonly window: Float64Array;
  /** The frame being filled, and the next one, whose first half the same samples are. */
  private frame: Float64Array;
  private nextFrame: Float64Array;
  private readonly spectrum: number[];
  /** Power of each bin of the frame last seen. */
  readonly power: Float64Array;
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
    this.frame = new Float64Array(size);
    this.nextFrame = new Float64Array(size);
    this.spectrum = this.fft.createComplexArray() as number[];
    this.power = new Float64Array(size / 2 + 1);
    // Every bin but the first and the last stands for two, itself and its mirror.
    this.scale = 2 / (size * this.window.reduce((sum, value) => sum + value * value, 0));
  }

  push(samples: Float64Array, frames: number): void {
    const { window, size, hop } = this;
    let at = 0;
    while (at < frames) {
      const { frame, nextFrame, filled } = this;
      const take = Math.min((filled < hop ? hop : size) - filled, frames - at);
      // What comes after a hop is also the beginning of the next frame.
      if (filled < hop) {
        for (let index = 0; index < take; index++) frame[filled + index] = (samples[at + index] as number) * (window[filled + index] as number);
      } else {
        for (let index = 0, place = filled; index < take; index++, place++) {
          const x = samples[at + index] as number;
          frame[place] = x * (window[place] as number);
          nextFrame[place - hop] = x * (window[place - hop] as number);
        }
      }
      this.filled += take;
      this.seen += take;
      at += take;
      if (this.filled === size) this.transform();
    }
  }

  private transform(): void {
    const { spectrum, power, size, scale, frame } = this;
    this.fft.realTransform(spectrum, frame as unknown as number[]);
    const half = size / 2;
    for (let bin = 0, at = 0; bin <= half; bin++, at += 2) {
      const re = spectrum[at] as number;
      const im = spectrum[at + 1] as number;
      power[bin] = (re * re + im * im) * scale;
    }
    power[0] = (power[0] as number) / 2;
    power[half] = (power[half] as number) / 2;
    this.onFrame(power, this.seen);
    this.frame = this.nextFrame;
    this.nextFrame = frame;
    this.filled = size - this.hop;
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
