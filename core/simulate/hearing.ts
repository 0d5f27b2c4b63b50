import { type BiquadCoefficients, Cascade, highShelf } from '../audio/biquad.ts';
import { clothSections } from './cloth.ts';
import { convolved } from './convolve.ts';
import { decayTimeOfResponseS } from './decayTime.ts';
import { type ImageRoom, roomResponse } from './imageRoom.ts';
import { diffusePower, type MicrophonePattern, proximitySection } from './microphone.ts';
import { rmsOf, splAmplitude } from './noiseBed.ts';
import { ROOM_BANDS_HZ, withBandGains } from './octaveBands.ts';
import { type Placement, placementSections } from './placement.ts';
import type { RandomSource } from './random.ts';
import { screenOf } from './windNoise.ts';

/** A microphone and what is around and over it. */
export interface Hearing {
  pattern: MicrophonePattern;
  /** From the mouth, on its axis. */
  distanceM: number;
  placement: Placement;
  /** What all cloth over it takes away at the top, in dB. */
  clothLossDb: number;
  /** Lift of the capsule's top end above 6 kHz, in dB. */
  topLiftDb: number;
  screen: string;
}

/** Where talker and microphone stand in a room. */
export type Standing = Omit<ImageRoom, 'pattern'>;

/** Words at their place in a take; 1 is 1 Pa at 1 m. The level is that of the words: quiet samples between them do not count. */
export function voiceInTake(words: Float64Array, levelDbSpl: number, leadS: number, length: number, rateHz: number): Float64Array {
  const scale = splAmplitude(levelDbSpl) / rmsOf(words.filter((x) => Math.abs(x) > 0.01));
  const placed = new Float64Array(length);
  const start = Math.round(leadS * rateHz);
  const fitting = words.subarray(0, Math.max(0, length - start));
  for (let index = 0; index < fitting.length; index++) placed[start + index] = (fitting[index] as number) * scale;
  return placed;
}

/**
 * A voice as a microphone hears it: outdoors by its distance and the proximity effect, in a room through
 * its response; then the place on the body, the cloth, the cap and the windscreen.
 * @param voice as voiceInTake gives it
 * @returns pressure at the capsule, 1 being 1 Pa, and the decay of the room as this microphone hears it
 */
export function voiceHeard(
  voice: Float64Array,
  hearing: Hearing,
  standing: Standing | null,
  rateHz: number,
  random: RandomSource,
): { heard: Float64Array; reverberationS: number | null } {
  const { pattern, distanceM } = hearing;
  let heard: Float64Array;
  let reverberationS: number | null = null;
  if (standing) {
    const response = roomResponse({ ...standing, pattern }, rateHz, random);
    reverberationS = decayTimeOfResponseS(response, rateHz);
    heard = convolved(voice, response);
  } else {
    heard = voice.map((x) => x / distanceM);
  }
  const nearness = standing || pattern.pressureShare === 1 ? [] : [proximitySection(pattern, distanceM, rateHz)];
  through([...nearness, ...placementSections(hearing.placement, rateHz), ...coverSections(hearing, rateHz)], heard);
  return { heard, reverberationS };
}

/** Noise from all around as a microphone hears it: weaker by its directivity, band by band, and through what covers it. */
export function noiseHeard(noise: Float64Array, hearing: Hearing, rateHz: number): Float64Array {
  const gains = ROOM_BANDS_HZ.map((hz) => Math.sqrt(diffusePower(hearing.pattern, hearing.pattern.tubeM === 0 ? 1000 : hz)));
  const heard = withBandGains(noise, gains, rateHz);
  through(coverSections(hearing, rateHz), heard);
  return heard;
}

function coverSections({ clothLossDb, topLiftDb, screen }: Hearing, rateHz: number): BiquadCoefficients[] {
  const { topLossDb } = screenOf(screen);
  return [
    ...clothSections(clothLossDb, rateHz),
    ...(topLiftDb === 0 ? [] : [highShelf(6000, topLiftDb, rateHz)]),
    ...(topLossDb === 0 ? [] : [highShelf(5000, -topLossDb, rateHz)]),
  ];
}

/** Sections in one pass go in threes. */
const AT_ONCE = 3;

function through(sections: readonly BiquadCoefficients[], signal: Float64Array): void {
  for (let first = 0; first < sections.length; first += AT_ONCE) new Cascade(sections.slice(first, first + AT_ONCE)).process(signal, signal, signal.length);
}
