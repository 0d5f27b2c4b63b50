import type { OrderRules } from '../../domain/plan.ts';
import { type PlannedTake, takeKey } from '../gather.ts';

type Pin = OrderRules['pinned'][number];

/** A take's condition without the candidates in it: what a lock still means after one joined or left. */
const conditionOf = (key: string) => key.slice(0, key.lastIndexOf('|'));

/**
 * Places of takes that are locked. A lock holds by the whole take; where its candidates changed since, by
 * its condition.
 */
export function pinnedPlaces(takes: readonly PlannedTake[], { pinned: pins }: OrderRules): Map<PlannedTake, number> {
  const places = new Map<PlannedTake, number>();
  const left = new Set(pins);
  const claim = (fits: (pin: Pin, key: string) => boolean) => {
    for (const take of takes) {
      if (places.has(take)) continue;
      const key = takeKey(take);
      const pin = [...left].find((each) => fits(each, key));
      if (!pin) continue;
      left.delete(pin);
      places.set(take, pin.position);
    }
  };
  claim((pin, key) => pin.key === key);
  claim((pin, key) => conditionOf(pin.key) === conditionOf(key));
  return places;
}

/**
 * Puts takes that are locked into the order of the others, each at its place: the others fill what is
 * left. A place behind the end, or one that two claim, is the nearest free one.
 */
export function withPinned(ordered: readonly PlannedTake[], pinned: ReadonlyMap<PlannedTake, number>): PlannedTake[] {
  const size = ordered.length + pinned.size;
  const slots = new Array<PlannedTake | undefined>(size);
  for (const [take, wished] of [...pinned].sort((a, b) => a[1] - b[1])) {
    let place = Math.min(wished, size - 1);
    while (place < size - 1 && slots[place]) place++;
    while (slots[place]) place--;
    slots[place] = take;
  }
  let next = 0;
  return Array.from(slots, (slot) => slot ?? (ordered[next++] as PlannedTake));
}

/**
 * Locks after a take was moved or freed: the locks of others stay, and one whose place it takes moves to
 * where it came from.
 * @param to the place it gets; null frees it
 */
export function movedPins(pins: readonly Pin[], key: string, from: number, to: number | null): Pin[] {
  const others = pins.filter((pin) => pin.position !== from || conditionOf(pin.key) !== conditionOf(key));
  if (to === null) return others;
  return [...others.map((pin) => (pin.position === to ? { ...pin, position: from } : pin)), { key, position: to }];
}
