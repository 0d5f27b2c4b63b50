import { weightShares } from '../../domain/criterion.ts';
import { randomSource } from '../../simulate/random.ts';
import { studentQuantile } from '../../statistics/studentT.ts';
import { type CriterionDrawn, drawnOf, type Layout, layoutsOf } from './drawn.ts';
import { type Draw, wholeDraw } from './drawnCell.ts';
import { addGaps, type Gaps, Spread, settled, type ToSettle } from './gap.ts';
import type { ListenerSpread } from './listenerSpread.ts';
import type { DrawnFrom } from './samples.ts';
import { countPlaces, firstOf, standingOf } from './standing.ts';

/** How sure one is of the weights: as they are given, each within a tenth, or not at all. */
export type WeightDoubt = 'given' | 'tenth' | 'unknown';

/** How sure the place of a candidate is. */
export interface PlaceDoubt {
  candidateId: string;
  /** Score of 100 in the middle draw, and between which 95 of 100 lie; null where there is none. */
  score: { low: number; middle: number; high: number } | null;
  /** Part of the draws in which it is best, and among the first two; who shares a place has its part of it. */
  best: number;
  firstTwo: number;
  /** Part of the draws in which it stands above each candidate, in their order. */
  beats: number[];
  /** Limits that it breaks in some draws, and in which part of them. */
  breaks: { criterionId: string; share: number }[];
  /** What it would take to tell it from the first one; null for that itself, and where nothing differs in any draw. */
  toSettle: ToSettle | null;
}

export interface RankDoubt {
  weights: WeightDoubt;
  draws: number;
  /** Who is first as things are; null where nobody stands before all others. */
  first: string | null;
  places: PlaceDoubt[];
  /** Criteria that nothing can be drawn anew of: marks, ranges, one take heard by one listener. Their doubt is not in any of this. */
  fixed: string[];
  /** Takes without which another candidate would be first; not looked for among so many that one is as good as none. */
  deciding: string[];
}

export const DRAWS = 2_000;
/** The same draws each time, so that a verdict that is opened again says the same. */
const SEED = 61_803;
const NORMAL_97_5 = 1.959964;

/**
 * How sure a ranking is: takes and listeners are drawn anew with replacement (B. Efron, Bootstrap methods, 1979), all candidates of a
 * take together, since they met the same moment. Few takes spread too little when they are drawn, by the root of (n - 1) / n and by what
 * Student's distribution is wider than the normal one: each criterion's draws lie that much further from its value. Where one take was
 * heard by several listeners, values are moved by what these disagree by.
 * @param tell how far it is, 0 to 1
 */
export function rankDoubt(from: DrawnFrom, weights: WeightDoubt, draws: number = DRAWS, tell: (share: number) => void = () => undefined): RankDoubt {
  const random = randomSource(SEED);
  const { uniform } = random;
  const layouts = layoutsOf(from);
  const candidates = from.candidateIds.length;
  const whole = wholeDraw(from.takeIds.length, from.listeners.length);
  const asIs = layouts.map((layout) => emptyDrawn(layout, whole));
  const widths = layouts.map(widthOf);
  const given = from.criteria.map(({ weight }) => weight);
  const scores = Array.from({ length: candidates }, () => new Float64Array(draws));
  const best = new Float64Array(candidates);
  const firstTwo = new Float64Array(candidates);
  const beats = Array.from({ length: candidates }, () => new Float64Array(candidates));
  const broken = from.criteria.map(() => new Float64Array(candidates));
  const draw = wholeDraw(from.takeIds.length, from.listeners.length);
  const first = firstOf(from.criteria, weightShares(given), layouts, asIs);
  const gaps = from.candidateIds.map(() => ({ all: new Spread(), by: from.criteria.map(() => new Spread()) }));
  const own = asIs.map(({ values, overLimit }) => ({ values: values.slice(), overLimit: overLimit.slice() }));
  for (let at = 0; at < draws; at++) {
    drawInto(draw.takes.subarray(0, -1), uniform);
    drawInto(draw.listeners.subarray(0, -1), uniform);
    for (const [index, layout] of layouts.entries()) {
      const drawn = own[index] as CriterionDrawn;
      drawnOf(layout, draw, drawn);
      if (layout.spread) scatter(drawn.values, (asIs[index] as CriterionDrawn).values, layout.spread, random.normal);
      else widen(drawn.values, (asIs[index] as CriterionDrawn).values, widths[index] as number);
      for (let candidate = 0; candidate < candidates; candidate++) if ((drawn.overLimit[candidate] as number) > 0) (broken[index] as Float64Array)[candidate]! += 1;
    }
    const drawnShares = weightShares(drawnWeights(given, weights, uniform));
    const standing = standingOf(from.criteria, drawnShares, layouts, own);
    if (first !== null) addGaps(gaps, first, from.criteria, drawnShares, layouts, own);
    countPlaces(standing, best, firstTwo, beats);
    for (const [candidate, { score }] of standing.entries()) (scores[candidate] as Float64Array)[at] = score ?? Number.NaN;
    if (at % 100 === 99) tell((at + 1) / draws);
  }
  const shares = weightShares(given);
  return {
    weights,
    draws,
    first: first === null ? null : (from.candidateIds[first] as string),
    places: from.candidateIds.map((candidateId, candidate) => ({
      candidateId,
      score: spanOf(scores[candidate] as Float64Array),
      best: (best[candidate] as number) / draws,
      firstTwo: (firstTwo[candidate] as number) / draws,
      beats: Array.from(beats[candidate] as Float64Array, (times) => times / draws),
      breaks: from.criteria.flatMap(({ id }, index) => {
        const times = broken[index]?.[candidate] ?? 0;
        return times > 0 ? [{ criterionId: id, share: times / draws }] : [];
      }),
      toSettle: candidate === first ? null : settled(gaps[candidate] as Gaps, from.criteria, Math.max(0, ...layouts.map(({ takes }) => takes))),
    })),
    fixed: from.criteria.flatMap(({ id, weight }, index) =>
      weight > 0 && widths[index] === 0 && !layouts[index]?.spread && (layouts[index] as Layout).known.some(Boolean) ? [id] : [],
    ),
    deciding: decidingTakes(from, layouts, shares, asIs),
  };
}

function emptyDrawn(layout: Layout, whole: Draw): CriterionDrawn {
  const drawn = { values: new Float64Array(layout.own.length), overLimit: new Float64Array(layout.own.length) };
  drawnOf(layout, whole, drawn);
  return drawn;
}

/** How much further than drawn a criterion's values lie from what they are; 0 where there is nothing to draw from. */
function widthOf({ takes, scattered }: Layout): number {
  return takes < 2 ? 0 : Math.sqrt(takes / (takes - 1)) * (studentQuantile(0.975, scattered?.df ?? takes - 1) / NORMAL_97_5);
}

/** Values moved by what listeners disagree by, as Student's distribution has it: of all candidates by one estimate of how much that is. */
function scatter(values: Float64Array, asIs: Float64Array, { errors, df }: ListenerSpread, normal: () => number): void {
  let squares = 0;
  for (let at = 0; at < df; at++) squares += normal() ** 2;
  const scale = Math.sqrt(df / squares);
  for (let at = 0; at < values.length; at++) values[at] = (asIs[at] as number) + (errors[at] as number) * normal() * scale;
}

/** Moves drawn values away from what they are by a factor; a candidate of whom nothing was drawn has its value. */
function widen(values: Float64Array, asIs: Float64Array, width: number): void {
  for (let at = 0; at < values.length; at++) {
    const centre = asIs[at] as number;
    const drawn = values[at] as number;
    values[at] = Number.isNaN(drawn) ? centre : centre + width * (drawn - centre);
  }
}

/** As many as there are, drawn with replacement: how often each is there. */
function drawInto(counts: Float64Array, uniform: () => number): void {
  counts.fill(0);
  for (let at = 0; at < counts.length; at++) counts[Math.floor(uniform() * counts.length)]! += 1;
}

function drawnWeights(given: readonly number[], doubt: WeightDoubt, uniform: () => number): readonly number[] {
  if (doubt === 'given') return given;
  if (doubt === 'tenth') return given.map((weight) => weight * (0.9 + 0.2 * uniform()));
  // Any shares are as likely as any others; what weighs nothing is no question of the trial.
  return given.map((weight) => (weight === 0 ? 0 : -Math.log(1 - uniform())));
}

/** Where the middle and the 95 of 100 in the middle lie. */
function spanOf(scores: Float64Array): PlaceDoubt['score'] {
  const sorted = scores.filter((score) => !Number.isNaN(score)).sort();
  if (sorted.length === 0) return null;
  const at = (share: number) => sorted[Math.round(share * (sorted.length - 1))] as number;
  return { low: at(0.025), middle: at(0.5), high: at(0.975) };
}

/** Among more takes one alone is not looked for. */
const MOST_DECIDING = 200;

/** Takes without which another candidate stands first. */
function decidingTakes(from: DrawnFrom, layouts: readonly Layout[], shares: readonly number[], asIs: readonly CriterionDrawn[]): string[] {
  const first = firstOf(from.criteria, shares, layouts, asIs);
  if (first === null || from.takeIds.length > MOST_DECIDING) return [];
  return from.takeIds.filter((_, left) => {
    const draw = { ...wholeDraw(from.takeIds.length, from.listeners.length), leavesOut: true };
    draw.takes[left] = 0;
    const without = layouts.map((layout) => emptyDrawn(layout, draw));
    for (const [index, { values }] of without.entries()) widen(values, (asIs[index] as CriterionDrawn).values, 1);
    return firstOf(from.criteria, shares, layouts, without) !== first;
  });
}
