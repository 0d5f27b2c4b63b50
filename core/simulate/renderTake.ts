import { Biquad, highShelf, peaking } from '../audio/biquad.ts';
import type { SimulatedCandidate } from './candidate.ts';
import { type Gust, placeNoise, SCREEN_TOP_LOSS_DB, selfNoise, splAmplitude, windNoise } from './noiseBed.ts';
import type { SimulatedPlace } from './place.ts';
import { type Dropout, throughRadio } from './radioLink.ts';
import { randomSource, seedOf } from './random.ts';
import { reverberant } from './room.ts';

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
  const rateHz = take.sampleRateHz;
  const length = Math.round(take.lengthS * rateHz);
  const voice = placedVoice(take, length);
  const room = voice && take.place.reverberationS > 0 ? reverberant(voice, rateHz, take.place.reverberationS, randomSource(seedOf(take.seed, 'room'))) : null;
  const noise = placeNoise(take.place, length, rateHz, randomSource(seedOf(take.seed, 'noise')));
  const voiceRms = voice ? Math.sqrt(voice.reduce((sum, value) => sum + value * value, 0) / length) : 0;
  const rendered = take.candidates.map((candidate) => hear(take, candidate, { voice, room, noise, voiceRms }, length));
  return { channels: rendered.map((each) => each.samples), truth: rendered.map((each) => each.truth) };
}

/** The words at their place in the take, brought to their level at 1 m; 1 is 1 Pa. */
function placedVoice(take: SimulatedTake, length: number): Float64Array | null {
  if (!take.voice) return null;
  const placed = new Float64Array(length);
  const start = Math.round(take.leadS * take.sampleRateHz);
  placed.set(take.voice.subarray(0, Math.max(0, length - start)), start);
  // The level is that of the words, so quiet samples between them do not count.
  const loud = take.voice.filter((value) => Math.abs(value) > 0.01);
  const rms = Math.sqrt(loud.reduce((sum, value) => sum + value * value, 0) / Math.max(1, loud.length));
  const scale = splAmplitude(take.voiceDbSpl) / rms;
  return placed.map((value) => value * scale);
}

interface Sources {
  voice: Float64Array | null;
  room: Float64Array | null;
  noise: Float64Array;
  voiceRms: number;
}

function addScaled(into: Float64Array, signal: Float64Array, gain: number): void {
  for (let index = 0; index < into.length; index++) into[index] = (into[index] as number) + gain * (signal[index] as number);
}

function hear(take: SimulatedTake, candidate: SimulatedCandidate, sources: Sources, length: number): { samples: Float64Array; truth: ChannelTruth } {
  const rateHz = take.sampleRateHz;
  const random = randomSource(seedOf(take.seed, candidate.id));
  const distanceM = candidate.wornAtM ?? Math.max(0.2, take.distanceM);
  const directGain = 1 / distanceM;
  // Diffuse sound reaches a directional microphone weaker by its directivity factor.
  const diffuseGain = 1 / Math.sqrt(candidate.directivity);
  const reverberantGain = take.place.reverberationS > 0 ? diffuseGain / take.place.criticalDistanceM : 0;
  const pressure = new Float64Array(length);
  addScaled(pressure, sources.noise, diffuseGain);
  if (sources.voice) addScaled(pressure, sources.voice, directGain);
  if (sources.room) addScaled(pressure, sources.room, reverberantGain);
  for (const section of coloration(take, candidate)) section.process(pressure, pressure, length);
  const voiceRms = sources.voiceRms * directGain;
  const wind = windNoise({ speedMs: take.place.windMs, screen: take.screen, sensitivityDb: candidate.windSensitivityDb }, length, rateHz, random);
  const own = selfNoise(candidate.selfNoiseDba, length, rateHz, random);
  const ceiling = splAmplitude(candidate.maxSplDb) * Math.SQRT2;
  const gain = 10 ** (candidate.gainDbfs / 20);
  const limit = Math.min(ceiling * gain, 0.9999);
  let clippedSamples = 0;
  for (let index = 0; index < length; index++) {
    const value = (pressure[index] as number) + (wind.signal[index] as number) + (own[index] as number);
    const scaled = value * gain;
    if (Math.abs(scaled) >= limit) clippedSamples++;
    pressure[index] = Math.max(-limit, Math.min(limit, scaled));
  }
  const radio = candidate.radio ? throughRadio(pressure, rateHz, { ...candidate.radio, distanceM: take.distanceM }, random) : { signal: pressure, dropouts: [] };
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

/** Colour of the place on the body, the cloth, the cap and the windscreen. */
function coloration(take: SimulatedTake, candidate: SimulatedCandidate): Biquad[] {
  const rateHz = take.sampleRateHz;
  const sections = [];
  if (candidate.wornAtM !== null) {
    // At the breastbone the chest lifts the low-mids and the chin shades the top.
    sections.push(peaking(650, 5, 0.9, rateHz), highShelf(3500, -6, rateHz));
  }
  if (candidate.clothLossDb !== 0) sections.push(highShelf(3000, -candidate.clothLossDb, rateHz));
  if (candidate.topLiftDb !== 0) sections.push(highShelf(6000, candidate.topLiftDb, rateHz));
  const topLoss = SCREEN_TOP_LOSS_DB[take.screen] ?? 0;
  if (topLoss > 0) sections.push(highShelf(5000, -topLoss, rateHz));
  return sections.map((section) => new Biquad(section));
}
