import type { SimulatedCandidate } from './candidate.ts';
import { type Hearing, noiseHeard, type Standing, voiceHeard, voiceInTake } from './hearing.ts';
import { microphoneIn, type Point, type Walls } from './imageRoom.ts';
import { placeNoise, rmsOf, selfNoise, splAmplitude } from './noiseBed.ts';
import type { SimulatedPlace } from './place.ts';
import { type Dropout, throughRadio } from './radioLink.ts';
import { randomSource, seedOf } from './random.ts';
import { type Gust, windNoise } from './windNoise.ts';

/** What is to be rendered: one performance, heard by several candidates at once. */
export interface SimulatedTake {
  seed: string;
  sampleRateHz: number;
  /** Dry voice, any level; null for a take of silence. */
  voice: Float64Array | null;
  /** Level of the voice at 1 m in the open, in dB SPL over the words. */
  voiceDbSpl: number;
  /** Silence before and after the words, in seconds. */
  leadS: number;
  lengthS: number;
  distanceM: number;
  screen: string;
  place: SimulatedPlace;
  candidates: readonly SimulatedCandidate[];
}

/** What is known of a rendered channel. */
export interface ChannelTruth {
  candidateId: string;
  voiceDbfs: number | null;
  dropouts: Dropout[];
  gusts: Gust[];
  clippedSamples: number;
}

/** A rendered take: a channel a candidate, with its truth. The same seed gives the same samples. */
export interface RenderedTake {
  channels: Float64Array[];
  truth: ChannelTruth[];
}

export function renderTake(take: SimulatedTake): RenderedTake {
  const { sampleRateHz: rateHz, seed } = take;
  const length = Math.round(take.lengthS * rateHz);
  const voice = take.voice && voiceInTake(take.voice, take.voiceDbSpl, take.leadS, length, rateHz);
  const noise = placeNoise(take.place, length, rateHz, randomSource(seedOf(seed, 'noise')));
  const rendered = take.candidates.map((candidate) => hear(take, candidate, voice, noise));
  return { channels: rendered.map((each) => each.samples), truth: rendered.map((each) => each.truth) };
}

/** Nearer than this no boom comes to a mouth. */
const LEAST_BOOM_M = 0.2;

function hear(take: SimulatedTake, candidate: SimulatedCandidate, voice: Float64Array | null, noise: Float64Array): { samples: Float64Array; truth: ChannelTruth } {
  const { sampleRateHz: rateHz, seed, screen, place } = take;
  const { length } = noise;
  const random = randomSource(seedOf(seed, candidate.id));
  const hearing: Hearing = { ...candidate, screen, distanceM: candidate.wornAtM ?? Math.max(LEAST_BOOM_M, take.distanceM) };
  const pressure = noiseHeard(noise, hearing, rateHz);
  if (voice) {
    const standing = place.walls && standingIn(place.walls, hearing.distanceM, candidate.wornAtM !== null);
    const { heard } = voiceHeard(voice, hearing, standing, rateHz, randomSource(seedOf(seed, candidate.id, 'room')));
    for (let index = 0; index < length; index++) pressure[index] = (pressure[index] as number) + (heard[index] as number);
  }
  const wind = windNoise({ speedMs: place.windMs, screen, sensitivityDb: candidate.windSensitivityDb }, length, rateHz, random);
  const own = selfNoise(candidate.selfNoiseDba, length, rateHz, random);
  const gain = 10 ** (candidate.gainDbfs / 20);
  const limit = Math.min(splAmplitude(candidate.maxSplDb) * Math.SQRT2 * gain, 0.9999);
  let clippedSamples = 0;
  for (let index = 0; index < length; index++) {
    const scaled = ((pressure[index] as number) + (wind.signal[index] as number) + (own[index] as number)) * gain;
    if (Math.abs(scaled) >= limit) clippedSamples++;
    pressure[index] = Math.max(-limit, Math.min(limit, scaled));
  }
  const radio = candidate.radio ? throughRadio(pressure, rateHz, { ...candidate.radio, distanceM: take.distanceM }, random) : { signal: pressure, dropouts: [] };
  const voiceRms = voice ? rmsOf(voice) / hearing.distanceM : 0;
  return {
    samples: radio.signal,
    truth: {
      candidateId: candidate.id,
      voiceDbfs: voiceRms > 0 ? 20 * Math.log10(voiceRms * gain) : null,
      dropouts: radio.dropouts,
      gusts: wind.gusts,
      clippedSamples,
    },
  };
}

/** A talker off the middle of a room, the microphone before and a little over the mouth, or worn under it. */
function standingIn(walls: Walls, distanceM: number, worn: boolean): Standing {
  const [x, y, z] = walls.sizeM;
  const talkerM: Point = [0.36 * x, 0.43 * y, Math.min(1.6, 0.7 * z)];
  return { ...walls, talkerM, microphoneM: microphoneIn(walls.sizeM, talkerM, distanceM, 0, worn ? -1.2 : 0.35) };
}
