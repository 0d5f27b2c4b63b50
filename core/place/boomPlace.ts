import type { BoomSide, FrameBoom, FrameDraft, FrameTalker } from '../domain/frame.ts';
import { type FrameEdge, outOfFrame } from './frameView.ts';
import { along, between, type Place, radians } from './point.ts';

type Seen = Pick<FrameDraft, 'camera' | 'talkers' | 'marginM' | 'operator'>;

/** From above a microphone hangs this far before the mouth, from below it stands this far before it; nearer than this it is in the way of breath and head. */
const BEFORE_ABOVE_M = 0.25;
const BEFORE_BELOW_M = 0.35;
const LEAST_OVER_MOUTH_M = 0.2;
const LEAST_UNDER_MOUTH_M = 0.25;
const LEAST_BESIDE_M = 0.3;
/** Farther than this nobody looks for a place. */
const MOST_AWAY_M = 8;
const STEPS = 40;

export const mouthOf = ({ awayM, acrossM, mouthHeightM }: FrameTalker): Place => ({ awayM, acrossM, heightM: mouthHeightM });

/** Where a talker looks: to the camera at 0 degrees. */
export function looksTo({ looksDeg }: Pick<FrameTalker, 'looksDeg'>): Place {
  const turn = radians(looksDeg);
  return { awayM: -Math.cos(turn), acrossM: Math.sin(turn), heightM: 0 };
}

export const tipOf = ({ awayM, acrossM, heightM }: FrameBoom): Place => ({ awayM, acrossM, heightM });

/** From the tip along the microphone's own axis. */
export const axisOf = (boom: FrameBoom, talkers: readonly FrameTalker[]): Place => between(tipOf(boom), mouthOf(talkers[boom.aimsAt] as FrameTalker));

/** Its other end, where the pole begins. */
export function tailOf(boom: FrameBoom, talkers: readonly FrameTalker[]): Place {
  const axis = axisOf(boom, talkers);
  return along(tipOf(boom), { awayM: -axis.awayM, acrossM: -axis.acrossM, heightM: -axis.heightM }, boom.lengthM);
}

/** Places along a microphone that are looked at: a picture cannot pass between them unseen. */
const ALONG = 8;

/** How far a whole microphone with its windscreen is out of the picture, and by which edge; negative where something of it is seen. */
export function clearOfFrame({ camera, talkers }: Pick<FrameDraft, 'camera' | 'talkers'>, boom: FrameBoom): { clearM: number; edge: FrameEdge } {
  const tip = tipOf(boom);
  const tail = tailOf(boom, talkers);
  let least: { clearM: number; edge: FrameEdge } = { clearM: Number.POSITIVE_INFINITY, edge: 'top' };
  for (let step = 0; step <= ALONG; step++) {
    const share = step / ALONG;
    const here = outOfFrame(camera, {
      awayM: tip.awayM + share * (tail.awayM - tip.awayM),
      acrossM: tip.acrossM + share * (tail.acrossM - tip.acrossM),
      heightM: tip.heightM + share * (tail.heightM - tip.heightM),
    });
    if (here.clearM < least.clearM) least = here;
  }
  return { clearM: least.clearM - boom.screenM / 2, edge: least.edge };
}

/**
 * The nearest place for a microphone on one side of a talker at which all of it is out of the picture by the margin.
 * From above it hangs before the face, from below it stands before the chest, from the side it comes from where the
 * operator stands; a planted one stands as one from below does.
 * @returns null where there is none: within eight metres, or over the ground
 */
export function nearestOut(frame: Seen, from: BoomSide, boom: Omit<FrameBoom, 'awayM' | 'acrossM' | 'heightM' | 'from'>): FrameBoom | null {
  const talker = frame.talkers[boom.aimsAt] as FrameTalker;
  const mouth = mouthOf(talker);
  const looks = looksTo(talker);
  const at = (movedM: number): FrameBoom => ({ ...boom, from, ...placed(from, mouth, looks, frame.operator.acrossM >= mouth.acrossM ? 1 : -1, movedM) });
  const enough = (movedM: number) => clearOfFrame(frame, at(movedM)).clearM >= frame.marginM;
  // All of it stays over the ground.
  const most = from === 'above' || from === 'side' ? MOST_AWAY_M : mouth.heightM - LEAST_UNDER_MOUTH_M - boom.lengthM;
  if (enough(0)) return at(0);
  if (most <= 0 || !enough(most)) return null;
  let [within, out] = [0, most];
  for (let step = 0; step < STEPS; step++) {
    const middle = (within + out) / 2;
    if (enough(middle)) out = middle;
    else within = middle;
  }
  return at(out);
}

function placed(from: BoomSide, mouth: Place, looks: Place, side: 1 | -1, movedM: number): Place {
  const before = (metres: number) => ({ awayM: mouth.awayM + metres * looks.awayM, acrossM: mouth.acrossM + metres * looks.acrossM });
  if (from === 'above') return { ...before(BEFORE_ABOVE_M), heightM: mouth.heightM + LEAST_OVER_MOUTH_M + movedM };
  if (from === 'side') return { awayM: mouth.awayM, acrossM: mouth.acrossM + side * (LEAST_BESIDE_M + movedM), heightM: mouth.heightM };
  return { ...before(BEFORE_BELOW_M), heightM: mouth.heightM - LEAST_UNDER_MOUTH_M - movedM };
}
