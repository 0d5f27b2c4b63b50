import type { FrameBoom, FrameTalker } from '../domain/frame.ts';
import type { Acoustics } from '../domain/station.ts';
import { levelMatch } from '../listen/levelMatch.ts';
import { voiceLoudnessLufs } from '../listen/voiceLoudness.ts';
import { truePeakOf } from '../measure/truePeak.ts';
import { voiceInTake } from '../simulate/hearing.ts';
import { placeNoise, selfNoise } from '../simulate/noiseBed.ts';
import { throughRadio } from '../simulate/radioLink.ts';
import { randomSource, seedOf } from '../simulate/random.ts';
import { windNoise } from '../simulate/windNoise.ts';
import { boomSound } from './boomSound.ts';
import type { Moment } from './takenIn.ts';
import type { Worn } from './wornColour.ts';
import { wornSound } from './wornSound.ts';

/** How far a receiver is, and how far the link is good for. */
interface HeardLink {
  distanceM: number;
  reliableToM: number;
}

/** One microphone to be heard: on a pole or a stand, or on a body. */
export type SetupToHear =
  | { kind: 'boom'; id: string; boom: FrameBoom; selfNoiseDba?: number }
  | { kind: 'worn'; id: string; worn: Worn; talker: number; selfNoiseDba?: number; link?: HeardLink | null };

/** What is rendered: microphones at a place, with somebody's dry words. */
export interface SetupsToHear {
  setups: readonly SetupToHear[];
  talkers: readonly FrameTalker[];
  place: Acoustics;
  voice: Float64Array;
  rateHz: number;
  seed: string;
}

/** What one of them would record, brought to the same loudness of the voice as the others. */
export interface HeardSetup {
  id: string;
  samples: Float32Array;
  /** What was turned up or down for that, in dB. */
  gainDb: number;
}

const LEAD_S = 0.4;
/** A normal voice at 1 m, and the self-noise of a good boom microphone and of a good lavalier. */
const VOICE_DB_SPL = 63;
const SELF_NOISE_DBA = { boom: 14, worn: 27 };
/** 94 dB SPL in the samples. */
const PASCAL = 0.05;
/**
 * Samples are those of 24 bits. Engines differ in the last digit of a sine or a power; rounded, the page and the server
 * render the same bytes.
 */
const STEPS = 2 ** 23;
const LINK_NOISE_DBFS = -90;
const TARGET_LUFS = -23;
const CEILING_DBTP = -1;
const SWELL = 0.2;
const USUAL_SLOPE_DB = -4;

/**
 * What every microphone would record: the voice by distance, mouth, pattern, body, cloth and room, the noise, its sources
 * and the wind of the place, the radio link. Simulated, and no more right than what is known of the place. The same seed gives the same samples.
 * @param onProgress share done, 0 to 1
 */
export function hearSetups({ setups, talkers, place, voice, rateHz, seed }: SetupsToHear, onProgress: (share: number) => void = () => undefined): HeardSetup[] {
  const length = voice.length + Math.round(2 * LEAD_S * rateHz);
  const spoken = voiceInTake(voice, VOICE_DB_SPL, LEAD_S, length, rateHz);
  const bed = place.noiseDba !== null && { noiseDba: place.noiseDba, noiseSlopeDb: place.noiseSlopeDb ?? USUAL_SLOPE_DB, hum: place.hum, swell: SWELL };
  const around = bed ? placeNoise(bed, length, rateHz, randomSource(seedOf(seed, 'noise'))) : null;
  const heard = setups.map((setup, index) => {
    const samples = recorded(setup, { spoken, around, place, talkers, rateHz, seed: `${seed}/${index}` });
    onProgress((index + 1) / setups.length);
    return samples;
  });
  const words: [number, number][] = [[LEAD_S, LEAD_S + voice.length / rateHz]];
  const levels = heard.map((samples) => ({
    integratedLufs: voiceLoudnessLufs(samples, rateHz, words) ?? TARGET_LUFS,
    truePeakDbtp: 20 * Math.log10(Math.max(truePeakOf(samples, rateHz), 1e-6)),
  }));
  const { gainsDb } = levelMatch(levels, TARGET_LUFS, CEILING_DBTP);
  return heard.map((samples, index) => {
    const gainDb = gainsDb[index] as number;
    const factor = 10 ** (gainDb / 20);
    const rounded = new Float32Array(samples.length);
    for (let at = 0; at < rounded.length; at++) rounded[at] = Math.round((samples[at] as number) * factor * STEPS) / STEPS;
    return { id: (setups[index] as SetupToHear).id, samples: rounded, gainDb };
  });
}

/** What one microphone puts into its file: what it takes in, wind, its own noise, and its link. */
function recorded(setup: SetupToHear, moment: Moment): Float64Array {
  const { spoken, place, rateHz, seed } = moment;
  const { sound, screen } = setup.kind === 'boom' ? boomSound(setup.boom, moment) : wornSound(setup.worn, setup.talker, moment);
  const wind = place.windMs ? windNoise({ speedMs: place.windMs, screen, sensitivityDb: 0 }, sound.length, rateHz, randomSource(seedOf(seed, 'wind'))).signal : null;
  const own = selfNoise(setup.selfNoiseDba ?? SELF_NOISE_DBA[setup.kind], sound.length, rateHz, randomSource(seedOf(seed, 'self')));
  const samples = new Float64Array(spoken.length);
  for (let index = 0; index < samples.length; index++) samples[index] = PASCAL * ((sound[index] as number) + (own[index] as number) + (wind ? (wind[index] as number) : 0));
  if (setup.kind === 'boom' || !setup.link) return samples;
  return throughRadio(samples, rateHz, { ...setup.link, noiseDbfs: LINK_NOISE_DBFS }, randomSource(seedOf(seed, 'link'))).signal;
}
