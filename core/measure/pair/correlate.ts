import { fftOf } from '../../audio/fftOf.ts';
import { takeApart } from './bothSpectra.ts';

/** Correlation of two real signals at every lag of `b` against `a`, with a weight for each bin of the cross spectrum. */
export interface Correlation {
  /** Value at lag n (b late by n samples), for n from -size/2 to size/2 - 1. */
  at(lag: number): number;
  size: number;
}

/**
 * Generalised cross-correlation through the spectrum.
 * @param sharpness 0 plain correlation, 1 phase only; in between a compromise of sharp peak and low noise
 */
export function crossCorrelation(a: Float64Array, b: Float64Array, sharpness: number): Correlation {
  const size = 2 ** Math.ceil(Math.log2(a.length + b.length));
  const fft = fftOf(size);
  // Two real signals in one complex transform: a in the real part, b in the imaginary part.
  const block = new Float64Array(2 * size);
  const both = new Float64Array(2 * size);
  for (let index = 0; index < a.length; index++) block[2 * index] = a[index] as number;
  for (let index = 0; index < b.length; index++) block[2 * index + 1] = b[index] as number;
  fft.transform(both, block);
  // Of real signals the upper half of the spectrum mirrors the lower.
  const cross = block;
  const half = size / 2;
  const bins = { ar: 0, ai: 0, br: 0, bi: 0 };
  let strongest = 0;
  for (let bin = 0; bin <= half; bin++) {
    takeApart(both, bin, bins);
    const { ar, ai, br, bi } = bins;
    const re = ar * br + ai * bi;
    const im = ar * bi - ai * br;
    cross[2 * bin] = re;
    cross[2 * bin + 1] = im;
    strongest = Math.max(strongest, re * re + im * im);
  }
  // Bins that hold next to nothing have no phase worth counting. Powers of the square spare the root.
  const least = strongest * 1e-14;
  for (let bin = 0; bin <= half; bin++) {
    const mirror = bin === 0 ? 0 : size - bin;
    const square = (cross[2 * bin] as number) ** 2 + (cross[2 * bin + 1] as number) ** 2;
    const weight = square > least ? square ** (-sharpness / 2) : 0;
    const re = weight * (cross[2 * bin] as number);
    const im = weight * (cross[2 * bin + 1] as number);
    cross[2 * mirror] = re;
    cross[2 * mirror + 1] = -im;
    cross[2 * bin] = re;
    cross[2 * bin + 1] = im;
  }
  fft.inverseTransform(both, cross);
  return { size, at: (lag) => both[2 * (lag < 0 ? lag + size : lag)] as number };
}

/** Where the magnitude of a correlation is largest between two lags, to a fraction of a sample, its sign, and how far it stands out. */
export function peakOf(correlation: Correlation, fromLag: number, toLag: number): { lag: number; sign: 1 | -1; prominence: number } {
  let best = fromLag;
  let sum = 0;
  for (let lag = fromLag; lag <= toLag; lag++) {
    const magnitude = Math.abs(correlation.at(lag));
    sum += magnitude;
    if (magnitude > Math.abs(correlation.at(best))) best = lag;
  }
  const sign = correlation.at(best) < 0 ? -1 : 1;
  const [before, here, after] = [-1, 0, 1].map((step) => sign * correlation.at(best + step)) as [number, number, number];
  const curve = before - 2 * here + after;
  const offset = curve < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * curve))) : 0;
  return { lag: best + offset, sign, prominence: here / Math.max(1e-30, sum / (toLag - fromLag + 1)) };
}
