import { mixed, whiteNoise } from './signals.ts';

const RATE_HZ = 48_000;

/** Harmonics of a voice in syllables, 1.3 s of every 2, over room tone: has a fundamental, pulses and gaps. */
export function voiced(lengthS: number, floorDbfs = -62): Float64Array {
  const out = new Float64Array(Math.round(lengthS * RATE_HZ));
  for (let harmonic = 1; harmonic <= 24; harmonic++) {
    const level = 0.09 * harmonic ** -0.9;
    for (let index = 0; index < out.length; index++) {
      const t = index / RATE_HZ;
      const gate = t % 2 < 1.3 ? Math.sin(Math.PI * ((t % 2) / 0.325)) ** 2 : 0;
      out[index] = (out[index] as number) + level * gate * Math.sin(2 * Math.PI * 118 * harmonic * t + harmonic);
    }
  }
  return mixed(out, whiteNoise(floorDbfs, lengthS, 21));
}
