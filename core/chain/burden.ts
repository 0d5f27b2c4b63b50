import type { Chain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';

/** What a chain costs and weighs, and what must be kept charged. */
export interface Burden {
  /** Sum of the known prices; null when none is known or when currencies are mixed. */
  price: number | null;
  currency: string | null;
  weightG: number | null;
  batteries: { type: string; count: number }[];
  /** Running time of the link that stops first; null when no link states one. */
  runningTimeH: number | null;
  /** What the totals leave out, in sentences. */
  gaps: string[];
}

/**
 * Totals of a chain over its links. A figure that is missing on a link is named in `gaps` rather than
 * counted as zero.
 */
export function chainBurden(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>): Burden {
  const links = chain.links.flatMap((link) => items.get(link.itemId) ?? []);
  const gaps: string[] = [];
  const lost = chain.links.length - links.length;
  if (lost > 0) gaps.push(`${lost} ${lost === 1 ? 'link is' : 'links are'} no longer in the library`);

  const priced = links.filter((item) => item.price !== null);
  const currencies = new Set(priced.map((item) => item.currency));
  const mixed = currencies.size > 1;
  if (mixed) gaps.push(`prices in ${[...currencies].join(' and ')} cannot be added`);
  const unpriced = links.filter((item) => item.price === null);
  if (unpriced.length > 0) gaps.push(`no price: ${unpriced.map((item) => item.name).join(', ')}`);
  const unweighed = links.filter((item) => item.weightG === null);
  if (unweighed.length > 0) gaps.push(`no weight: ${unweighed.map((item) => item.name).join(', ')}`);

  const batteries = new Map<string, number>();
  for (const item of links) {
    if (item.batteryCount > 0) {
      const type = item.batteryType || 'type not stated';
      batteries.set(type, (batteries.get(type) ?? 0) + item.batteryCount);
    }
  }
  const times = links.flatMap((item) => item.runningTimeH ?? []);
  return {
    price: mixed || priced.length === 0 ? null : priced.reduce((sum, item) => sum + (item.price ?? 0), 0),
    currency: mixed ? null : ([...currencies][0] ?? null),
    weightG: links.length === unweighed.length ? null : links.reduce((sum, item) => sum + (item.weightG ?? 0), 0),
    batteries: [...batteries].map(([type, count]) => ({ type, count })),
    runningTimeH: times.length > 0 ? Math.min(...times) : null,
    gaps,
  };
}
