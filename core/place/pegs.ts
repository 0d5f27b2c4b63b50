import type { FrameDraft } from '../domain/frame.ts';
import { handMeasures } from './boomFigures.ts';

/** A mark on the ground, from the point under the lens. */
export interface Peg {
  what: string;
  awayM: number;
  /** Positive to the camera's right. */
  acrossM: number;
  /** Straight from the point under the lens. */
  straightM: number;
  byHand: string;
}

/**
 * Marks for the ground, the nearest first: where talkers and hands stand, and where each microphone hangs or stands.
 * @param names of the booms, in their order
 */
export function pegsOf({ talkers, booms, operator }: Pick<FrameDraft, 'talkers' | 'booms' | 'operator'>, names: readonly string[]): Peg[] {
  const held = booms.some((boom) => boom.from !== 'planted');
  const spots = [
    ...talkers.map(({ name, awayM, acrossM }) => ({ what: name, awayM, acrossM })),
    ...booms.map(({ awayM, acrossM }, index) => ({ what: `under the microphone ${names[index] ?? ''}`.trim(), awayM, acrossM })),
    ...(held ? [{ what: 'who holds the pole', awayM: operator.awayM, acrossM: operator.acrossM }] : []),
  ];
  return spots
    .map((spot) => {
      const straightM = Math.hypot(spot.awayM, spot.acrossM);
      return { ...spot, straightM, byHand: handMeasures(straightM) };
    })
    .sort((a, b) => a.straightM - b.straightM);
}

/** A mark of a walk away from a receiver or a camera. */
export interface WalkMark {
  awayM: number;
  byHand: string;
  /** From the mark before, or from where the walk begins. */
  onM: number;
}

/** Marks for the ground along a walk, at the distances of a plan, the nearest first. */
export function walkMarks(distancesM: readonly number[]): WalkMark[] {
  const sorted = [...new Set(distancesM)].filter((metres) => metres > 0).sort((a, b) => a - b);
  return sorted.map((awayM, index) => ({ awayM, byHand: handMeasures(awayM), onM: awayM - (sorted[index - 1] ?? 0) }));
}
