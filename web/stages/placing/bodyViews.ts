import type { BodyPlace } from '@marvet/core/domain/spot';
import type { Drawing } from './drawing.ts';

/** The three sides from which a body is drawn. */
export type BodySide = 'front' | 'side' | 'back';

/** One view in the drawing: where the mouth is in it, and how metres of the body lie in it. */
export interface BodyView extends Drawing {
  side: BodySide;
  /** A place of the body in the drawing. */
  of(at: BodyPlace): { x: number; y: number };
  /** What a move in the drawing, to the right and up, is on the body. */
  moved(at: BodyPlace, by: { right: number; up: number }): BodyPlace;
}

const WIDTH = 640;
const HALF_FRONT_M = 0.305;
const [BEHIND_M, BEFORE_M] = [0.3, 0.28];
const [OVER_M, UNDER_M] = [0.28, 0.5];
const perM = WIDTH / (4 * HALF_FRONT_M + BEHIND_M + BEFORE_M);
const height = (OVER_M + UNDER_M) * perM;

export const BODY_BOX = { width: WIDTH, height, perM };

function view(side: BodySide, mouthX: number): BodyView {
  const across = ({ forwardM, leftM }: BodyPlace) => (side === 'front' ? leftM : side === 'back' ? -leftM : forwardM);
  return {
    ...BODY_BOX,
    side,
    x: (metres) => mouthX + metres * perM,
    y: (metres) => (OVER_M - metres) * perM,
    of: (at) => ({ x: mouthX + across(at) * perM, y: (OVER_M - at.upM) * perM }),
    moved: ({ forwardM, leftM, upM }, { right, up }) => ({
      forwardM: side === 'side' ? held(forwardM + right) : forwardM,
      leftM: side === 'side' ? leftM : held(leftM + (side === 'front' ? right : -right)),
      upM: held(upM + up),
    }),
  };
}

/** As far as a body is drawn; a hundredth is as fine as a hand goes. */
const held = (metres: number) => Math.round(100 * Math.max(-0.5, Math.min(0.5, metres))) / 100;

/** The wearer's left is on the right of the front view, as one sees who stands opposite. */
export const BODY_VIEWS: Readonly<Record<BodySide, BodyView>> = {
  front: view('front', HALF_FRONT_M * perM),
  side: view('side', (2 * HALF_FRONT_M + BEHIND_M) * perM),
  back: view('back', (3 * HALF_FRONT_M + BEHIND_M + BEFORE_M) * perM),
};

/** In which views a spot is seen: from behind only what lies behind, and from the side everything. */
export const sidesOf = ({ forwardM }: BodyPlace): BodySide[] => (forwardM < -0.1 ? ['back', 'side'] : ['front', 'side']);
