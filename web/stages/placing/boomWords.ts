import type { BoomSide, FrameBoom } from '@marvet/core/domain/frame';

/** Patterns to choose from, and how each takes in directions. */
export const PATTERNS = [
  { name: 'omnidirectional', pressureShare: 1, tubeM: 0, lengthM: 0.15 },
  { name: 'cardioid', pressureShare: 0.5, tubeM: 0, lengthM: 0.18 },
  { name: 'supercardioid', pressureShare: 0.37, tubeM: 0, lengthM: 0.18 },
  { name: 'hypercardioid', pressureShare: 0.25, tubeM: 0, lengthM: 0.18 },
  { name: 'short tube', pressureShare: 0.37, tubeM: 0.12, lengthM: 0.26 },
  { name: 'long tube', pressureShare: 0.37, tubeM: 0.25, lengthM: 0.4 },
] as const;

/** The pattern that a boom has, of those that can be chosen; its numbers where it is none of them. */
export function patternName({ pressureShare, tubeM }: FrameBoom): string {
  return PATTERNS.find((each) => each.pressureShare === pressureShare && each.tubeM === tubeM)?.name ?? `a = ${pressureShare}`;
}

export const SIDE_WORDS: Record<BoomSide, string> = { above: 'from above', below: 'from below', side: 'from the side', planted: 'planted' };

/** How the booms of a frame are called: by their side, and by number where several share one. */
export function boomNames(booms: readonly FrameBoom[]): string[] {
  return booms.map((boom, index) => {
    const alike = booms.filter((each) => each.from === boom.from);
    const before = booms.slice(0, index).filter((each) => each.from === boom.from).length;
    return alike.length > 1 ? `${SIDE_WORDS[boom.from]} ${before + 1}` : SIDE_WORDS[boom.from];
  });
}
