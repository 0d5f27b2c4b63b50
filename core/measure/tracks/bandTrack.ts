import { GrowingArray } from '../../audio/growingArray.ts';
import { PowerSpectrum } from '../../audio/powerSpectrum.ts';

const powerOfTwoFrom = (samples: number) => 2 ** Math.ceil(Math.log2(samples));

/** Sum of all bins below a place that may lie within one. */
function upTo(below: Float64Array, at: number): number {
  const bin = Math.floor(at);
  const sum = below[bin] as number;
  return sum + (at - bin) * ((below[bin + 1] as number) - sum);
}

/**
 * Powers of some bands in every frame of a stream: Hann window, frames of the next power
 * of two from `shortestFrameS` up. Bins across a band's edge are shared out in proportion.
 */
export class BandTrack {
  readonly frameS: number;
  readonly hopS: number;
  private readonly values = new GrowingArray(4096);
  private readonly centresS = new GrowingArray();
  private readonly spectrum: PowerSpectrum;

  /**
   * @param bands lower edge, upper edge (Hz) and a factor for the power, one row a band
   * @param hop from one frame to the next, as a part of a frame, from 0.5 to 1
   */
  constructor(
    readonly bands: readonly (readonly [lowHz: number, highHz: number, factor: number])[],
    rateHz: number,
    shortestFrameS: number,
    hop = 0.5,
  ) {
    const size = powerOfTwoFrom(rateHz * shortestFrameS);
    this.hopS = (size * hop) / rateHz;
    this.frameS = size / rateHz;
    const binHz = rateHz / size;
    const bins = size / 2 + 1;
    const below = new Float64Array(bins + 2);
    const place = (hz: number) => Math.min(bins, Math.max(0, hz / binHz + 0.5));
    const edges = Float64Array.from(bands.flatMap(([low, high]) => [place(low), place(high)]));
    const factors = Float64Array.from(bands.map(([, , factor]) => factor));
    this.spectrum = new PowerSpectrum(
      size,
      (power, end) => {
        this.centresS.push((end - size / 2) / rateHz);
        let sum = 0;
        for (let bin = 0; bin < bins; bin++) {
          sum += power[bin] as number;
          below[bin + 1] = sum;
        }
        for (let band = 0; band < factors.length; band++) {
          this.values.push((upTo(below, edges[2 * band + 1] as number) - upTo(below, edges[2 * band] as number)) * (factors[band] as number));
        }
      },
      size * hop,
    );
  }

  push(samples: Float64Array, frames: number): void {
    this.spectrum.push(samples, frames);
  }

  /** Brings the last frame, which may wait for another. */
  flush(): void {
    this.spectrum.flush();
  }

  /** Times of the middles of the frames, from the start of the stream. */
  times(): Float64Array {
    return this.centresS.view();
  }

  /** Power of a band in a frame. */
  power(frame: number, band: number): number {
    return this.values.view()[frame * this.bands.length + band] as number;
  }

  /** Sum of some neighbouring bands in every frame. */
  sums(firstBand: number, endBand: number): Float64Array {
    const values = this.values.view();
    const width = this.bands.length;
    const out = new Float64Array(this.centresS.length);
    for (let frame = 0; frame < out.length; frame++) {
      let sum = 0;
      for (let band = firstBand; band < endBand; band++) sum += values[frame * width + band] as number;
      out[frame] = sum;
    }
    return out;
  }

  /** Adds the powers of a frame to a row of sums. */
  addTo(sums: Float64Array, frame: number): void {
    const values = this.values.view();
    const start = frame * sums.length;
    for (let band = 0; band < sums.length; band++) sums[band] = (sums[band] as number) + (values[start + band] as number);
  }

  clear(): void {
    this.values.clear();
    this.centresS.clear();
  }
}
