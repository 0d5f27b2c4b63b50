import type { FrameDraft } from '@marvet/core/domain/frame';

/** The part of the world that a drawing shows, and its scale. */
export interface Drawing {
  width: number;
  height: number;
  perM: number;
  /** Places of the drawing, from metres along its two axes. */
  x(alongM: number): number;
  y(upM: number): number;
}

/** Wide as the columns are that they stand in, so that their words come out as large as all others. */
const SIDE = { width: 640, mostHeight: 330 };
const ABOVE = { width: 310, mostHeight: 330 };
const BEFORE_CAMERA_M = 0.5;
const BEHIND_TALKER_M = 1.1;
const OVER_HEADS_M = 0.75;

function drawn({ width, mostHeight }: typeof SIDE, alongM: readonly [number, number], upM: readonly [number, number]): Drawing {
  const perM = Math.min(width / (alongM[1] - alongM[0]), mostHeight / (upM[1] - upM[0]));
  const spareM = (width / perM - (alongM[1] - alongM[0])) / 2;
  const height = (upM[1] - upM[0]) * perM;
  return { width, height, perM, x: (metres) => (metres - alongM[0] + spareM) * perM, y: (metres) => height - (metres - upM[0]) * perM };
}

/** What is in the way is drawn as far as this beyond all that is in the frame; what is farther is told in words. */
const MOST_BEYOND_M = 4;

function farthest({ talkers, booms, operator, dangers }: FrameDraft): number {
  const inFrame = Math.max(...talkers.map(({ awayM }) => awayM), ...booms.map(({ awayM }) => awayM), operator.awayM);
  return Math.max(inFrame, ...dangers.map(({ awayM }) => Math.min(awayM, inFrame + MOST_BEYOND_M))) + BEHIND_TALKER_M;
}

/** Seen from the side: away from the camera to the right, up from the ground. */
export function sideDrawing(frame: FrameDraft): Drawing {
  const { talkers, booms, camera, ceilingM, operator } = frame;
  const top = Math.max(camera.heightM + 0.3, operator.handsM + 0.2, ...talkers.map((talker) => talker.mouthHeightM + OVER_HEADS_M), ...booms.map((boom) => boom.heightM + 0.35));
  return drawn(SIDE, [-BEFORE_CAMERA_M, farthest(frame)], [-0.12, ceilingM === null ? top : Math.max(top, ceilingM + 0.08)]);
}

/** Seen from above: away from the camera to the right, across to its right downwards. */
export function aboveDrawing(frame: FrameDraft): Drawing {
  const across = [...frame.talkers, ...frame.booms, frame.operator, ...frame.dangers].map(({ acrossM }) => acrossM);
  const reach = Math.max(1.2, ...across.map((metres) => Math.abs(metres) + 0.4));
  const from = drawn(ABOVE, [-BEFORE_CAMERA_M, farthest(frame)], [-reach, reach]);
  return { ...from, y: (acrossM) => (acrossM + reach) * from.perM };
}
