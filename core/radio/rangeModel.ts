/** Ten seconds of a link at a distance, and whether it broke up in them. */
export interface RangeWindow {
  distanceM: number;
  brokeUp: boolean;
}

/** How far a link holds, with its doubt. */
export interface Range {
  windows: number;
  brokeUp: number;
  /** The farthest and the nearest that was tried. */
  nearestM: number;
  farthestM: number;
  /** Where one in ten seconds breaks up with a chance of a tenth; null where nothing broke up within what was tried, or everything did. */
  reliableToM: number | null;
  /** 95 of 100 such intervals hold the true distance; null is open on that side. */
  lowM: number | null;
  highM: number | null;
  /** Where no figure can be told for want of break-ups: at least so far, with 90 of 100. */
  atLeastM: number | null;
}

/** A link is reliable while a break-up in ten seconds is no more likely than this. */
export const RELIABLE_CHANCE = 0.1;
export const WINDOW_S = 10;

/** Distances that are tried as answers, in octaves: from half a metre to two kilometres, twelve to the octave. */
const LEAST_OCTAVE = -1;
const MOST_OCTAVE = 11;
const PER_OCTAVE = 12;
/**
 * How fast the odds of a break-up grow with each doubling of the distance, as logarithms. A fading link fails in proportion to what
 * it lacks in power, and power falls at least with the square of the distance (J. G. Proakis, Digital Communications, 2001, on
 * Rayleigh fading): fourfold is the least, all at once the most.
 */
const LEAST_SLOPE = Math.log(4);
const SLOPES = Array.from({ length: 36 }, (_, step) => LEAST_SLOPE * 1.1 ** step);
/** Half of the chi-square quantile of one degree of freedom for 95 of 100. */
const BOTH_SIDES_95 = 1.9207;
/** Where nothing broke up, its chance is the likelihood itself: a distance at which that is under a tenth is ruled out with 90 of 100, exactly. */
const QUIET_BY_CHANCE = Math.log(10);

const LOGIT = Math.log(RELIABLE_CHANCE / (1 - RELIABLE_CHANCE));
/** Logarithm of the chance itself and of its opposite, for odds given as a logarithm. */
const logChance = (logit: number) => (logit > 0 ? -Math.log1p(Math.exp(-logit)) : logit - Math.log1p(Math.exp(logit)));

/**
 * How far a link is reliable: the chance of a break-up in ten seconds against distance as a logistic curve over the
 * logarithm of the distance, by maximum likelihood, with an interval from the profile of the likelihood (P. McCullagh and J. A. Nelder,
 * Generalized Linear Models, 1989, section 7.1). The profile needs no break-up to be seen: where none was, or where all lie beyond
 * all that held, it stays open on one side, and what can be told is a bound. Windows count as independent of each other.
 * @returns null where nothing was tried
 */
export function rangeOf(windows: readonly RangeWindow[]): Range | null {
  if (windows.length === 0) return null;
  const distances = windows.map(({ distanceM }) => distanceM);
  const brokeUp = windows.filter((window) => window.brokeUp).length;
  const profile = profileOf(windows);
  const best = Math.max(...profile);
  const inside = (drop: number) => profile.map((value) => value >= best - drop);
  const [from, to] = edges(inside(BOTH_SIDES_95));
  const settled = brokeUp > 0 && brokeUp < windows.length;
  // Of a flat top, as separate data have it, the middle is told.
  const [topFrom, topTo] = edges(inside(1e-6));
  const open = { low: from === 0, high: to === profile.length - 1 };
  const [bound] = edges(inside(QUIET_BY_CHANCE));
  return {
    windows: windows.length,
    brokeUp,
    nearestM: Math.min(...distances),
    farthestM: Math.max(...distances),
    reliableToM: settled ? metresAt((topFrom + topTo) / 2) : null,
    lowM: open.low ? null : metresAt(from),
    highM: open.high ? null : metresAt(to),
    atLeastM: brokeUp === 0 && bound > 0 ? metresAt(bound) : null,
  };
}

const metresAt = (step: number) => 2 ** (LEAST_OCTAVE + step / PER_OCTAVE);

function edges(inside: readonly boolean[]): [first: number, last: number] {
  return [inside.indexOf(true), inside.lastIndexOf(true)];
}

/** The best likelihood at each distance that is tried as the answer, as a logarithm. */
function profileOf(windows: readonly RangeWindow[]): number[] {
  // Windows of one distance count together.
  const byDistance = new Map<number, { octave: number; broke: number; held: number }>();
  for (const { distanceM, brokeUp } of windows) {
    const group = byDistance.get(distanceM) ?? { octave: Math.log2(distanceM), broke: 0, held: 0 };
    if (brokeUp) group.broke++;
    else group.held++;
    byDistance.set(distanceM, group);
  }
  const groups = [...byDistance.values()];
  return Array.from({ length: (MOST_OCTAVE - LEAST_OCTAVE) * PER_OCTAVE + 1 }, (_, step) => {
    const answer = LEAST_OCTAVE + step / PER_OCTAVE;
    let best = Number.NEGATIVE_INFINITY;
    for (const slope of SLOPES) {
      let sum = 0;
      for (const { octave, broke, held } of groups) {
        const logit = LOGIT + slope * (octave - answer);
        sum += (broke > 0 ? broke * logChance(logit) : 0) + (held > 0 ? held * logChance(-logit) : 0);
      }
      best = Math.max(best, sum);
    }
    return best;
  });
}

/**
 * A range as one figure, for who must rank by it: where it is reliable to; where nothing broke up, as far as it surely holds; where
 * everything did, no farther than it surely fails. Null where too little was tried for any of them.
 */
export function rangeValueM({ reliableToM, atLeastM, highM, brokeUp, windows, farthestM }: Range): number | null {
  if (brokeUp === 0) return atLeastM === null ? null : Math.min(atLeastM, farthestM);
  return brokeUp === windows ? highM : reliableToM;
}

const metres = (value: number) => `${value < 10 ? value.toFixed(1) : Math.round(value)} m`;

/** A range as a sentence; what cannot be told is said to be so. */
export function rangeWords(range: Range | null): string {
  if (!range) return 'not tried';
  const { reliableToM, lowM, highM, atLeastM, brokeUp, windows, farthestM, nearestM } = range;
  if (brokeUp === 0)
    return `no break-up seen to ${metres(farthestM)}: ${atLeastM === null ? 'too little was tried to say how far' : `at least ${metres(Math.min(atLeastM, farthestM))} with 90 %`}`;
  if (brokeUp === windows || reliableToM === null) return `broke up wherever it was tried, from ${metres(nearestM)} on`;
  return `reliable to ${metres(reliableToM)} (${lowM === null ? 'from nothing' : metres(lowM)} to ${highM === null ? 'open' : metres(highM)})`;
}
