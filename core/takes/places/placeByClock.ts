import { type FittedClock, fitClock, logLikelihoodOfNone } from './clockFit.ts';
import { clockGuesses } from './clockGuesses.ts';
import { type ClockGuess, fileDensities, laplace, onLogS } from './likelihood.ts';
import { type TimedFile, type TimedTake, type Timeline, timelineOf } from './timed.ts';

const HOUR_S = 3600;
/** Guesses that end within this of each other are the same clock. */
const SAME_CLOCK_S = 5;
const MOST_OTHERS = 4;
/** From here on a place is taken to be right: many are put with one press, and a file is cut by its clock. */
export const SURE = 0.9;
/** A clock that is right is always looked at. */
const RIGHT_S = 0;

/** The clock of a recorder against the log's. */
export interface RecorderClock {
  /** Seconds by which it is ahead of the log, in the middle of its files; negative is behind. */
  aheadS: number;
  driftPpm: number;
  /** Middle of the distances of starts from what the clock expects; null where no file is of a take. */
  spreadS: number | null;
  /** How sure it is that this is the clock, 0 to 1. */
  sure: number;
}

/** Where a file belongs by its recorder's clock. */
export interface ClockPlace {
  fileId: string;
  /** Null: of no take. */
  takeId: string | null;
  /** How sure that is, over all clocks that are possible, 0 to 1; with what is unknown it makes 1 with the others. */
  confidence: number;
  /** When it began, by the log's clock. */
  startsAtMs: number;
  /** What else it may be, the likeliest first. */
  others: { takeId: string | null; confidence: number }[];
  /** Takes that it runs over, where these are more than one: it has to be cut. */
  over: string[];
}

/** All files of one recorder in their places. */
export interface PlacedByClock {
  /** Null where the log has no times, or nothing fits it. */
  clock: RecorderClock | null;
  places: ClockPlace[];
}

/**
 * How likely it is beforehand that so many seconds have to be added, as the logarithm of a density: clocks are often
 * right to the half minute, sometimes off by whole hours of a zone, or set to nothing at all.
 */
function logPriorOf(addS: number): number {
  const hours = Math.round(addS / HOUR_S);
  const zone = Math.abs(hours) <= 14 ? laplace(addS - hours * HOUR_S, 60) / 29 : 0;
  const anyOfFourDays = Math.abs(addS) < 48 * HOUR_S ? 1 / (96 * HOUR_S) : 0;
  const anyOfFortyYears = 1 / (40 * 365 * 24 * HOUR_S);
  return Math.log(0.3 * laplace(addS, 30) + 0.1 * zone + 0.5 * anyOfFourDays + 0.05 * anyOfFortyYears);
}
/** How likely it is beforehand that files and log have nothing to do with each other. */
const LOG_PRIOR_OF_NONE = Math.log(0.05);

/**
 * The takes of all files of one recorder, whose clock nobody set: found from how starts and lengths of files and takes
 * fit each other under every clock that is possible, each weighed by how well it explains all files together. Where two
 * clocks explain them equally well, no file is sure. Bayes' rule over clock and takes; see docs/methods.md.
 * @param aheadByHandS a clock that somebody set; it holds
 */
export function placeByClock(files: readonly TimedFile[], takes: readonly TimedTake[], aheadByHandS: number | null = null): PlacedByClock {
  if (files.length === 0 || takes.length === 0) {
    const places = files.map(({ id, startsAtMs, tied }) => ({ fileId: id, takeId: tied?.takeId ?? null, confidence: tied ? 1 : 0, startsAtMs, others: [], over: [] }));
    return { clock: null, places };
  }
  const line = timelineOf(files, takes);
  const fits = aheadByHandS === null ? distinct([RIGHT_S, ...clockGuesses(line)].map((guessS) => fitClock(line, guessS))) : [fitClock(line, -aheadByHandS, true)];
  const evidence = fits.map((fit) => (aheadByHandS === null ? fit.logLikelihood + logPriorOf(fit.clock.addS) + logWidth(fit) : 0));
  const none = aheadByHandS === null ? logLikelihoodOfNone(line) + LOG_PRIOR_OF_NONE : Number.NEGATIVE_INFINITY;
  const most = Math.max(none, ...evidence);
  const total = Math.exp(none - most) + evidence.reduce((sum, each) => sum + Math.exp(each - most), 0);
  const weights = evidence.map((each) => Math.exp(each - most) / total);
  const best = weights.indexOf(Math.max(...weights));
  const fit = fits[best] as FittedClock;
  const sure = weights[best] as number;
  const clockHolds = fit.matched > 0.5 || aheadByHandS !== null;
  const cutsBy = aheadByHandS !== null || (clockHolds && sure > SURE);
  const untied: Timeline = { ...line, files: files.map((file) => ({ ...file, tied: null })) };
  const places = files.map(({ id, startsAtMs, tied }, file): ClockPlace => {
    const byHand = tied?.by === 'hand';
    const ranked = [...chancesOf(file, byHand ? untied : line)].sort((a, b) => b[1] - a[1]);
    const [takeId, confidence] = byHand ? [tied.takeId, 1] : (ranked[0] ?? [null, 0]);
    const others = ranked.filter(([other, chance]) => other !== takeId && chance >= 0.005).map(([other, chance]) => ({ takeId: other, confidence: chance }));
    const atMs = clockHolds ? line.originMs + onLogS(fit.clock, line.fileStartS[file] as number) * 1000 : startsAtMs;
    // What a hand said stands; what the clock makes of it is among the others.
    return { fileId: id, takeId, confidence, startsAtMs: atMs, others: others.slice(0, MOST_OTHERS), over: cutsBy ? takesIn(line, file, fit.clock) : [] };
  });
  const clock = !clockHolds ? null : { aheadS: -fit.clock.addS, driftPpm: -fit.clock.drift * 1e6, spreadS: Number.isNaN(fit.spreadS) ? null : fit.spreadS, sure };
  return { clock, places };

  /** Of one file, over all clocks. That files and log have nothing to do with each other says of no file that it is of no take: it is unknown. */
  function chancesOf(file: number, from: Timeline): Map<string | null, number> {
    const all = new Map<string | null, number>([[null, 0]]);
    for (const [index, { clock: guess }] of fits.entries()) {
      const weight = weights[index] as number;
      if (weight < 1e-6) continue;
      for (const [takeId, share] of sharesOf(from, file, guess)) all.set(takeId, (all.get(takeId) ?? 0) + weight * share);
    }
    return all;
  }
  function sharesOf(from: Timeline, file: number, guess: ClockGuess): [string | null, number][] {
    const found: [string | null, number][] = [];
    const noTake = fileDensities(from, file, guess, (take, density) => found.push([from.takes[take]?.id ?? null, density]));
    found.push([null, noTake]);
    const sum = found.reduce((all, [, density]) => all + density, 0);
    return found.map(([takeId, density]) => [takeId, density / sum]);
  }
}

/** A recorder is started so long before a take as a habit, on the average of recorders. */
const USUAL_LEAD_S = 6;
/**
 * How wide the peak about a fit is in the clock and in how early the recorder is started, and how likely that habit is beforehand, as a
 * logarithm: the more files agree, the narrower it is, and the less it is a matter of chance that they do.
 */
function logWidth({ matched, clock }: FittedClock): number {
  const widthS = (3 * Math.sqrt(2 * Math.PI)) / Math.sqrt(Math.max(1, matched));
  return Math.log(widthS) + Math.min(0, Math.log(widthS / USUAL_LEAD_S) - clock.leadS / USUAL_LEAD_S);
}

/** Fits that came out as the same clock once, the best of each. */
function distinct(fits: readonly FittedClock[]): FittedClock[] {
  const kept: FittedClock[] = [];
  for (const fit of [...fits].sort((a, b) => b.logLikelihood - a.logLikelihood)) {
    if (kept.every(({ clock }) => Math.abs(clock.addS - fit.clock.addS) > SAME_CLOCK_S)) kept.push(fit);
  }
  return kept;
}

/** Takes that lie in a file by more than half, where these are more than one. */
function takesIn(line: Timeline, file: number, clock: ClockGuess): string[] {
  const [startS, endS] = [onLogS(clock, line.fileStartS[file] as number), onLogS(clock, line.fileEndS[file] as number)];
  const inside = line.takes.filter((_, take) => {
    const fromS = line.takeStartS[take] as number;
    const toS = Number.isNaN(line.takeEndS[take]) ? fromS : (line.takeEndS[take] as number);
    return Math.min(endS, toS) - Math.max(startS, fromS) >= (toS - fromS) / 2 && fromS < endS && toS > startS;
  });
  return inside.length > 1 ? inside.map(({ id }) => id) : [];
}
