import { RATE_HZ } from './decoded.ts';

/** To stand out it must be over the noise by this much, and over the voice, for this long or half of what it lasts. */
const OVER_FLOOR_DB = 6;
const STANDS_OUT_S = 0.06;

/** Whether words or noise cover all of a sound that was laid: nowhere does it stand out of them for long enough. */
export function isCoveredBy(voice: Float64Array, start: number, shape: Float64Array, peak: number, floorDbfs: number): boolean {
  const step = RATE_HZ / 100;
  const least = 10 ** ((floorDbfs + OVER_FLOOR_DB) / 10);
  const meanSquare = (of: Float64Array, from: number) => {
    const part = of.subarray(from, from + step);
    return part.reduce((sum, x) => sum + x * x, 0) / Math.max(1, part.length);
  };
  let clear = 0;
  let loud = 0;
  for (let at = 0; at < shape.length; at += step) {
    const own = peak ** 2 * meanSquare(shape, at);
    if (own < least) continue;
    loud++;
    if (own >= meanSquare(voice, start + at)) clear++;
  }
  return loud === 0 || clear * 0.01 < Math.min(STANDS_OUT_S, (loud * 0.01) / 2);
}
