import FFT from 'fft.js';

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
  const fft = new FFT(size);
  // Two real signals in one complex transform: a in the real part, b in the imaginary part.
  const block = fft.createComplexArray() as number[];
  const both = fft.createComplexArray() as number[];
  for (let index = 0; index < size; index++) {
    block[2 * index] = a[index] ?? 0;
    block[2 * index + 1] = b[index] ?? 0;
  }
  fft.transform(both, block);
  const cross = block;
  let strongest = 0;
  for (let bin = 0; bin < size; bin++) {
    const mirror = (size - bin) % size;
    const [zr, zi, mr, mi] = [both[2 * bin], both[2 * bin + 1], both[2 * mirror], both[2 * mirror + 1]] as [number, number, number, number];
    const [ar, ai, br, bi] = [(zr + mr) / 2, (zi - mi) / 2, (zi + mi) / 2, (mr - zr) / 2];
    cross[2 * bin] = ar * br + ai * bi;
    cross[2 * bin + 1] = ar * bi - ai * br;
    strongest = Math.max(strongest, Math.hypot(cross[2 * bin] as number, cross[2 * bin + 1] as number));
  }
  // Bins that hold next to nothing have no phase worth counting.
  const least = strongest * 1e-7;
  for (let bin = 0; bin < size; bin++) {
    const magnitude = Math.hypot(cross[2 * bin] as number, cross[2 * bin + 1] as number);
    const weight = magnitude > least ? magnitude ** -sharpness : 0;
    cross[2 * bin] = (cross[2 * bin] as number) * weight;
    cross[2 * bin + 1] = (cross[2 * bin + 1] as number) * weight;
  }
  fft.inverseTransform(both, cross);
  return { size, at: (lag) => both[2 * ((lag + size) % size)] as number };
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
