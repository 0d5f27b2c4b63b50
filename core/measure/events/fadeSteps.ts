import type { Heard } from '../chapter.types.ts';
import type { AudioEvent } from '../report.types.ts';

/** Frames from before a step to after it: the edge of a fade and one frame lie between them. */
const ACROSS = 3;
/** Every band steps by nearly the same: those between a fifth and four fifths lie within this, at one end of a fade at least. */
const ALIKE_DB = 5.5;
/** At its other end a word may change at the same moment. */
const LESS_ALIKE_DB = 10;
/** So many decibels is the least change of a band that goes along. */
const ALONG_DB = 2;
const ALIKE_SHARE = 0.2;
const LEAST_DB = 8;
const MOST_DB = 30;
/** It comes back to what it was. */
const BACK_DB = 4;
/** Before it or after it the sound stays as it is, and at its start or its end within it: what dies away goes on doing so. */
const STAYS_FRAMES = 2;
const STAYS_DB = 2.5;
const SHORTEST_S = 0.03;
const LONGEST_S = 0.4;
const LEAST_BANDS = 8;
/** Beats of music and strokes of cloth begin as one, and end as they like: around a fade most steps have their answer. */
const AROUND_S = 15;
const MOST_ALONE_SHARE = 0.5;
/** And there are as many up as down, give or take some. */
const MOST_UNEVEN_SHARE = 0.5;

/** How far all bands step from a frame to {@link ACROSS} frames later; not a number where they do not step alike. */
type Steps = Float64Array;

interface Pair {
  from: number;
  to: number;
  depthDb: number;
  /** How unlike its bands are, in dB; less is surer. */
  unlikeDb: number;
}

/**
 * Fades within words: what a voice, a mouth or a room does, it does to some of the spectrum; a radio field takes
 * all of it down by the same number of decibels at once, voice and room tone alike, and brings it back as one.
 * Built on that alone: the spread over third octaves of the step at either end.
 */
export function findFadeSteps({ tracks, startS }: Heard): AudioEvent[] {
  const { highBands } = tracks;
  const end = highBands.bands.filter(([, highHz]) => highHz < 0.45 * tracks.sampleRateHz).length;
  if (end < LEAST_BANDS) return [];
  const times = highBands.times();
  const levels = Array.from({ length: end }, (_, band) => highBands.sums(band, band + 1).map((power) => 10 * Math.log10(Math.max(power, 1e-16))));
  const { steps, unlikeDb } = stepsOf(levels);
  const pairs = pairsOf(steps, unlikeDb, highBands.hopS).filter(({ from, to }) => staysBetweenSteps(levels, from, to));
  const sure = sureSteps(steps, unlikeDb);
  const answered = sure.map((frame) => pairs.some(({ from, to }) => Math.abs(frame + ACROSS - from) <= ACROSS || Math.abs(frame - to) <= ACROSS));
  return pairs
    .filter(({ from, to }) => {
      const around = sure.flatMap((frame, index) =>
        Math.abs(frame - (from + to) / 2) < AROUND_S / highBands.hopS ? [{ up: (steps[frame] as number) > 0, isAnswered: answered[index] }] : [],
      );
      const up = around.filter((step) => step.up).length;
      const uneven = Math.abs(around.length - 2 * up) - 1;
      return around.filter(({ isAnswered }) => !isAnswered).length <= MOST_ALONE_SHARE * around.length && uneven <= MOST_UNEVEN_SHARE * Math.max(up, around.length - up);
    })
    .map(({ from, to, depthDb }) => ({
      kind: 'dropout',
      startS: Math.max(startS, (times[from] as number) - highBands.hopS),
      endS: (times[to] as number) + highBands.hopS,
      severityDb: depthDb,
    }));
}

function stepsOf(levels: readonly Float64Array[]): { steps: Steps; unlikeDb: Float64Array } {
  const count = levels[0]?.length ?? 0;
  const steps = new Float64Array(count).fill(Number.NaN);
  const unlikeDb = new Float64Array(count);
  const changes = new Float64Array(levels.length);
  const skipped = Math.floor(ALIKE_SHARE * levels.length);
  for (let frame = 0; frame + ACROSS < count; frame++) {
    let falling = 0;
    let rising = 0;
    for (let band = 0; band < levels.length; band++) {
      const own = levels[band] as Float64Array;
      const change = (own[frame + ACROSS] as number) - (own[frame] as number);
      changes[band] = change;
      if (change < -ALONG_DB) falling++;
      else if (change > ALONG_DB) rising++;
    }
    // Sorting is dear: only where nearly all bands go one way.
    if (Math.max(falling, rising) < levels.length - skipped) continue;
    changes.sort();
    const middle = changes[changes.length >> 1] as number;
    const spread = (changes[changes.length - 1 - skipped] as number) - (changes[skipped] as number);
    if (spread > LESS_ALIKE_DB || Math.abs(middle) < LEAST_DB || Math.abs(middle) > MOST_DB) continue;
    steps[frame] = middle;
    unlikeDb[frame] = spread;
  }
  return { steps, unlikeDb };
}

/** Steps down with the step up that answers them, each fade once: its surest pair. */
function pairsOf(steps: Steps, unlikeDb: Float64Array, hopS: number): Pair[] {
  const [shortest, longest] = [Math.round(SHORTEST_S / hopS), Math.round(LONGEST_S / hopS)];
  const pairs: Pair[] = [];
  for (let down = 0; down < steps.length; down++) {
    if (!((steps[down] as number) < 0)) continue;
    for (let up = down + ACROSS; up < Math.min(steps.length, down + ACROSS + longest); up++) {
      const depthDb = ((steps[up] as number) - (steps[down] as number)) / 2;
      if (!((steps[up] as number) > 0) || Math.abs((steps[up] as number) + (steps[down] as number)) > BACK_DB || up - down < shortest) continue;
      if (Math.min(unlikeDb[down] as number, unlikeDb[up] as number) > ALIKE_DB) continue;
      const pair = { from: down + ACROSS, to: up, depthDb, unlikeDb: (unlikeDb[down] as number) + (unlikeDb[up] as number) };
      const last = pairs.at(-1);
      if (!last || pair.from > last.to + ACROSS) pairs.push(pair);
      else if (pair.unlikeDb < last.unlikeDb) pairs[pairs.length - 1] = pair;
    }
  }
  return pairs;
}

function staysBetweenSteps(levels: readonly Float64Array[], from: number, to: number): boolean {
  const stays = (start: number) => Math.abs(middleChange(levels, start, start + STAYS_FRAMES)) <= STAYS_DB;
  return (stays(from - ACROSS - STAYS_FRAMES) || stays(to + ACROSS)) && (stays(from) || stays(to - STAYS_FRAMES));
}

/** Change of the middle band from one frame to another. */
function middleChange(levels: readonly Float64Array[], from: number, to: number): number {
  const changes = Float64Array.from(levels, (own) => (own[Math.min(own.length - 1, to)] as number) - (own[Math.max(0, from)] as number)).sort();
  return changes[changes.length >> 1] as number;
}

/** Steps of which nearly all bands take part alike, each once: the surest frame of neighbours. */
function sureSteps(steps: Steps, unlikeDb: Float64Array): number[] {
  const sure: number[] = [];
  for (let frame = 0; frame < steps.length; frame++) {
    if (Number.isNaN(steps[frame]) || (unlikeDb[frame] as number) > ALIKE_DB) continue;
    const last = sure.at(-1);
    if (last !== undefined && frame - last <= ACROSS && (steps[last] as number) * (steps[frame] as number) > 0) {
      if ((unlikeDb[frame] as number) < (unlikeDb[last] as number)) sure[sure.length - 1] = frame;
    } else sure.push(frame);
  }
  return sure;
}
