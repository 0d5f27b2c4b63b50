import { Biquad, highPass } from '../audio/biquad.ts';
import { rmsOf, slopedNoise, splAmplitude } from './noiseBed.ts';
import type { RandomSource } from './random.ts';

/** What is over a capsule against wind. */
interface Screen {
  /** Loss against wind, in dB. */
  lossDb: number;
  /** Loss of the voice above about 5 kHz, in dB. */
  topLossDb: number;
  /**
   * Slope of the power per hertz, in dB an octave. Turbulence that meets a bare capsule falls by its
   * velocity's -5/3 power; inside a screen its pressure is heard, which falls by -7/3 (Kolmogorov's
   * inertial range). An octave band is twice as wide as the one below: in bands that is 2 and 4 dB an octave.
   */
  slopeDb: number;
}

const octavesDb = (power: number) => 10 * Math.log10(2) * power;
const SCREENS: Record<string, Screen> = {
  bare: { lossDb: 0, topLossDb: 0, slopeDb: octavesDb(-5 / 3) },
  foam: { lossDb: 12, topLossDb: 0.5, slopeDb: octavesDb(-2) },
  fur: { lossDb: 24, topLossDb: 2, slopeDb: octavesDb(-7 / 3) },
};

/** A windscreen by its name; one that is not known is taken as none. */
export function screenOf(name: string): Screen {
  return SCREENS[name] ?? (SCREENS.bare as Screen);
}

export const SCREEN_NAMES = ['bare', 'foam', 'fur'] as const;

/** Level of wind on a capsule while it blows evenly, in dB SPL: 62 dB at 2 m/s on a bare one, about 17 dB more per doubling of the speed, less by what the screen takes. */
export const windLevelDb = ({ speedMs, screen, sensitivityDb }: WindOnCapsule): number => 62 + 17 * Math.log2(speedMs / 2) + sensitivityDb - screenOf(screen).lossDb;

/** A gust: when it blew and how strong it was. */
export interface Gust {
  startS: number;
  endS: number;
  levelDb: number;
}

/** Wind on a capsule. */
export interface WindOnCapsule {
  speedMs: number;
  screen: string;
  /** How much more or less it takes than a bare omnidirectional capsule, in dB. */
  sensitivityDb: number;
}

/**
 * Wind on a capsule: turbulence whose octave bands fall by 2 dB an octave on a bare capsule and by up to
 * 4 behind a screen, in gusts, with a level that grows by about 17 dB per doubling of the speed.
 */
export function windNoise(wind: WindOnCapsule, length: number, rateHz: number, random: RandomSource): { signal: Float64Array; gusts: Gust[] } {
  if (wind.speedMs <= 0) return { signal: new Float64Array(length), gusts: [] };
  const screen = screenOf(wind.screen);
  const signal = slopedNoise(length, rateHz, screen.slopeDb, random);
  new Biquad(highPass(18, Math.SQRT1_2, rateHz)).process(signal, signal, length);
  const levelDb = windLevelDb(wind);
  const scale = splAmplitude(levelDb) / rmsOf(signal);
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
