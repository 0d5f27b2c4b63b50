import { fftOf } from '../audio/fftOf.ts';
import { filled } from '../audio/filled.ts';
import { convolved } from './convolve.ts';

/** Bins in which the gain is laid down, and half the length of the filter that follows from it: at 48 kHz 3 Hz apart, 85 ms to either side. */
const SIZE = 16_384;
const HALF = 4096;

/**
 * A signal with a gain that goes from point to point along the frequencies, straight in dB over octaves, and stays beyond
 * the first and the last. No frequency is moved in time: the filter is as long before a sample as after it.
 * @param hz rising
 */
export function withGainCurve(signal: Float64Array, hz: readonly number[], db: readonly number[], rateHz: number): Float64Array {
  const padded = new Float64Array(signal.length + HALF);
  padded.set(signal);
  return convolved(padded, evenFilter(hz, db, rateHz)).subarray(HALF);
}

/** The impulse response of the curve, its middle at HALF, faded out to both ends. */
function evenFilter(hz: readonly number[], db: readonly number[], rateHz: number): Float64Array {
  const fft = fftOf(SIZE);
  const spectrum = new Float64Array(2 * SIZE);
  let point = 0;
  for (let bin = 0; bin <= SIZE / 2; bin++) {
    const frequencyHz = (bin * rateHz) / SIZE;
    while (point < hz.length - 1 && frequencyHz > (hz[point + 1] as number)) point++;
    spectrum[2 * bin] = 10 ** (gainAt(frequencyHz, hz, db, point) / 20);
  }
  fft.completeSpectrum(spectrum);
  const response = new Float64Array(2 * SIZE);
  fft.inverseTransform(response, spectrum);
  return filled(2 * HALF + 1, (index) => {
    const from = index - HALF;
    const fade = Math.cos((Math.PI / 2) * (from / (HALF + 1))) ** 2;
    return fade * (response[2 * ((from + SIZE) % SIZE)] as number);
  });
}

function gainAt(frequencyHz: number, hz: readonly number[], db: readonly number[], point: number): number {
  const [low, high] = [hz[point] as number, hz[point + 1]];
  const here = db[point] as number;
  if (high === undefined || frequencyHz <= low) return here;
  return here + ((db[point + 1] as number) - here) * (Math.log(frequencyHz / low) / Math.log(high / low));
}
