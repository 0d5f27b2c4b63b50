import type { Chain } from '../domain/chain.ts';
import type { Item, WordLength } from '../domain/item.ts';

/** What a chain costs and weighs, and what must be kept charged. */
export interface Burden {
  /** Sum of the known prices, with adapters that are sold apart; null when none is known or when currencies are mixed. */
  price: number | null;
  currency: string | null;
  weightG: number | null;
  batteries: { type: string; count: number }[];
  cables: number;
  adapters: number;
  /** Recording time of each link that records by itself, at the rate and word length that it is set to. */
  recordingHours: { name: string; hours: number }[];
  /** Running time of the link that stops first; null when no link states one. */
  runningTimeH: number | null;
  /** What the totals leave out, in sentences. */
  gaps: string[];
}

const BYTES: Record<WordLength, number> = { '16 bit': 2, '24 bit': 3, '32-bit float': 4 };

/**
 * Hours of uncompressed sound that storage holds; 1 GB is 1,000,000,000 bytes, as on the card.
 * @example recordingHours(32, 48_000, '24 bit', 2) // 30.9
 */
export function recordingHours(storageGb: number, sampleRateHz: number, wordLength: WordLength, tracks: number): number {
  return (storageGb * 1e9) / (sampleRateHz * BYTES[wordLength] * tracks * 3600);
}

/**
 * Changes of batteries that a day of so many hours needs, and the batteries for them, spare ones
 * included: a link that runs for r hours is changed ceil(day / r) - 1 times.
 */
export function batteriesOfDay(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>, dayH: number): { changes: number; batteries: { type: string; count: number }[] } {
  let changes = 0;
  const counts = new Map<string, number>();
  for (const item of chain.links.flatMap((link) => items.get(link.itemId) ?? [])) {
    if (item.batteryCount === 0 || item.runningTimeH === null) continue;
    const fills = Math.max(1, Math.ceil(dayH / Math.max(item.runningTimeH, 0.1)));
    changes += fills - 1;
    const type = item.batteryType || 'type not stated';
    counts.set(type, (counts.get(type) ?? 0) + fills * item.batteryCount);
  }
  return { changes, batteries: [...counts].map(([type, count]) => ({ type, count })) };
}

/** What the batteries of a chain cost in a year of use, and of which links that is not known. */
export interface YearOfBatteries {
  price: number;
  unknown: string[];
}

/**
 * What the batteries of a chain cost in a year: each link's, as often as they run down in the hours of use.
 * @example two of 0.50 that run for 5 h, over 300 h: 60 times 1.00, which is 60
 */
export function batteriesOfYear(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>, hoursAYear: number): YearOfBatteries {
  const year: YearOfBatteries = { price: 0, unknown: [] };
  for (const item of chain.links.flatMap((link) => items.get(link.itemId) ?? [])) {
    if (item.batteryCount === 0 || item.batteryPrice === 0) continue;
    if (item.batteryPrice === null || !item.runningTimeH) year.unknown.push(item.name);
    else year.price += (item.batteryCount * item.batteryPrice * hoursAYear) / item.runningTimeH;
  }
  return year;
}

/** Running time of the link that stops first, by chain id, for the chains of which one is known. */
export function runningTimes(chains: readonly Pick<Chain, 'id' | 'links'>[], items: readonly Item[]): Map<string, number> {
  const byId = new Map(items.map((item) => [item.id, item]));
  return new Map(
    chains.flatMap((chain) => {
      const { runningTimeH } = chainBurden(chain, byId);
      return runningTimeH === null ? [] : [[chain.id, runningTimeH] as const];
    }),
  );
}

/**
 * Totals of a chain over its links. A figure that is missing on a link is named in `gaps` rather than
 * counted as zero.
 */
export function chainBurden(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>): Burden {
  const links = chain.links.flatMap((link) => items.get(link.itemId) ?? []);
  const gaps: string[] = [];
  const recording = chain.links.flatMap(({ itemId, settings }) => {
    const item = items.get(itemId);
    if (!item || item.storageGb === null) return [];
    if (settings.sampleRateHz === null || settings.wordLength === null) {
      gaps.push(`recording time of ${item.name}: set its sample rate and word length`);
      return [];
    }
    const tracks = item.channels + (settings.safetyTrackDb ? item.channels : 0);
    return [{ name: item.name, hours: recordingHours(item.storageGb, settings.sampleRateHz, settings.wordLength, tracks) }];
  });
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
    price: mixed || priced.length === 0 ? null : priced.reduce((sum, item) => sum + (item.price ?? 0) + (item.adapterPrice ?? 0), 0),
    currency: mixed ? null : ([...currencies][0] ?? null),
    weightG: links.length === unweighed.length ? null : links.reduce((sum, item) => sum + (item.weightG ?? 0), 0),
    cables: links.filter((item) => item.kind === 'cable').length,
    adapters: links.filter((item) => item.kind === 'adapter' || item.adapterPrice !== null).length,
    recordingHours: recording,
    batteries: [...batteries].map(([type, count]) => ({ type, count })),
    runningTimeH: times.length > 0 ? Math.min(...times) : null,
    gaps,
  };
}
