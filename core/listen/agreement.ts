/** Points of each listener for the same clips, in the same order. */
export type PointsByListener = readonly (readonly number[])[];

export interface Agreement {
  /** Kendall's coefficient of concordance, 0 to 1. */
  w: number;
  /** How likely listeners whose orders have nothing in common agree as much. */
  byChance: number;
  /** Agreement of each listener with each other, -1 to 1 (Spearman's, with ties); null where one gave all clips the same. */
  pairs: (number | null)[][];
}

/** Orders that are tried, where there are too many for all of them. */
const DRAWS = 20_000;
/** Equal coefficients count, also where the last digit says otherwise. */
const SAME = 1e-9;

/**
 * How far listeners agree on the order of clips (M. G. Kendall and B. Babington Smith, The problem of m rankings, 1939, with his
 * correction for ties), and whether that is more than chance: every listener's points are dealt out anew, so often, since the usual
 * approximation by chi-square is poor for few clips.
 * @param uniform random numbers in [0, 1)
 * @returns null for fewer than two listeners or three clips, or where nobody told any two clips apart
 */
export function agreement(points: PointsByListener, uniform: () => number): Agreement | null {
  const ranks = points.map(ranksOf);
  const clips = ranks[0]?.length ?? 0;
  if (ranks.length < 2 || clips < 3) return null;
  const w = concordance(ranks);
  if (w === null) return null;
  let asHigh = 1;
  const dealt = ranks.map((row) => Float64Array.from(row));
  for (let draw = 0; draw < DRAWS; draw++) {
    for (const row of dealt) shuffle(row, uniform);
    if ((concordance(dealt) as number) >= w - SAME) asHigh++;
  }
  return { w, byChance: asHigh / (DRAWS + 1), pairs: ranks.map((own) => ranks.map((other) => correlation(own, other))) };
}

/**
 * Ranks of points, equal ones with the mean of their ranks.
 * @example ranksOf([5, 9, 9]) // [1, 2.5, 2.5]
 */
export function ranksOf(points: readonly number[]): number[] {
  return points.map((own) => {
    const below = points.filter((each) => each < own).length;
    const equal = points.filter((each) => each === own).length;
    return below + (equal + 1) / 2;
  });
}

/** Kendall's W of ranks, corrected for ties; null where every listener gave all clips the same. */
export function concordance(ranks: readonly ArrayLike<number>[]): number | null {
  const listeners = ranks.length;
  const clips = ranks[0]?.length ?? 0;
  const mean = (listeners * (clips + 1)) / 2;
  let spread = 0;
  for (let clip = 0; clip < clips; clip++) {
    let sum = 0;
    for (const row of ranks) sum += row[clip] as number;
    spread += (sum - mean) ** 2;
  }
  // What one listener's ranks spread by themselves is less where some are tied: the sum over all is the most there can be.
  let most = 0;
  for (const row of ranks) for (let clip = 0; clip < clips; clip++) most += ((row[clip] as number) - (clips + 1) / 2) ** 2;
  return most === 0 ? null : spread / (listeners * most);
}

function correlation(a: readonly number[], b: readonly number[]): number | null {
  const mean = (a.length + 1) / 2;
  let [shared, ofA, ofB] = [0, 0, 0];
  for (const [at, own] of a.entries()) {
    const other = b[at] as number;
    shared += (own - mean) * (other - mean);
    ofA += (own - mean) ** 2;
    ofB += (other - mean) ** 2;
  }
  return ofA === 0 || ofB === 0 ? null : shared / Math.sqrt(ofA * ofB);
}

function shuffle(row: Float64Array, uniform: () => number): void {
  for (let at = row.length - 1; at > 0; at--) {
    const other = Math.floor(uniform() * (at + 1));
    const kept = row[at] as number;
    row[at] = row[other] as number;
    row[other] = kept;
  }
}

/** How the agreement of a listener with the others on average must be for them to stand apart, and how far the others must agree. */
const [APART, TOGETHER] = [0, 0.5];

/** Listeners who heard it otherwise than all others, who agree; none among fewer than three. */
export function standingApart({ pairs }: Pick<Agreement, 'pairs'>): number[] {
  if (pairs.length < 3) return [];
  const meanOf = (values: readonly (number | null)[]) => {
    const known = values.filter((each) => each !== null);
    return known.length === 0 ? null : known.reduce((sum, each) => sum + each, 0) / known.length;
  };
  return pairs.flatMap((row, own) => {
    const withOthers = meanOf(row.filter((_, other) => other !== own));
    const amongOthers = meanOf(pairs.flatMap((each, a) => (a === own ? [] : each.filter((_, b) => b !== own && b > a))));
    return withOthers !== null && amongOthers !== null && withOthers <= APART && amongOthers >= TOGETHER ? [own] : [];
  });
}
