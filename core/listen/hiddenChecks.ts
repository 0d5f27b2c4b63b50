import type { HiddenCheck, Listener, Rating } from '../domain/round.ts';

/** A round, as much of it as says what lies at a place of a listener's order: its recordings first, what is hidden after them. */
interface Placed {
  recordingIds: readonly string[];
  checks: readonly HiddenCheck[];
  checkOf: readonly number[];
}

/** What is heard at a place of a round: which recording, and as which check; undefined where there is no such place. */
export function heardAt({ recordingIds, checks, checkOf }: Placed, place: number): { of: number; check: HiddenCheck | null } | undefined {
  if (place < recordingIds.length) return place < 0 ? undefined : { of: place, check: null };
  const [check, of] = [checks[place - recordingIds.length], checkOf[place - recordingIds.length]];
  return check === undefined || of === undefined ? undefined : { of, check };
}

/** How steady a listener was by the checks that were hidden; null where there was none of a kind. */
export interface Steadiness {
  /** How many points apart the same clip was judged under its two letters, on average over criteria. */
  pointsApart: number | null;
  /** Part of the other clips, over all criteria, that got more points than the one made worse on purpose. */
  aboveWorse: number | null;
}

/** What a listener heard under which letter, and the points they gave. */
type Judged = Pick<Listener, 'letters' | 'checks' | 'ratings'>;

const letterOf = ({ checks }: Pick<Judged, 'checks'>, check: HiddenCheck) => Object.keys(checks).find((letter) => checks[letter] === check);
/** Two clips on one criterion. */
const sameCriterion = ({ criterionId }: Rating, others: readonly Rating[]) => others.find((other) => other.criterionId === criterionId);

/** How many points apart the clip that was there twice was judged, on each criterion; none where none was. */
export function pointsApartOf(judged: Judged): number[] {
  const { letters, checks, ratings } = judged;
  const again = letterOf(judged, 'again');
  const first = Object.keys(letters ?? {}).find((letter) => !checks[letter] && again !== undefined && letters?.[letter] === letters?.[again]);
  const of = (letter: string | undefined) => ratings.filter((rating) => rating.letter === letter);
  return of(first).flatMap((rating) => {
    const other = sameCriterion(rating, of(again));
    return other ? [Math.abs(rating.points - other.points)] : [];
  });
}

export function steadinessOf(judged: Judged): Steadiness {
  const { ratings } = judged;
  const worse = letterOf(judged, 'worse');
  const apart = pointsApartOf(judged);
  const above = ratings.flatMap((rating) => {
    const made = ratings.filter((each) => each.letter === worse);
    const under = rating.letter === worse ? undefined : sameCriterion(rating, made);
    return under ? [rating.points > under.points] : [];
  });
  return {
    pointsApart: apart.length === 0 ? null : apart.reduce((sum, each) => sum + each, 0) / apart.length,
    aboveWorse: above.length === 0 ? null : above.filter(Boolean).length / above.length,
  };
}

/** Points that the same clip may lie apart, and the part of clips that must lie above the one made worse, for a listener to be called steady. */
const [STEADY_POINTS, STEADY_SHARE] = [1.5, 0.75];

/** Steadiness as a sentence; empty where nothing was hidden. */
export function steadinessText({ pointsApart, aboveWorse }: Steadiness): string {
  const same = pointsApart === null ? '' : `The same clip twice: ${pointsApart.toFixed(1)} points apart. `;
  const worse = aboveWorse === null ? '' : `The one made worse: under ${Math.round(aboveWorse * 100)} % of the others. `;
  if (same + worse === '') return '';
  const steady = (pointsApart ?? 0) <= STEADY_POINTS && (aboveWorse ?? 1) >= STEADY_SHARE;
  return `${same}${worse}${steady ? 'Steady.' : 'Less steady than one would build on: perhaps tired, in a noisy place, or the clips are as alike as that.'}`;
}
