import type { Timeline } from './timed.ts';

/** Differences that lie this near each other speak for the same clock. */
const BIN_S = 4;
/** So many guesses are looked at closely. */
const MOST_GUESSES = 60;
/** Of very many files every so many are asked: as few guesses come from all of them. */
const MOST_PAIRS = 400_000;
/** A difference in length that makes it unlikely that a file is of a take. */
const LENGTH_S = 15;

/**
 * What might have to be added to a recorder's time: each file might be of each take, and what most of those differences
 * agree on, weighed by how well the lengths fit, is looked at first.
 * @returns seconds to add, the most promising first
 */
export function clockGuesses(line: Timeline): number[] {
  const votes = new Map<number, number>();
  const step = Math.ceil((line.files.length * line.takes.length) / MOST_PAIRS);
  for (let file = 0; file < line.files.length; file += step) {
    const lengthS = (line.fileEndS[file] as number) - (line.fileStartS[file] as number);
    for (let take = 0; take < line.takes.length; take++) {
      const takeLengthS = (line.takeEndS[take] as number) - (line.takeStartS[take] as number);
      const bin = Math.round(((line.takeStartS[take] as number) - (line.fileStartS[file] as number)) / BIN_S);
      const weight = 0.05 + (Number.isNaN(takeLengthS) ? 0 : Math.exp(-Math.abs(lengthS - takeLengthS) / LENGTH_S));
      votes.set(bin, (votes.get(bin) ?? 0) + weight);
    }
  }
  const around = (bin: number) => (votes.get(bin - 1) ?? 0) / 2 + (votes.get(bin) ?? 0) + (votes.get(bin + 1) ?? 0) / 2;
  const ranked = [...votes.keys()].map((bin) => [bin, around(bin)] as const).sort((a, b) => b[1] - a[1] || a[0] - b[0]);
  const chosen: number[] = [];
  for (const [bin] of ranked) {
    if (chosen.length === MOST_GUESSES) break;
    if (chosen.every((other) => Math.abs(other - bin) > 2)) chosen.push(bin);
  }
  return chosen.map((bin) => bin * BIN_S);
}
