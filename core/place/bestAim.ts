import type { FrameBoom, FrameDraft, FrameTalker } from '../domain/frame.ts';
import type { Acoustics } from '../domain/station.ts';
import { diffusePower, patternGain } from '../simulate/microphone.ts';
import { mouthOf, tipOf } from './boomPlace.ts';
import { roomShare, sourcePlace, voiceOctavesAt } from './noiseAt.ts';
import { bedOctaves, NOISE_OCTAVES_HZ, OCTAVE_A_DB, sourceOctaves } from './noiseKinds.ts';
import { angleBetween, between, lengthOf, type Place } from './point.ts';

/** Where a microphone would have to look for most voice over noise. */
export interface Aim {
  axis: Place;
  overDb: number;
  /** Against looking at the mouth. */
  gainDb: number;
  offMouthDeg: number;
}

/** Something that is heard from one direction, with its A-weighted power by octave at the microphone, before its pattern. */
interface Ray {
  towards: Place;
  powers: readonly number[];
}

const STEP_RAD = Math.PI / 18;
/** Less than this nobody hears, and nobody turns a pole for it. */
const WORTH_DB = 0.5;
const LEAST_M = 0.3;

const weighted = (levelsDb: readonly number[]) => levelsDb.map((db, octave) => 10 ** ((db + (OCTAVE_A_DB[octave] as number)) / 10));

/**
 * The aim with most voice over noise, of all around in steps of ten degrees; null where no noise is known, or where looking at the mouth
 * is as good. What does not depend on the aim is worked out once.
 */
export function bestAim(frame: Pick<FrameDraft, 'talkers'>, boom: FrameBoom, place: Acoustics): Aim | null {
  const bed = bedOctaves(place);
  if (!bed && place.sources.length === 0) return null;
  const pattern = { pressureShare: boom.pressureShare, tubeM: boom.tubeM };
  const [at, talker] = [tipOf(boom), frame.talkers[boom.aimsAt] as FrameTalker];
  const toMouth = between(at, mouthOf(talker));
  const voice: Ray = { towards: toMouth, powers: weighted(voiceOctavesAt(at, talker)) };
  const around = NOISE_OCTAVES_HZ.map((hz) => diffusePower(pattern, hz));
  let steady = bed ? weighted(bed).reduce((sum, power, octave) => sum + power * (around[octave] as number), 0) : 0;
  const rays = place.sources.map((source): Ray => {
    const towards = between(at, sourcePlace(frame.talkers[0] as FrameTalker, source));
    const distanceM = Math.max(LEAST_M, lengthOf(towards));
    const powers = weighted(sourceOctaves(source));
    powers.forEach((power, octave) => {
      steady += power * roomShare(place, octave) * (around[octave] as number);
    });
    return { towards, powers: powers.map((power) => power / distanceM ** 2) };
  });
  const heard = ({ towards, powers }: Ray, axis: Place) => {
    const angle = angleBetween(axis, towards);
    return powers.reduce((sum, power, octave) => sum + power * patternGain(pattern, angle, NOISE_OCTAVES_HZ[octave] as number) ** 2, 0);
  };
  const overDb = (axis: Place) => 10 * Math.log10(Math.max(1e-12, heard(voice, axis)) / rays.reduce((sum, ray) => sum + heard(ray, axis), steady));
  const now = overDb(toMouth);
  let best = { axis: toMouth, overDb: now };
  for (let up = -Math.PI / 2; up <= Math.PI / 2 + 1e-9; up += STEP_RAD) {
    for (let round = 0; round < 2 * Math.PI; round += STEP_RAD) {
      const axis: Place = { awayM: Math.cos(up) * Math.cos(round), acrossM: Math.cos(up) * Math.sin(round), heightM: Math.sin(up) };
      const over = overDb(axis);
      if (over > best.overDb) best = { axis, overDb: over };
    }
  }
  if (best.overDb - now < WORTH_DB) return null;
  return { ...best, gainDb: best.overDb - now, offMouthDeg: (angleBetween(best.axis, toMouth) * 180) / Math.PI };
}
