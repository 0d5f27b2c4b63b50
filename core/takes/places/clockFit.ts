import { type ClockGuess, fileDensities, NO_TAKE, onLogS } from './likelihood.ts';
import type { Timeline } from './timed.ts';

const ROUNDS = 8;
/** Clocks of recorders drift by some ten parts in a million; how far a fit may stray from none. */
const DRIFT_SIGMA = 60e-6;
/** Spread of one start about the mean, for the weight of the drift that is expected. */
const START_SIGMA_S = 3;
/** A recorder is not started earlier as a habit. */
const LONGEST_LEAD_S = 20;
/** Nearer than this an error counts as it is; beyond it less and less, so that a rare late start does not pull. */
const ROBUST_S = 1.5;

/** A clock, fitted to all files of a recorder at once. */
export interface FittedClock {
  clock: ClockGuess;
  /** Sum over the files of the logarithm of their density. */
  logLikelihood: number;
  /** Files that are of a take by it, counted by how surely. */
  matched: number;
  /** Middle of the distances from the starts that it expects. */
  spreadS: number;
}

/**
 * The clock nearest to a guess: files are shared out among the takes by how well they fit, the clock is put where their
 * starts agree best, and again. That a recorder is started as long before a take as it is stopped after it is all that is known of how
 * early that is: half of what files are longer than their takes.
 * @param fixed the guess holds as it is, but for its drift, which is taken as none
 */
export function fitClock(line: Timeline, guessS: number, fixed = false): FittedClock {
  const files = line.files.length;
  let middleS = 0;
  for (let file = 0; file < files; file++) middleS += (line.fileStartS[file] as number) / files;
  let clock: ClockGuess = { addS: guessS, drift: 0, aboutS: middleS, leadS: 0 };
  for (let round = 0; round < (fixed ? 0 : ROUNDS); round++) {
    let [w, wx, wy, wxx, wxy, wLonger] = [0, 0, 0, 0, 0, 0];
    for (let file = 0; file < files; file++) {
      const ownS = line.fileStartS[file] as number;
      const sum = densitySum(line, file, clock);
      const lengthS = (line.fileEndS[file] as number) - ownS;
      fileDensities(line, file, clock, (take, density, bothFit) => {
        const wantedS = (line.takeStartS[take] as number) - ownS;
        const errorS = Math.abs(wantedS + ownS - onLogS(clock, ownS) - clock.leadS);
        // A recorder that ran on was started when it happened to be.
        const weight = (density * bothFit) / sum / Math.max(ROBUST_S, errorS);
        const longerS = lengthS - ((line.takeEndS[take] as number) - (line.takeStartS[take] as number));
        wLonger += weight * Math.min(2 * LONGEST_LEAD_S, Math.max(0, Number.isNaN(longerS) ? 2 * clock.leadS : longerS));
        const x = ownS - middleS;
        w += weight;
        wx += weight * x;
        wy += weight * wantedS;
        wxx += weight * x * x;
        wxy += weight * x * wantedS;
      });
    }
    if (w < 1e-6) break;
    const [meanX, meanY] = [wx / w, wy / w];
    const towardsNone = START_SIGMA_S / DRIFT_SIGMA ** 2 / Math.max(1, ROBUST_S);
    const drift = (wxy - w * meanX * meanY) / (wxx - w * meanX * meanX + towardsNone);
    const leadS = wLonger / w / 2;
    clock = { addS: meanY - drift * meanX - leadS, drift, aboutS: middleS, leadS };
  }
  return judged(line, clock);
}

function judged(line: Timeline, clock: ClockGuess): FittedClock {
  let [logLikelihood, matched] = [0, 0];
  const errorsS: number[] = [];
  for (let file = 0; file < line.files.length; file++) {
    let [best, bestTake, takes] = [0, -1, 0];
    const none = fileDensities(line, file, clock, (take, density) => {
      takes += density;
      if (density > best) [best, bestTake] = [density, take];
    });
    logLikelihood += Math.log(none + takes);
    matched += takes / (none + takes);
    if (best > none) errorsS.push(Math.abs((line.takeStartS[bestTake] as number) - onLogS(clock, line.fileStartS[file] as number) - clock.leadS));
  }
  errorsS.sort((a, b) => a - b);
  return { clock, logLikelihood, matched, spreadS: errorsS[errorsS.length >> 1] ?? Number.NaN };
}

function densitySum(line: Timeline, file: number, clock: ClockGuess): number {
  let sum = 0;
  const none = fileDensities(line, file, clock, (_take, density) => {
    sum += density;
  });
  return sum + none;
}

/** The logarithm of the density of all files where the recorder's clock and the log have nothing to do with each other. */
export function logLikelihoodOfNone(line: Timeline): number {
  const far: ClockGuess = { addS: 1e12, drift: 0, aboutS: 0, leadS: 0 };
  // Then every file is of no take, and that is no wonder.
  return judged(line, far).logLikelihood - line.files.length * Math.log(NO_TAKE);
}
