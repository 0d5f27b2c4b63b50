import type { Criterion } from '../../domain/criterion.ts';
import { listed } from '../../domain/listed.ts';
import { percentText } from '../../listen/paired/sayDoubt.ts';
import { MEASURES, signed } from '../../measure/catalogue.ts';
import { criterionUnit } from '../verdictCsv.ts';
import type { PlaceDoubt, RankDoubt } from './rankDoubt.ts';
import type { TurnOver } from './turnOver.ts';

/** In so many of the draws one stands above another where it is called clearly above: 5 % of doubt, shared out over both sides. */
export const CLEARLY = 0.975;

/** The first, or where several share that place the one that is first most often, and those that are too close to it to call; null where none is ever first. */
export function closeToFirst({ places, first: firstId }: Pick<RankDoubt, 'places' | 'first'>): { first: PlaceDoubt; close: PlaceDoubt[] } | null {
  const mostOften = places.reduce<PlaceDoubt | null>((most, place) => (place.best > (most?.best ?? 0) ? place : most), null);
  const first = places.find(({ candidateId }) => candidateId === firstId) ?? mostOften;
  if (!first) return null;
  const close = places.filter((place, at) => place !== first && place.score !== null && place.firstTwo + place.best > 0 && (first.beats[at] ?? 1) < CLEARLY);
  return { first, close };
}

/** Whether there is a winner, as a sentence. */
export function closeText(doubt: RankDoubt, nameOf: (candidateId: string) => string): string {
  const found = closeToFirst(doubt);
  if (!found) return 'Nobody can be first: all are ruled out, or have no score.';
  const { first, close } = found;
  const name = nameOf(first.candidateId);
  const often = `It is best in ${percentText(first.best)} of ${doubt.draws.toLocaleString('en')} draws.`;
  const [nearest] = [...close].sort((a, b) => b.best - a.best);
  if (!nearest) return `${name} is clearly first: it stands above each other one in at least ${percentText(CLEARLY)} of draws. ${often}`;
  const others = close.map(({ candidateId }) => nameOf(candidateId));
  return `Too close to call between ${listed([name, ...others])}. ${name} leads; ${often.charAt(0).toLowerCase()}${often.slice(1)}`;
}

/** What it would take to tell one that is too close from the first, as a sentence; empty where nothing can be said. */
export function settleText(
  { candidateId, toSettle }: Pick<PlaceDoubt, 'candidateId' | 'toSettle'>,
  criteria: readonly Criterion[],
  nameOf: (candidateId: string) => string,
): string {
  const criterion = criteria.find(({ id }) => id === toSettle?.criterionId);
  if (!toSettle || !criterion) return '';
  const { moreTakes, share } = toSettle;
  const most = `the doubt lies most in "${criterion.name}" (${percentText(share)})${criterion.kind === 'listened' ? ', which more listeners, or more takes that are heard, make surer' : ''}`;
  const many =
    moreTakes === null
      ? 'no number of takes would tell them apart, if they differ as they seem to'
      : moreTakes > MOST_TAKES
        ? `more than ${MOST_TAKES} takes more would be needed, if they differ as they seem to: for the purpose they are alike`
        : `at least some ${moreTakes} takes more like these would tell, if they differ as they seem to`;
  return `${nameOf(candidateId)}: ${many}; ${most}.`;
}

/** Nobody records more to tell two apart. */
export const MOST_TAKES = 100;

const digitsOf = ({ measureId }: Pick<Criterion, 'measureId'>) => (measureId ? MEASURES[measureId].digits : 1);
const valueText = (criterion: Criterion, value: number) => `${signed(value, digitsOf(criterion))} ${criterionUnit(criterion)}`.trim();

/** What would put another one first, as a sentence. */
export function turnText(turn: TurnOver, criteria: readonly Criterion[], nameOf: (candidateId: string) => string, first: string): string {
  const criterion = criteria.find(({ id }) => id === turn.criterionId);
  if (!criterion) return '';
  const name = nameOf(turn.candidateId);
  switch (turn.kind) {
    case 'weight':
      return `${name} draws level if "${criterion.name}" weighs ${percentText(turn.to)} instead of ${percentText(turn.from)}, the other weights among themselves as they are.`;
    case 'value':
      return `${name} draws level if ${first} has ${valueText(criterion, turn.to)} instead of ${valueText(criterion, turn.from)} in "${criterion.name}".`;
    case 'limit':
      return `${name} would be first, were it not for the limit of "${criterion.name}", which it breaks with ${valueText(criterion, turn.value)}.`;
  }
}

/** What a place rests on: the criterion that puts the first ahead of another one most, and what speaks for the other. */
export function aheadText(byCriterion: readonly number[], criteria: readonly Criterion[]): string {
  const named = byCriterion.map((points, at) => ({ points, name: criteria[at]?.name ?? '' })).sort((a, b) => b.points - a.points);
  const [most, least] = [named[0], named.at(-1)];
  const total = byCriterion.reduce((sum, each) => sum + each, 0);
  const parts = [
    most && most.points > 0.05 ? `most by "${most.name}" (${signed(most.points, 1)})` : '',
    least && least.points < -0.05 ? `though "${least.name}" speaks for the other (${signed(least.points, 1)})` : '',
  ].filter(Boolean);
  return `ahead by ${total.toFixed(1)} points${parts.length > 0 ? `, ${parts.join(', ')}` : ''}`;
}
