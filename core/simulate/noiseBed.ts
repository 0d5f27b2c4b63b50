import { Biquad, type BiquadCoefficients, Cascade, highPass } from '../audio/biquad.ts';
import { aWeighting } from '../audio/weighting.ts';
import type { SimulatedPlace } from './place.ts';
import type { RandomSource } from './random.ts';

/** Sound pressure of 0 dB SPL in units where 1 is 94 dB SPL (1 Pa). */
export const splAmplitude = (levelDb: number) => 10 ** ((levelDb - 94) / 20);

/** Root of the mean square of a signal; 0 of nothing. */
export function rmsOf(signal: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < signal.length; index++) sum += (signal[index] as number) ** 2;
  return Math.sqrt(sum / Math.max(1, signal.length));
}

/** RMS of a signal behind the A weighting. */
function weightedRms(signal: Float64Array, rateHz: number): number {
  return Math.sqrt(new Cascade(aWeighting(rateHz)).energy(signal, 0, signal.length) / Math.max(1, signal.length));
}

/**
 * Noise whose power per hertz falls by `slopeDb` per octave between 30 Hz and the top; any level. White
 * is 0, pink -3, brown -6.
 */
export function slopedNoise(length: number, rateHz: number, slopeDb: number, random: RandomSource): Float64Array {
  const noise = new Float64Array(length);
  for (let index = 0; index < length; index++) noise[index] = random.normal();
  for (let leftDb = Math.abs(slopeDb); leftDb > 0; leftDb -= 6) fall(noise, rateHz, Math.min(1, leftDb / 6));
  return noise;
}

/** First-order shelves an octave and a half apart, each falling by its share of what a single pole would; two of them are a section. */
function fall(noise: Float64Array, rateHz: number, share: number): void {
  const shelves: { p: number; z: number }[] = [];
  for (let pole = 30; pole < rateHz / 3; pole *= 2 ** 1.5) {
    const zero = pole * 2 ** (1.5 * share);
    shelves.push({ p: Math.exp((-2 * Math.PI * pole) / rateHz), z: Math.exp((-2 * Math.PI * zero) / rateHz) });
  }
  const sections: BiquadCoefficients[] = [];
  for (let index = 0; index < shelves.length; index += 2) {
    const [one, other = { p: 0, z: 0 }] = shelves.slice(index, index + 2) as [{ p: number; z: number }, { p: number; z: number }?];
    sections.push({ b0: 1, b1: -(one.z + other.z), b2: one.z * other.z, a1: -(one.p + other.p), a2: one.p * other.p });
  }
  for (let index = 0; index < sections.length; index += 3) new Cascade(sections.slice(index, index + 3)).process(noise, noise, noise.length);
}

/** The steady noise of a place, from all around; 1 is 1 Pa. */
export function placeNoise(place: Pick<SimulatedPlace, 'noiseDba' | 'noiseSlopeDb' | 'hum' | 'swell'>, length: number, rateHz: number, random: RandomSource): Float64Array {
  const noise = slopedNoise(length, rateHz, place.noiseSlopeDb, random);
  const low = new Biquad(highPass(28, Math.SQRT1_2, rateHz));
  low.process(noise, noise, length);
  const scale = splAmplitude(place.noiseDba) / weightedRms(noise, rateHz);
  const slow = 0.11 + 0.1 * random.uniform();
  const start = 2 * Math.PI * random.uniform();
  for (let index = 0; index < length; index++) {
    const swell = 1 + place.swell * 0.5 * Math.sin((2 * Math.PI * slow * index) / rateHz + start);
    noise[index] = (noise[index] as number) * scale * swell;
  }
  if (place.hum) addHum(noise, place.hum, rateHz, random);
  return noise;
}

function addHum(into: Float64Array, hum: NonNullable<SimulatedPlace['hum']>, rateHz: number, random: RandomSource): void {
  const engine = new Float64Array(into.length);
  for (let harmonic = 1; harmonic <= 14; harmonic++) {
    const frequency = hum.fundamentalHz * harmonic * (1 + 0.002 * random.normal());
    const phase = 2 * Math.PI * random.uniform();
    const amplitude = harmonic ** -0.8 * (0.6 + 0.8 * random.uniform());
    // A pointer that turns instead of a sine for every sample.
    const turn = (2 * Math.PI * frequency) / rateHz;
    const [dc, ds] = [Math.cos(turn), Math.sin(turn)];
    let c = amplitude * Math.cos(phase);
    let s = amplitude * Math.sin(phase);
    for (let index = 0; index < engine.length; index++) {
      engine[index] = (engine[index] as number) + s;
      const turned = c * dc - s * ds;
      s = s * dc + c * ds;
      c = turned;
    }
  }
  const scale = splAmplitude(hum.levelDba) / weightedRms(engine, rateHz);
  for (let index = 0; index < into.length; index++) into[index] = (into[index] as number) + scale * (engine[index] as number);
}

const whiteRms = new Map<number, number>();

/** What the A weighting leaves of white noise with an RMS of 1: its impulse response's energy. */
function whiteWeightedRms(rateHz: number): number {
  let rms = whiteRms.get(rateHz);
  if (rms === undefined) {
    const impulse = new Float64Array(rateHz);
    impulse[0] = 1;
    rms = weightedRms(impulse, rateHz) * Math.sqrt(impulse.length);
    whiteRms.set(rateHz, rms);
  }
  return rms;
}

/** Self-noise of a microphone at a level in dB A; nearly white. */
export function selfNoise(levelDba: number, length: number, rateHz: number, random: RandomSource): Float64Array {
  const scale = splAmplitude(levelDba) / whiteWeightedRms(rateHz);
  const noise = new Float64Array(length);
  for (let index = 0; index < length; index++) noise[index] = scale * random.normal();
  return noise;
}
