import type { FilePlace, RecorderOfTrial } from '@marvet/core/contract/places';
import { SURE } from '@marvet/core/takes/places/placeByClock';

/** Nearer than this a clock that was found is right, as far as it can be known. */
const RIGHT_WITHIN_S = 5;

const BY: Record<NonNullable<FilePlace['placed']>['by'], string> = {
  'file name': 'its name',
  'iXML or bext': 'scene and take in it',
  clock: 'its clock',
  sound: 'what sounds in it',
  hand: 'hand',
  'recorded here': 'being recorded here',
};

/** Slate of a take, by its identity. */
export type SlateOf = (takeId: string) => string;

/**
 * By how much a clock is off, in words.
 * @example aheadText(14_417) // '4 h 17 s ahead'
 */
export function aheadText(aheadS: number): string {
  const all = Math.abs(aheadS);
  if (Math.round(all) === 0) return 'right';
  const years = Math.floor(all / (365.25 * 86_400));
  if (years > 0) return `${years} ${years === 1 ? 'year' : 'years'} and more ${aheadS > 0 ? 'ahead' : 'behind'}`;
  const whole = Math.round(all);
  const parts = [
    [Math.floor(whole / 86_400), 'd'],
    [Math.floor(whole / 3600) % 24, 'h'],
    [Math.floor(whole / 60) % 60, 'min'],
    [whole % 60, 's'],
  ] as const;
  const told = parts.filter(([count]) => count > 0).map(([count, unit]) => `${count} ${unit}`);
  return `${told.join(' ')} ${aheadS > 0 ? 'ahead' : 'behind'}`;
}

/** How sure something is; never all of it. */
export const percentText = (share: number): string => `${Math.min(99, Math.floor(share * 100))} %`;

/** What is known of the clock of a recorder, and from what. */
export function clockSays({ clock, timed, aheadByHandS }: RecorderOfTrial): string {
  if (timed === 0) return 'its files do not say when they began';
  if (aheadByHandS !== null) return `${aheadText(aheadByHandS)}, set by hand`;
  if (!clock) return 'fits no part of the log';
  const drift = Math.abs(clock.driftPpm) >= 1 ? `, drifting ${clock.driftPpm.toFixed(0)} ppm` : '';
  const off = Math.abs(clock.aheadS) < RIGHT_WITHIN_S ? 'right to a few seconds' : `about ${aheadText(clock.aheadS)}`;
  // How early a recorder is started nobody knows, so no clock is known exactly; and nothing is sure to the last.
  return `${off}${drift}, ${percentText(clock.sure)} sure`;
}

/** Whether a file was cut about several takes. */
export const isCut = ({ placed }: FilePlace): boolean => placed !== null && placed.takes > 1;

/** Whether what lies in a take may not belong there, or nobody knows where it belongs. */
export function isDoubtful(place: FilePlace): boolean {
  if (isCut(place)) return false;
  if (place.over.length > 0) return true;
  if (!place.placed) return place.confidence <= SURE;
  return contradicts(place) !== null;
}

/** Whether a file surely belongs to a take that it does not lie in, and nobody but a clock has put it where it lies. */
export function isSurelyElsewhere({ placed, takeId, confidence, over }: FilePlace): boolean {
  const free = !placed || (placed.by === 'clock' && placed.takes === 1);
  return free && takeId !== null && takeId !== placed?.takeId && confidence > SURE && over.length === 0;
}

/** The take that the clock says where a file lies in another one; null where it agrees, or is not sure. */
export function contradicts({ placed, takeId, confidence, others }: FilePlace): { takeId: string | null; confidence: number } | null {
  if (!placed || placed.takes > 1) return null;
  const [other] = others;
  const says = takeId === placed.takeId ? (other ?? null) : { takeId, confidence };
  return says && says.takeId !== placed.takeId && says.confidence > 0.5 ? says : null;
}

/** Slates in a row, those in the middle left out where they are many. */
const overText = (slates: readonly string[]) => (slates.length > 4 ? `${slates.length} takes, ${slates[0]} to ${slates.at(-1)}` : slates.join(', '));

/** Why a file is thought to belong where it is said, in a few words. */
export function placeReason(place: FilePlace, slateOf: SlateOf): string {
  const { placed, takeId, timeBy, over, startsAtMs } = place;
  if (placed && isCut(place)) return `cut into ${placed.takes} takes by ${BY[placed.by]}`;
  if (!placed && place.like) {
    if (place.by === 'sound') return over.length > 0 ? `sounds like ${overText(over.map(slateOf))}: it is to be cut` : `sounds like ${place.like.name}`;
    return `by its clock it is ${slateOf(takeId ?? '')}, but it sounds like ${place.like.name} of ${slateOf(place.like.takeId)}`;
  }
  if (over.length > 0) return `runs over ${overText(over.map(slateOf))}: it is to be cut`;
  const against = contradicts(place);
  if (placed && against) {
    const says = against.takeId === null ? 'is of no take' : `is ${slateOf(against.takeId)}`;
    return `lies there by ${BY[placed.by]}; by its clock it ${says} (${percentText(against.confidence)})`;
  }
  if (placed) return `by ${BY[placed.by]}`;
  if (timeBy === null) return 'does not say when it began';
  if (startsAtMs === null) return 'the clock of its recorder fits no part of the log';
  const by = timeBy === 'header' ? 'its clock' : 'when it was last written';
  if (takeId === null) return place.confidence > 0.5 ? `by ${by} nothing was logged then` : 'the clock of its recorder is not known well enough';
  const part = place.cuts.find((cut) => cut.takeId === takeId)?.cutOff;
  return part ? `by ${by}; the take ${part === 'begins before' ? 'begins before it' : 'goes on after it'}` : `by ${by}`;
}
