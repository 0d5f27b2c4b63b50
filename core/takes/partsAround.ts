/** A stretch of time in seconds. */
export interface Stretch {
  startS: number;
  endS: number;
}

/**
 * Parts of a long file about what lies in it, each with some time before and after, or half of the pause to the next where that is
 * shorter: so no two overlap. What begins before the file, or goes on after it, is cut off there.
 * @param stretches in the order of their time, on the time of the file or any that it shares with them
 * @returns one part a stretch
 * @example partsAround([{ startS: 10, endS: 20 }, { startS: 22, endS: 30 }], { startS: 0, endS: 60 }, 5) // [5, 21] and [21, 35]
 */
export function partsAround<Own extends Stretch>(stretches: readonly Own[], file: Stretch, marginS: number): Own[] {
  return stretches.map((stretch, index) => {
    const afterS = ((stretches[index - 1]?.endS ?? Number.NEGATIVE_INFINITY) + stretch.startS) / 2;
    const beforeS = (stretch.endS + (stretches[index + 1]?.startS ?? Number.POSITIVE_INFINITY)) / 2;
    return { ...stretch, startS: Math.max(file.startS, stretch.startS - marginS, afterS), endS: Math.min(file.endS, stretch.endS + marginS, beforeS) };
  });
}
