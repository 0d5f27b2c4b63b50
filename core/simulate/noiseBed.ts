import { Biquad, highPass, lowPass } from '../audio/biquad.ts';
import { aWeighting } from '../audio/weighting.ts';
import type { SimulatedPlace } from './place.ts';
import type { RandomSource } from './random.ts';

/** Sound pressure of 0 dB SPL in units where 1 is 94 dB SPL (1 Pa). */
export const splAmplitude = (levelDb: number) => 10 ** ((levelDb - 94) / 20);

/** RMS of a signal behind the A weighting. */
function weightedRms(signal: Float64Array, rateHz: number): number {
  const copy = Float64Array.from(signal);
  for (const section of aWeighting(rateHz)) new Biquad(section).process(copy, copy, copy.length);
  return Math.sqrt(copy.reduce((sum, value) => sum + value * value, 0) / copy.length);
}

/** Noise whose level falls by `slopeDb` per octave between 30 Hz and the top, RMS 1 before weighting. */
export function slopedNoise(length: number, rateHz: number, slopeDb: number, random: RandomSource): Float64Array {
  const noise = Float64Array.from({ length }, () => random.normal());
  const share = Math.min(1, Math.abs(slopeDb) / 6);
  if (share === 0) return noise;
  // Between white and brown: first-order shelves an octave and a half apart, each falling by its share.
  let pole = 30;
  while (pole < rateHz / 3) {
    const zero = pole * 2 ** (1.5 * share);
    const p = Math.exp((-2 * Math.PI * pole) / rateHz);
    const z = Math.exp((-2 * Math.PI * zero) / rateHz);
    let lastIn = 0;
    let lastOut = 0;
    for (let index = 0; index < length; index++) {
      const x = noise[index] as number;
      lastOut = p * lastOut + x - z * lastIn;
      lastIn = x;
      noise[index] = lastOut;
    }
    pole *= 2 ** 1.5;
  }
  return noise;
}

/** The steady noise of a place as a microphone with directivity factor 1 hears it; 1 is 1 Pa. */
export function placeNoise(place: SimulatedPlace, length: number, rateHz: number, random: RandomSource): Float64Array {
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
    for (let index = 0; index < engine.length; index++) {
      engine[index] = (engine[index] as number) + amplitude * Math.sin((2 * Math.PI * frequency * index) / rateHz + phase);
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

/** Loss of each windscreen against wind, in dB. */
const SCREEN_LOSS_DB: Record<string, number> = { bare: 0, foam: 12, fur: 24 };
/** Loss of each windscreen above about 5 kHz, in dB. */
export const SCREEN_TOP_LOSS_DB: Record<string, number> = { bare: 0, foam: 0.5, fur: 2 };

/** A gust: when it blew and how strong it was. */
export interface Gust {
  startS: number;
  endS: number;
  levelDb: number;
}

/**
 * Wind on a capsule: low noise that falls steeply above some tens of hertz and comes in gusts, with a
 * level that grows by about 17 dB per doubling of the speed.
 */
export function windNoise(
  wind: { speedMs: number; screen: string; sensitivityDb: number },
  length: number,
  rateHz: number,
  random: RandomSource,
): { signal: Float64Array; gusts: Gust[] } {
  const signal = new Float64Array(length);
  if (wind.speedMs <= 0) return { signal, gusts: [] };
  for (let index = 0; index < length; index++) signal[index] = random.normal();
  const corner = 25 + 9 * wind.speedMs;
  for (const section of [lowPass(corner, Math.SQRT1_2, rateHz), lowPass(corner * 2.4, 0.6, rateHz), highPass(18, Math.SQRT1_2, rateHz)]) {
    new Biquad(section).process(signal, signal, length);
  }
  const rms = Math.sqrt(signal.reduce((sum, value) => sum + value * value, 0) / length);
  const levelDb = 62 + 17 * Math.log2(wind.speedMs / 2) + wind.sensitivityDb - (SCREEN_LOSS_DB[wind.screen] ?? 0);
  const scale = splAmplitude(levelDb) / rms;
  const gusts: Gust[] = [];
  const lengthS = length / rateHz;
  for (let startS = 0.4 + 1.5 * random.uniform(); startS < lengthS; startS += 1.2 + 2.6 * random.uniform()) {
    const endS = Math.min(lengthS, startS + 0.3 + 0.8 * random.uniform());
    gusts.push({ startS, endS, levelDb: levelDb + 6 + 6 * random.uniform() });
    startS = endS;
  }
  const envelope = new Float64Array(length).fill(0.35);
  for (const gust of gusts) {
    const from = Math.round(gust.startS * rateHz);
    const to = Math.round(gust.endS * rateHz);
    const height = 10 ** ((gust.levelDb - levelDb) / 20);
    for (let index = from; index < to; index++) {
      envelope[index] = Math.max(envelope[index] as number, height * Math.sin((Math.PI * (index - from)) / (to - from)) ** 2);
    }
  }
  for (let index = 0; index < length; index++) signal[index] = (signal[index] as number) * scale * (envelope[index] as number);
  return { signal, gusts };
}
