import type { WalkNow } from '../domain/walk.ts';

/**
 * The mark that comes next on a walk: on the way out the next one farther off, on the way back the next one nearer; null behind
 * the last.
 * @example nextMarkM([10, 20, 40], { side: 'facing', heading: 'out', distanceM: 20 }) // 40
 */
export function nextMarkM(marksM: readonly number[], { heading, distanceM }: WalkNow): number | null {
  const sorted = [...new Set(marksM)].sort((a, b) => a - b);
  if (distanceM === null) return (heading === 'out' ? sorted[0] : sorted.at(-1)) ?? null;
  return (heading === 'out' ? sorted.find((metres) => metres > distanceM) : sorted.findLast((metres) => metres < distanceM)) ?? null;
}
