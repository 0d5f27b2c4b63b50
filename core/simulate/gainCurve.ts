import { spectrumOf } from './octaveBands.ts';

/**
 * A signal with a gain that goes from point to point along the frequencies, straight in dB over octaves, and stays beyond
 * the first and the last. No frequency is moved in time.
 * @param hz rising
 */
export function withGainCurve(signal: Float64Array, hz: readonly number[], db: readonly number[], rateHz: number): Float64Array {
  const transform = spectrumOf(signal.length);
  const spectrum = transform.forward(signal);
  let point = 0;
  for (let bin = 0; bin <= transform.size / 2; bin++) {
    const frequencyHz = (bin * rateHz) / transform.size;
    while (point < hz.length - 1 && frequencyHz > (hz[point + 1] as number)) point++;
    const gain = 10 ** (gainAt(frequencyHz, hz, db, point) / 20);
    spectrum[2 * bin] = (spectrum[2 * bin] as number) * gain;
    spectrum[2 * bin + 1] = (spectrum[2 * bin + 1] as number) * gain;
  }
  return transform.back(spectrum, signal.length);
}

function gainAt(frequencyHz: number, hz: readonly number[], db: readonly number[], point: number): number {
  const [low, high] = [hz[point] as number, hz[point + 1]];
  const here = db[point] as number;
  if (high === undefined || frequencyHz <= low) return here;
  return here + ((db[point + 1] as number) - here) * (Math.log(frequencyHz / low) / Math.log(high / low));
}
