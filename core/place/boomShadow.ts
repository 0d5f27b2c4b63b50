import type { FrameBoom, FrameDraft } from '../domain/frame.ts';
import { mouthOf, tailOf, tipOf } from './boomPlace.ts';
import { outOfFrame } from './frameView.ts';
import { type Place, radians } from './point.ts';

/** Where the shadow of a microphone falls. */
export interface BoomShadow {
  /** On whom, or on the ground. */
  on: string;
  inFrame: boolean;
}

/** Half the width of somebody's shoulders, and how far over the mouth a head ends. */
const HALF_WIDTH_M = 0.25;
const OVER_MOUTH_M = 0.2;
const STEPS = 8;
const LEAST_M = 0.01;

/**
 * Whether and where a microphone throws a shadow, for a light that is far: along its rays onto the first talker in their
 * way, as wide as shoulders and upright, or onto the ground; of a shadow on the ground it is told whether the camera sees it. Null where no light is set, or where it
 * falls on nothing within the frame's own ground.
 */
export function boomShadow({ camera, talkers, light }: Pick<FrameDraft, 'camera' | 'talkers' | 'light'>, boom: FrameBoom): BoomShadow | null {
  if (!light) return null;
  const [round, up] = [radians(light.fromDeg), radians(light.upDeg)];
  // Along the ray, away from the light: it comes from behind the camera at 0 degrees.
  const ray: Place = { awayM: Math.cos(up) * Math.cos(round), acrossM: -Math.cos(up) * Math.sin(round), heightM: -Math.sin(up) };
  const [tip, tail] = [tipOf(boom), tailOf(boom, talkers)];
  let ground: BoomShadow | null = null;
  for (let step = 0; step <= STEPS; step++) {
    const share = step / STEPS;
    const from: Place = {
      awayM: tip.awayM + share * (tail.awayM - tip.awayM),
      acrossM: tip.acrossM + share * (tail.acrossM - tip.acrossM),
      heightM: tip.heightM + share * (tail.heightM - tip.heightM),
    };
    for (const talker of talkers) {
      const mouth = mouthOf(talker);
      if (Math.abs(ray.awayM) < LEAST_M) continue;
      const length = (mouth.awayM - from.awayM) / ray.awayM;
      const across = from.acrossM + length * ray.acrossM;
      const height = from.heightM + length * ray.heightM;
      if (length > LEAST_M && Math.abs(across - mouth.acrossM) < HALF_WIDTH_M && height > 0 && height < mouth.heightM + OVER_MOUTH_M)
        return { on: talker.name, inFrame: outOfFrame(camera, { awayM: mouth.awayM, acrossM: across, heightM: height }).clearM < 0 };
    }
    const down = from.heightM / -ray.heightM;
    const there: Place = { awayM: from.awayM + down * ray.awayM, acrossM: from.acrossM + down * ray.acrossM, heightM: 0 };
    const inFrame = outOfFrame(camera, there).clearM < 0;
    if (!ground || inFrame) ground = { on: 'the ground', inFrame };
  }
  return ground;
}
