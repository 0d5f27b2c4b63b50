import type { FrameBoom, FrameTalker } from '../domain/frame.ts';
import { type Hearing, noiseHeard, voiceHeard } from '../simulate/hearing.ts';
import { ROOM_BANDS_HZ, withBandGains } from '../simulate/octaveBands.ts';
import { randomSource, seedOf } from '../simulate/random.ts';
import { looksTo, mouthOf, tipOf } from './boomPlace.ts';
import { mouthDb } from './mouth.ts';
import { angleBetween, between, distanceBetween } from './point.ts';
import { sourcesNoise } from './sourcesNoise.ts';
import { standingAt } from './standingAt.ts';
import { type Moment, sumOf, type TakenIn } from './takenIn.ts';

/** Nearer than this a mouth is no point any more, and inverse distance tells nothing. */
const LEAST_M = 0.05;

/** What a microphone on a pole or a stand takes in of the talker it looks at, of the noise, and of its sources. */
export function boomSound(boom: FrameBoom, { spoken, around, place, talkers, rateHz, seed }: Moment): TakenIn {
  const talker = talkers[boom.aimsAt] as FrameTalker;
  const [tip, mouth] = [tipOf(boom), mouthOf(talker)];
  const off = angleBetween(looksTo(talker), between(mouth, tip));
  const screen = boom.screenM > 0 ? 'foam' : 'bare';
  const pattern = { pressureShare: boom.pressureShare, tubeM: boom.tubeM };
  const hearing: Hearing = { pattern, distanceM: Math.max(LEAST_M, distanceBetween(tip, mouth)), placement: 'open', clothLossDb: 0, topLiftDb: 0, screen };
  const aside = withBandGains(
    spoken,
    ROOM_BANDS_HZ.map((hz) => 10 ** (mouthDb(off, hz) / 20)),
    rateHz,
  );
  const { heard } = voiceHeard(aside, hearing, standingAt(talker, tip, place), rateHz, randomSource(seedOf(seed, 'room')));
  const noise = around && noiseHeard(around, hearing, rateHz);
  const sources = sourcesNoise({ at: tip, axis: between(tip, mouth), pattern }, place, talkers[0] as FrameTalker, spoken.length, rateHz, seed);
  return { sound: sumOf([heard, noise, sources], spoken.length), screen };
}
