import type { Timeline } from './timed.ts';

/**
 * How well a file fits a take once its clock is put right. A recorder is started a little before the log and stopped a
 * little after, mostly within seconds, now and then much earlier or later; some files are of no take (false starts, a
 * joke, lunch), and of some only one end fits, because the recorder ran on or began a new file in the middle.
 */
const [USUAL_SHARE, USUAL_S, RARE_S] = [0.75, 3, 20];
/** Of a hundred files, so many are of no take, and of so many only one end fits. */
export const NO_TAKE = 0.1;
const ONE_END = 0.08;
/** Where only one end fits, the recorder ran on, and was started or stopped near a take as it happened. */
const RAN_ON_S = 60;
/** How long a file of no take, or the part of one that fits nothing, may well be. */
const ANY_LENGTH_S = 600;
/** How much less likely another take is than the one that a hand or a name says. */
const OTHER_THAN_TIED = { hand: Math.exp(-14), name: Math.exp(-5) };

/** Density of an error that is mostly small and now and then large. */
export const laplace = (errorS: number, scaleS: number) => Math.exp(-Math.abs(errorS) / scaleS) / (2 * scaleS);
const endDensity = (errorS: number) => USUAL_SHARE * laplace(errorS, USUAL_S) + (1 - USUAL_SHARE) * laplace(errorS, RARE_S);
/** Further from a take than this no end of a file fits it. */
const REACH_S = 300;

/** A clock: what has to be added to the recorder's time, and what more a second later, from a moment on. */
export interface ClockGuess {
  addS: number;
  /** Seconds a second. */
  drift: number;
  aboutS: number;
  /** So long before a take the recorder is usually started, and so long after it stopped. */
  leadS: number;
}

/** Onto the log's clock, in seconds of the timeline. */
export const onLogS = ({ addS, drift, aboutS }: ClockGuess, ownS: number): number => ownS + addS + drift * (ownS - aboutS);

/**
 * The density of a file's two ends under each take that is near, by its place in the timeline, and under no take at all.
 * @param put where the densities go: called once for each take that is near, with how much of it is that both ends fit
 * @returns the density under no take
 */
export function fileDensities(line: Timeline, file: number, clock: ClockGuess, put: (take: number, density: number, bothFit: number) => void): number {
  const startS = onLogS(clock, line.fileStartS[file] as number);
  const endS = onLogS(clock, line.fileEndS[file] as number);
  const { tied = null } = line.files[file] ?? {};
  const less = tied ? OTHER_THAN_TIED[tied.by] : 1;
  const each = (1 - NO_TAKE) / line.takes.length;
  for (let take = firstNear(line, startS - REACH_S); take < line.takes.length; take++) {
    const takeStartS = line.takeStartS[take] as number;
    if (takeStartS > endS + REACH_S) break;
    const takeEndS = line.takeEndS[take] as number;
    const startErrorS = takeStartS - startS - clock.leadS;
    const endErrorS = endS - takeEndS - clock.leadS;
    const endKnown = !Number.isNaN(takeEndS);
    // Of a take that lies outside of it a file holds nothing, however near it ends.
    const apart = takeStartS > endS || takeEndS < startS;
    const both = (1 - ONE_END) * endDensity(startErrorS) * (endKnown ? endDensity(endErrorS) : 1 / ANY_LENGTH_S);
    const one = (ONE_END * (laplace(startErrorS, RAN_ON_S) + (endKnown ? laplace(endErrorS, RAN_ON_S) : 0))) / (2 * ANY_LENGTH_S);
    const density = apart ? 0 : each * (both + one);
    put(take, tied && line.takes[take]?.id !== tied.takeId ? density * less : density, apart ? 0 : both / (both + one));
  }
  // Files of no take are mostly as long as others are: that a length fits a take says little then.
  const lengthS = (line.fileEndS[file] as number) - (line.fileStartS[file] as number);
  const lengthDensity = 0.5 / ANY_LENGTH_S + (0.5 * Math.exp(-lengthS / line.usualLengthS)) / line.usualLengthS;
  return ((NO_TAKE * less) / line.windowS) * lengthDensity;
}

/** The first take that starts late enough; takes before it that still run are few, and looked at too. */
function firstNear(line: Timeline, fromS: number): number {
  let [low, high] = [0, line.takes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((line.takeStartS[middle] as number) < fromS) low = middle + 1;
    else high = middle;
  }
  while (low > 0 && (line.takeEndS[low - 1] as number) >= fromS) low--;
  return low;
}
