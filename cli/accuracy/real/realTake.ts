import { Cascade, highPass, lowPass } from '@marvet/core/audio/biquad';
import { resample } from '@marvet/core/audio/resample';
import { CLOTHS, FRICTION_HZ } from '@marvet/core/simulate/cloth';
import { convolved } from '@marvet/core/simulate/convolve';
import { withGaps } from '@marvet/core/simulate/dryVoice';
import { eyringS, microphoneIn, roomResponse } from '@marvet/core/simulate/imageRoom';
import type { LabelledEvent } from '@marvet/core/simulate/labelledTake';
import { burst, fade, mute, repeat } from '@marvet/core/simulate/linkFaults';
import { rmsOf, slopedNoise } from '@marvet/core/simulate/noiseBed';
import { type RandomSource, randomSource, seedOf } from '@marvet/core/simulate/random';
import { layClick, layRustle } from '@marvet/core/simulate/touches';
import { windNoise } from '@marvet/core/simulate/windNoise';
import { RATE_HZ } from './decoded.ts';
import { isCoveredBy } from './isCoveredBy.ts';
import { noiseOf, quietestOf } from './ownNoise.ts';
import { playedOn } from './playedOn.ts';
import { popsOf } from './pops.ts';
import { type Half, talkersOf, wordsOf } from './talkers.ts';
import { type ThingKind, thing, thingsOf } from './things.ts';

/** What is laid over a recorded talker. Those of the second row ought to give no event at all. */
export const REAL_GROUPS = [
  ...(['knocks', 'rubbing', 'things', 'gusts', 'steady wind', 'wind behind a low-cut', 'mutes', 'fades', 'bursts', 'repeats', 'clicks'] as const),
  ...(['calm', 'steady noise', 'music', 'room'] as const),
] as const;
export type RealGroup = (typeof REAL_GROUPS)[number];

/** A talker who was recorded, with what was laid over the recording, and where. */
export interface RealTake {
  samples: Float64Array;
  /** What was said, before anything was laid over it; longer than the take where a room rings on. */
  voice: Float64Array;
  events: (Omit<LabelledEvent, 'kind'> & { kind: LabelledEvent['kind'] | 'disturbance'; isCovered?: boolean })[];
  /** Where the talker's own breath popped the recording's microphone: what is found there is no mistake. */
  pops: { startS: number; endS: number }[];
  /** RMS of the noise between words, in dBFS: the bed that was laid and the noise of the talker's own recording. */
  floorDbfs: number;
  /** Noise of the talker's own recording, in dBFS; within `voice` where words are, in the bed everywhere else. */
  ownNoiseDbfs: number;
  /** That noise as it lies within the words. */
  underWords: Float64Array;
  /** Decay of the room, mean of 500 Hz and 1 kHz; null in the open. */
  decayS: number | null;
  /** What the room makes of a click; null in the open. */
  response: Float64Array | null;
}

/** Level of the words, and so of everything that is laid against them. */
const VOICE_DBFS = -26;
/** Sound pressure that has this level in the file. */
const VOICE_DB_SPL = 70;
const WORDS = 12;
const WORDS_KNOWN = 40;
const MUSIC = {
  tuning: ['loop_garzul', 'ambi_piano', 'loop_tabla', 'loop_safari', 'loop_perc1', 'guit_harmonics', 'loop_mehackit1', 'loop_drone_g_97', 'loop_industrial', 'ambi_choir'],
  held: ['loop_compus', 'guit_em9', 'loop_mika', 'loop_perc2', 'loop_weirdo', 'ambi_lunar_land', 'loop_mehackit2', 'loop_electric'],
} as const;

const amplitude = (db: number) => 10 ** (db / 20);

/**
 * Renders a take of a group from a seed, with the talkers and things of one half.
 * @param anybodySpeaks without it all is as it was, but for the words
 */
export function realTake(seed: string, group: RealGroup, half: Half, folder: string, anybodySpeaks = true): RealTake {
  const random = randomSource(seedOf(seed, group, half));
  const among = <T>(list: readonly T[]) => list[Math.floor(random.uniform() * list.length)] as T;
  const between = (from: number, to: number) => from + (to - from) * random.uniform();
  const words = speech(among(talkersOf(half)), folder, random, half === 'tuning');
  const spoken = anybodySpeaks ? words.voice : new Float64Array(words.voice.length);
  let voice = spoken;
  let decayS: number | null = null;
  let response: Float64Array | null = null;
  if (group === 'room') ({ voice, decayS, response } = inRoom(spoken, among([0.4, 0.7, 1, 1.5, 2, 2.5]), random));
  const length = voice.length;
  const bedDbfs = group === 'steady noise' ? between(-52, -44) : between(-70, -62);
  const noise = slopedNoise(length, RATE_HZ, among([0, -3, -5]), random);
  const scale = amplitude(bedDbfs) / rmsOf(noise);
  // The noise of the talker's recording goes on between the words; cut off with each of them it would be a gate's doing.
  const own = noiseOf(words.noise, length, random);
  const ownRms = rmsOf(own);
  const floorDbfs = 10 * Math.log10(amplitude(bedDbfs) ** 2 + ownRms ** 2);
  const isWord = (index: number) => (anybodySpeaks ? (words.isWord[index] ?? 0) : 0);
  const underWords = own.map((x, index) => x * isWord(index));
  let samples: Float64Array = voice.map((x, index) => x + scale * (noise[index] as number) + (own[index] as number) * Math.sqrt(1 - isWord(index) ** 2));
  const events: RealTake['events'] = [];
  // Few things are in the tuning half: played faster or slower each is another.
  const heardAs = (shape: Float64Array) => (half === 'tuning' ? atSpeed(shape, between(0.7, 1.45)) : shape);
  const lay = (kind: ThingKind, shape: Float64Array, atS: number, peak: number) => {
    const start = Math.round(atS * RATE_HZ);
    for (let index = 0; index < shape.length && start + index < length; index++) samples[start + index] = (samples[start + index] as number) + peak * (shape[index] as number);
    const [from, to] = heardPart(shape);
    const isCovered = isCoveredBy(voice, start, shape, peak, floorDbfs);
    events.push({ kind, startS: atS + from, endS: atS + to, isCovered });
  };
  const moments = spread(4, length / RATE_HZ, 1.6, random);
  if (group === 'knocks')
    for (const at of moments)
      lay(
        'handling',
        throughPole(heardAs(thing(among(thingsOf('handling', half)), folder, 0.5)), half === 'tuning' ? between(80, 600) : among([120, 250, 450])),
        at,
        amplitude(VOICE_DBFS + between(3, 15)),
      );
  if (group === 'things') {
    for (const at of moments) {
      const shape = heardAs(thing(among(thingsOf('disturbance', half)), folder, 1));
      lay('disturbance', shape, at, amplitude(VOICE_DBFS + between(-10, 0)) / rmsOf(shape));
    }
  }
  if (group === 'rubbing') {
    for (const at of moments) {
      const shape = rubbed(among(CLOTHS), random.uniform() < 0.5 ? heardAs(thing(among(thingsOf('rustle', half)), folder, 1)) : null, random);
      lay('rustle', shape, at, amplitude(VOICE_DBFS - between(6, 16)) / rmsOf(shape));
    }
  }
  if (group === 'gusts' || group === 'steady wind' || group === 'wind behind a low-cut') {
    const wind = windNoise({ speedMs: group === 'steady wind' ? between(6, 9) : between(3, 6), screen: among(['bare', 'foam']), sensitivityDb: 0 }, length, RATE_HZ, random);
    if (group === 'wind behind a low-cut') new Cascade([highPass(120, Math.SQRT1_2, RATE_HZ)]).process(wind.signal, wind.signal, length);
    const gain = amplitude(VOICE_DBFS - (VOICE_DB_SPL - 94));
    samples = samples.map((x, index) => x + gain * (wind.signal[index] as number));
    for (const { startS, endS } of wind.gusts) events.push({ kind: 'wind', startS: startS + 0.2 * (endS - startS), endS: endS - 0.2 * (endS - startS) });
  }
  if (group === 'music') {
    const played = thing(`usr/share/sonic-pi/samples/${among(MUSIC[half])}.flac`, folder, 20);
    const level = amplitude(VOICE_DBFS - 12) / rmsOf(played);
    const music = playedOn(played, length);
    samples = samples.map((x, index) => x + level * (music[index] as number));
  }
  const linkFault = ({ mutes: mute, fades: fade, bursts: burst, repeats: repeat } as Partial<Record<RealGroup, typeof mute>>)[group];
  if (linkFault) for (const at of spread(12, length / RATE_HZ, 0.4, random)) events.push({ kind: 'dropout', ...linkFault(samples, RATE_HZ, at, random) });
  if (group === 'clicks') for (const at of spread(6, length / RATE_HZ, 0.4, random)) events.push({ kind: 'click', ...layClick(samples, RATE_HZ, at, between(0.05, 0.3), random) });
  return {
    samples,
    voice,
    pops: popsOf(spoken, RATE_HZ),
    events: events.sort((a, b) => a.startS - b.startS),
    floorDbfs,
    ownNoiseDbfs: 20 * Math.log10(Math.max(ownRms, 1e-9)),
    underWords,
    decayS,
    response,
  };
}

/** Words with pauses between them, where a word is (0 to 1, faded at its edges), and the spectrum of the noise that is in them. */
interface Speech {
  voice: Float64Array;
  isWord: Float64Array;
  noise: Float64Array;
}

/** Words of one talker with pauses as people make them, at the level of speech. */
function speech(talker: string, folder: string, random: RandomSource, varied: boolean): Speech {
  const { words: known, noise } = quietestOf(wordsOf(talker, folder, WORDS_KNOWN));
  // Ten talkers are few to learn voices from: heard faster or slower each is another, lower or higher.
  const speed = varied ? 0.78 + 0.44 * random.uniform() : 1;
  const words = Array.from({ length: WORDS }, () => atSpeed(known[Math.floor(random.uniform() * known.length)] as Float64Array, speed));
  const gapsS = Array.from({ length: WORDS + 1 }, () => 0.25 + 0.75 * random.uniform());
  const withPauses = (clips: readonly Float64Array[]) => withGaps([new Float64Array(RATE_HZ / 2), ...clips, new Float64Array(RATE_HZ)], gapsS, RATE_HZ);
  const voice = withPauses(words.map(faded));
  const peak = voice.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  const gain = amplitude(VOICE_DBFS) / rmsOf(voice.filter((x) => Math.abs(x) > 0.03 * peak));
  return {
    voice: voice.map((x) => x * gain),
    isWord: withPauses(words.map((word) => faded(new Float64Array(word.length).fill(1)))),
    noise: noise.map((_, bin, bins) => ((bins[Math.round(bin / speed)] ?? 0) * gain ** 2) / speed),
  };
}

/** A clip that was cut out of a recording begins and ends with its noise; an edge of that would be a click. */
function faded(word: Float64Array): Float64Array {
  const edge = Math.min(Math.round(0.012 * RATE_HZ), word.length >> 1);
  return word.map((x, index) => x * Math.min(1, index / edge, (word.length - 1 - index) / edge));
}

function inRoom(voice: Float64Array, decayS: number, random: RandomSource): { voice: Float64Array; decayS: number; response: Float64Array } {
  const sizeM = [4 + 4 * decayS, 3 + 3 * decayS, 2.5 + decayS] as const;
  const share = absorptionFor(sizeM, decayS);
  const absorption = [0.9, 0.95, 1, 1, 1.1, 1.3].map((each) => Math.min(0.9, each * share));
  const talkerM = [0.4 * sizeM[0], 0.4 * sizeM[1], 1.5] as const;
  const distanceM = 0.6 + 0.8 * random.uniform();
  const room = { sizeM, absorption, talkerM, microphoneM: microphoneIn(sizeM, talkerM, distanceM, 6 * random.uniform(), 0.2), pattern: { pressureShare: 0.5, tubeM: 0 } };
  const [, , at500, at1000] = eyringS(room) as [number, number, number, number];
  const tail = new Float64Array(voice.length + Math.round(decayS * RATE_HZ));
  tail.set(voice);
  const response = roomResponse(room, RATE_HZ, random);
  return { response, voice: convolved(tail, response).map((x) => x * distanceM), decayS: (at500 + at1000) / 2 };
}

/** Share that all walls take up for a room to ring so long: Eyring's formula turned round. */
function absorptionFor([x, y, z]: readonly [number, number, number], decayS: number): number {
  return 1 - Math.exp((-0.161 * x * y * z) / (2 * (x * y + y * z + x * z) * decayS));
}

/** What a pole, a cable or a chest lets through of a knock, its peak at 1. */
function throughPole(shape: Float64Array, cornerHz: number): Float64Array {
  const out = new Float64Array(shape.length + RATE_HZ / 20);
  out.set(shape);
  new Cascade([lowPass(cornerHz, Math.SQRT1_2, RATE_HZ), lowPass(cornerHz, Math.SQRT1_2, RATE_HZ), highPass(20, Math.SQRT1_2, RATE_HZ)]).process(out, out, out.length);
  const peak = out.reduce((most, x) => Math.max(most, Math.abs(x)), 1e-9);
  return out.map((x) => x / peak);
}

/** Friction of a cloth: what was recorded through its part of the spectrum, or rendered where nothing is given. */
function rubbed(cloth: (typeof CLOTHS)[number], recorded: Float64Array | null, random: RandomSource): Float64Array {
  if (!recorded) {
    const shape = new Float64Array(Math.round((0.4 + 0.6 * random.uniform()) * RATE_HZ));
    layRustle(shape, RATE_HZ, 0, shape.length / RATE_HZ, 90, cloth, random);
    return shape;
  }
  const [fromHz, toHz] = FRICTION_HZ[cloth];
  const shape = stroked(recorded, random);
  new Cascade([highPass(fromHz, 0.6, RATE_HZ), lowPass(toHz, 0.7, RATE_HZ)]).process(shape, shape, shape.length);
  return shape;
}

/** A sound as if it were played at another speed. */
const atSpeed = (shape: Float64Array, speed: number) => resample(shape, RATE_HZ * speed, RATE_HZ);

/** Rubbing lasts: a short stroke comes again and again. */
function stroked(stroke: Float64Array, random: RandomSource): Float64Array {
  const strokes = Math.max(1, Math.ceil((0.3 * RATE_HZ) / stroke.length));
  return withGaps(
    Array.from({ length: strokes }, () => Float64Array.from(stroke)),
    Array.from({ length: strokes - 1 }, () => 0.02 + 0.08 * random.uniform()),
    RATE_HZ,
  );
}

/** From where to where a shape is within 20 dB of its loudest, in seconds from its start. */
function heardPart(shape: Float64Array): [number, number] {
  const threshold = 0.1 * shape.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  const first = shape.findIndex((x) => Math.abs(x) > threshold);
  let last = shape.length - 1;
  while (last > first && Math.abs(shape[last] as number) <= threshold) last--;
  return [first / RATE_HZ, last / RATE_HZ];
}

/** Moments at random within equal parts of a take. */
function spread(count: number, lengthS: number, endS: number, random: RandomSource): number[] {
  const part = (lengthS - 0.6 - endS) / count;
  return Array.from({ length: count }, (_, index) => 0.6 + part * (index + 0.8 * random.uniform()));
}
