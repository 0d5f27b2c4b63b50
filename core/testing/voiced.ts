import { mixed, whiteNoise } from './signals.ts';

const RATE_HZ = 48_000;
const LEVELS = Array.from({ length: 24 }, (_, index) => 0.09 * (index + 1) ** -0.9);

/** Harmonics of a voice in syllables, 1.3 s of every 2, over room tone: has a fundamental, pulses and gaps. */
export function voiced(lengthS: number, floorDbfs = -62): Float64Array {
  const out = new Float64Array(Math.round(lengthS * RATE_HZ));
  for (let index = 0; index < out.length; index++) {
    const t = index / RATE_HZ;
    if (t % 2 >= 1.3) continue;
    const gate = Math.sin(Math.PI * ((t % 2) / 0.325)) ** 2;
    let sum = 0;
    for (let harmonic = 1; harmonic <= LEVELS.length; harmonic++) sum += (LEVELS[harmonic - 1] as number) * Math.sin(2 * Math.PI * 118 * harmonic * t + harmonic);
    out[index] = gate * sum;
  }
  return mixed(out, whiteNoise(floorDbfs, lengthS, 21));
}
