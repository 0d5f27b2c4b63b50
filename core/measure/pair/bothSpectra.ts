import type FFT from 'fft.js';
import { fftOf } from '../../audio/fftOf.ts';
import { hannWindow } from '../../audio/kernels/framePowers.ts';

/** Powers of two signals by bin, from 0 to half the rate, and their cross power, which keeps its phase where both hear the same. */
export interface BothSpectra<Values extends Float32Array | Float64Array = Float64Array> {
  own: Values;
  other: Values;
  re: Values;
  im: Values;
}

/** A bin of two spectra: real and imaginary part of the one, and of the other. */
export interface TwoBins {
  ar: number;
  ai: number;
  br: number;
  bi: number;
}

/** Takes a bin of two real signals apart that went through one transform as its real and its imaginary part, into what is there already. */
export function takeApart(both: Float64Array, bin: number, into: TwoBins): void {
  const at = 2 * bin;
  const mirror = bin === 0 ? 0 : both.length - at;
  const zr = both[at] as number;
  const zi = both[at + 1] as number;
  const mr = both[mirror] as number;
  const mi = both[mirror + 1] as number;
  into.ar = (zr + mr) / 2;
  into.ai = (zi - mi) / 2;
  into.br = (zi + mi) / 2;
  into.bi = (mr - zr) / 2;
}

/** Spectra of two real signals at a time behind a Hann window, in one complex transform. */
export class BothTransform {
  private readonly fft: FFT;
  private readonly block: Float64Array;
  private readonly both: Float64Array;
  private readonly window: Float64Array;
  private readonly bins: TwoBins = { ar: 0, ai: 0, br: 0, bi: 0 };

  constructor(readonly size: number) {
    this.fft = fftOf(size);
    this.block = new Float64Array(2 * size);
    this.both = new Float64Array(2 * size);
    this.window = hannWindow(size);
  }

  /** Adds `share` of the powers of two frames to sums of size / 2 + 1 bins. The sum over all bins is the mean square. */
  addTo<Values extends Float32Array | Float64Array>({ own, other, re, im }: BothSpectra<Values>, a: Float64Array, b: Float64Array, share: number): void {
    const { size, block, both, window, bins } = this;
    for (let index = 0; index < size; index++) {
      block[2 * index] = (a[index] as number) * (window[index] as number);
      block[2 * index + 1] = (b[index] as number) * (window[index] as number);
    }
    this.fft.transform(both, block);
    const scale = (2 * share) / (size * size * 0.375);
    for (let bin = 0; bin <= size / 2; bin++) {
      takeApart(both, bin, bins);
      const { ar, ai, br, bi } = bins;
      own[bin] = (own[bin] as number) + scale * (ar * ar + ai * ai);
      other[bin] = (other[bin] as number) + scale * (br * br + bi * bi);
      re[bin] = (re[bin] as number) + scale * (ar * br + ai * bi);
      im[bin] = (im[bin] as number) + scale * (ai * br - ar * bi);
    }
  }
}
