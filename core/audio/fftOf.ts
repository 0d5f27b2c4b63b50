import FFT from 'fft.js';

const made = new Map<number, FFT>();
/** Few sizes are asked for again and again; a table of a million places is not kept for ever. */
const MOST_KEPT = 8;

/** The transform of a size, a power of two. Its tables cost as much as a transform, so that they are kept. */
export function fftOf(size: number): FFT {
  let fft = made.get(size);
  if (!fft) {
    fft = new FFT(size);
    if (made.size >= MOST_KEPT) made.delete(made.keys().next().value as number);
    made.set(size, fft);
  }
  return fft;
}
