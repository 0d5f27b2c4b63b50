import type { FrameBoom, FrameDraft, FrameTalker } from '../domain/frame.ts';
import type { Acoustics } from '../domain/station.ts';
import { levelMatch } from '../listen/levelMatch.ts';
import { voiceLoudnessLufs } from '../listen/voiceLoudness.ts';
import { truePeakOf } from '../measure/truePeak.ts';
import { type Hearing, noiseHeard, type Standing, voiceHeard, voiceInTake } from '../simulate/hearing.ts';
import type { Point } from '../simulate/imageRoom.ts';
import { placeNoise, selfNoise } from '../simulate/noiseBed.ts';
import { ROOM_BANDS_HZ, withBandGains } from '../simulate/octaveBands.ts';
import { randomSource, seedOf } from '../simulate/random.ts';
import { windNoise } from '../simulate/windNoise.ts';
import { looksTo, mouthOf, tipOf } from './boomPlace.ts';
import { mouthDb } from './mouth.ts';
import { angleBetween, between, distanceBetween } from './point.ts';

/** What is rendered: a frame at a place, with somebody's dry words. */
export interface FrameToHear {
  frame: Pick<FrameDraft, 'talkers' | 'booms'>;
  place: Acoustics;
  voice: Float64Array;
  rateHz: number;
  seed: string;
}

/** What one boom would record, brought to the same loudness of the voice as the others. */
export interface HeardBoom {
  boomId: string;
  samples: Float32Array;
  /** What was turned up or down for that, in dB. */
  gainDb: number;
}

/** Nearer than this a mouth is no point any more, and inverse distance tells nothing. */
const LEAST_M = 0.05;
const LEAD_S = 0.4;
/** A normal voice at 1 m, and the self-noise of a good boom microphone. */
const VOICE_DB_SPL = 63;
const SELF_NOISE_DBA = 14;
/** 94 dB SPL in the samples. */
const PASCAL = 0.05;
const TARGET_LUFS = -23;
const CEILING_DBTP = -1;
const SWELL = 0.2;
const USUAL_SLOPE_DB = -4;
const WALL_MARGIN_M = 0.12;

/**
 * What every boom of a frame would record: the voice by distance, mouth, pattern and room, the noise and the wind of the
 * place. Simulated, and no more right than what is known of the place. The same seed gives the same samples.
 * @param onProgress share done, 0 to 1
 */
export function hearFrame({ frame, place, voice, rateHz, seed }: FrameToHear, onProgress: (share: number) => void = () => undefined): HeardBoom[] {
  const length = voice.length + Math.round(2 * LEAD_S * rateHz);
  const spoken = voiceInTake(voice, VOICE_DB_SPL, LEAD_S, length, rateHz);
  const noise =
    place.noiseDba === null
      ? null
      : placeNoise(
          { noiseDba: place.noiseDba, noiseSlopeDb: place.noiseSlopeDb ?? USUAL_SLOPE_DB, hum: place.hum, swell: SWELL },
          length,
          rateHz,
          randomSource(seedOf(seed, 'noise')),
        );
  const heard = frame.booms.map((boom, index) => {
    const samples = boomSound(boom, frame.talkers[boom.aimsAt] as FrameTalker, place, spoken, noise, rateHz, `${seed}/${index}`);
    onProgress((index + 1) / frame.booms.length);
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
    return { boomId: (frame.booms[index] as FrameBoom).id, samples: Float32Array.from(samples, (x) => x * factor), gainDb };
  });
}

function boomSound(boom: FrameBoom, talker: FrameTalker, place: Acoustics, spoken: Float64Array, noise: Float64Array | null, rateHz: number, seed: string): Float64Array {
  const [tip, mouth] = [tipOf(boom), mouthOf(talker)];
  const off = angleBetween(looksTo(talker), between(mouth, tip));
  const screen = boom.screenM > 0 ? 'foam' : 'bare';
  const hearing: Hearing = {
    pattern: { pressureShare: boom.pressureShare, tubeM: boom.tubeM },
    distanceM: Math.max(LEAST_M, distanceBetween(tip, mouth)),
    placement: 'open',
    clothLossDb: 0,
    topLiftDb: 0,
    screen,
  };
  const aside = withBandGains(
    spoken,
    ROOM_BANDS_HZ.map((hz) => 10 ** (mouthDb(off, hz) / 20)),
    rateHz,
  );
  const { heard } = voiceHeard(aside, hearing, standingOf(boom, talker, place), rateHz, randomSource(seedOf(seed, 'room')));
  const around = noise && noiseHeard(noise, hearing, rateHz);
  const wind = place.windMs ? windNoise({ speedMs: place.windMs, screen, sensitivityDb: 0 }, heard.length, rateHz, randomSource(seedOf(seed, 'wind'))).signal : null;
  const own = selfNoise(SELF_NOISE_DBA, heard.length, rateHz, randomSource(seedOf(seed, 'self')));
  return Float64Array.from(spoken, (_, index) => PASCAL * ((heard[index] as number) + (around?.[index] ?? 0) + (wind?.[index] ?? 0) + (own[index] as number)));
}

/** Talker and microphone in the room of the place, the talker off its middle; null where no room is known. */
function standingOf(boom: FrameBoom, talker: FrameTalker, { sizeM, absorption }: Acoustics): Standing | null {
  if (!sizeM || !absorption) return null;
  const from = between(mouthOf(talker), tipOf(boom));
  const within = (metres: number, axis: 0 | 1 | 2) => Math.min(sizeM[axis] - WALL_MARGIN_M, Math.max(WALL_MARGIN_M, metres));
  const talkerM: Point = [0.45 * sizeM[0], 0.43 * sizeM[1], within(talker.mouthHeightM, 2)];
  const microphoneM: Point = [within(talkerM[0] + from.awayM, 0), within(talkerM[1] + from.acrossM, 1), within(talkerM[2] + from.heightM, 2)];
  return { sizeM, absorption, talkerM, microphoneM };
}
