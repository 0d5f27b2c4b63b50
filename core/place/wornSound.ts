import type { FrameTalker } from '../domain/frame.ts';
import { convolved } from '../simulate/convolve.ts';
import { withGainCurve } from '../simulate/gainCurve.ts';
import { reflectionsOf } from '../simulate/imageRoom.ts';
import { randomSource, seedOf } from '../simulate/random.ts';
import { looksTo, mouthOf } from './boomPlace.ts';
import { placeOnBody } from './nearMouth.ts';
import { between, type Place } from './point.ts';
import { sourcesNoise } from './sourcesNoise.ts';
import { standingAt } from './standingAt.ts';
import { type Moment, sumOf, type TakenIn } from './takenIn.ts';
import { coverDb, WORN_BANDS_HZ, type Worn, wornDb } from './wornColour.ts';

const OMNI = { pressureShare: 1, tubeM: 0 };

/**
 * What a microphone on a body takes in: the voice by its spot and its cover, the room's answer and the noise through the
 * cover. It hears all directions alike.
 * @throws where its spot is not known
 */
export function wornSound(worn: Worn, index: number, { spoken, around, place, talkers, rateHz, seed }: Moment): TakenIn {
  const gainsDb = wornDb(worn);
  const on = placeOnBody(worn.placement);
  if (!gainsDb || !on) throw new Error('Where this microphone sits is not known: draw its spot on the body first.');
  const talker = talkers[index] as FrameTalker;
  const at = placeInRoom(talker, on);
  const sound = withGainCurve(spoken, WORN_BANDS_HZ, gainsDb, rateHz);
  const standing = standingAt(talker, at, place);
  const answer = standing && convolved(spoken, reflectionsOf({ ...standing, pattern: OMNI }, rateHz, randomSource(seedOf(seed, 'room'))));
  const sources = sourcesNoise({ at, axis: between(at, mouthOf(talker)), pattern: OMNI }, place, talkers[0] as FrameTalker, spoken.length, rateHz, seed);
  const other = sumOf([answer, around, sources], spoken.length);
  const covered = withGainCurve(
    other,
    WORN_BANDS_HZ,
    WORN_BANDS_HZ.map((hz) => coverDb(worn.rig, hz)),
    rateHz,
  );
  const cover = worn.rig?.cover;
  const underCloth = (worn.rig?.layers.length ?? 0) > 0 || (worn.rig?.clothLayers ?? 0) > 0;
  // Cloth over a capsule keeps wind from it as a thin foam does.
  return { sound: sumOf([sound, covered], spoken.length), screen: cover === 'fur' ? 'fur' : cover === 'foam' || underCloth ? 'foam' : 'bare' };
}

/** A spot of a body where the talker stands and looks. */
function placeInRoom(talker: FrameTalker, { forwardM, leftM, upM }: { forwardM: number; leftM: number; upM: number }): Place {
  const mouth = mouthOf(talker);
  const looks = looksTo(talker);
  // Left of who looks to the camera is the camera's right.
  const left = { awayM: looks.acrossM, acrossM: -looks.awayM };
  return {
    awayM: mouth.awayM + forwardM * looks.awayM + leftM * left.awayM,
    acrossM: mouth.acrossM + forwardM * looks.acrossM + leftM * left.acrossM,
    heightM: mouth.heightM + upM,
  };
}
