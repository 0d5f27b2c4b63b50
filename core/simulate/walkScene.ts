import { filled } from '../audio/filled.ts';
import { fieldDb } from './radioFading.ts';
import { randomSource } from './random.ts';

/** One moment of a simulated range walk: where the talker is, and what devices beside the receiver would read. */
export interface WalkMoment {
  distanceM: number;
  /** Off the line of the walk, to the right of somebody going out. */
  asideM: number;
  side: 'facing' | 'turned';
  heading: 'out' | 'back';
  /** Of both aerials of each channel, in dBm. */
  radioDbm: [a: number, b: number][];
  /** Whether each channel is muted: both aerials under what it needs. */
  muted: boolean[];
  audioDbfs: number[];
  soundDba: number;
  windMs: number;
}

/** A walk out along a line and back, over and over, with two transmitters on the talker. */
export interface WalkScene {
  /** How long it takes to be back at the start. */
  lengthS: number;
  at(seconds: number): WalkMoment;
}

export interface WalkSceneOptions {
  seed: number;
  toM?: number;
  speedMs?: number;
  /** Of each channel, in dBm: the stronger aerial must stand over it. */
  needsDbm?: readonly number[];
  /** Where a line crosses the way and raises the noise on air, in metres. */
  powerLineM?: number;
}

const NEAREST_M = 1.5;
const TURN_S = 8;
const REST_S = 6;
/** 10 mW into a plain whip, a metre away. */
const AT_A_METRE_DBM = -22;
/** A body in the way at 600 MHz, about what trunk models and measurements give. */
const BODY_DB = 14;
/** A wavelength of half a metre passes so many nodes a second at a walk. */
const FADES_PER_S = 2.4;
const STEP_S = 0.001;
const LINE_REACH_M = 5;
const LINE_NOISE_DB = 28;

/**
 * A range walk as devices see it. Power falls with the square of the distance and, past the point where the ground's reflection
 * takes over, with its fourth power (two-ray model: T. S. Rappaport, Wireless Communications, 2002, section 4.6); a body takes its part while the
 * talker walks away; each aerial fades by itself (Rayleigh).
 */
export function walkScene({ seed, toM = 120, speedMs = 1.3, needsDbm = [-86, -80], powerLineM = 70 }: WalkSceneOptions): WalkScene {
  const random = randomSource(seed);
  const legS = (toM - NEAREST_M) / speedMs;
  const lengthS = 2 * legS + TURN_S + REST_S;
  const fields = needsDbm.map(() => [fieldDb(lengthS, FADES_PER_S, random), fieldDb(lengthS, FADES_PER_S, random)] as const);
  const slow = (spreadOf: number, everyS: number) => {
    const points = filled(Math.ceil(lengthS / everyS) + 2, () => spreadOf * random.normal());
    return (seconds: number) => {
      const place = seconds / everyS;
      const index = Math.floor(place);
      const share = place - index;
      return (points[index] as number) * (1 - share) + (points[index + 1] as number) * share;
    };
  };
  const gust = slow(1.1, 2.5);
  const hum = slow(1.5, 1);
  const aside = slow(0.5, 12);
  const voice = slow(6, 0.4);
  return {
    lengthS,
    at(seconds) {
      const t = ((seconds % lengthS) + lengthS) % lengthS;
      const out = t < legS + TURN_S / 2;
      const along = t < legS ? t * speedMs : t < legS + TURN_S ? legS * speedMs : Math.max(0, legS * speedMs - (t - legS - TURN_S) * speedMs);
      const distanceM = NEAREST_M + along;
      const noiseDb = LINE_NOISE_DB / (1 + ((distanceM - powerLineM) / LINE_REACH_M) ** 2);
      const meanDbm = AT_A_METRE_DBM - 20 * Math.log10(distanceM) - 10 * Math.log10(1 + (distanceM / 60) ** 2) - (out ? BODY_DB : 0);
      const step = Math.min(fields[0]?.[0].length ?? 1, Math.floor(t / STEP_S) + 1) - 1;
      const radioDbm = fields.map(([a, b]): [number, number] => [meanDbm + (a[step] as number), meanDbm + (b[step] as number)]);
      const muted = radioDbm.map((levels, channel) => Math.max(...levels) < (needsDbm[channel] as number) + noiseDb);
      return {
        distanceM,
        asideM: aside(t),
        side: out ? 'turned' : 'facing',
        heading: out ? 'out' : 'back',
        radioDbm,
        muted,
        audioDbfs: muted.map((silent) => (silent ? -90 : -22 + voice(t))),
        soundDba: 41 + hum(t) + Math.max(0, voice(t)) / 2,
        windMs: Math.max(0, 2.6 + gust(t)),
      };
    },
  };
}
