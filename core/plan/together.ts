import type { Chain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import type { TogetherLimits } from '../domain/plan.ts';

/** Why two candidates, or one more in a take, cannot be recorded at once. */
export interface Bar {
  chainIds: [string, string];
  why: string;
}

/** Candidates by takes, and what keeps them from sharing one. */
export interface Together {
  /** Ids of the candidates that one take can carry. */
  groups: string[][];
  bars: Bar[];
}

type Rigged = Pick<Chain, 'id' | 'name' | 'links' | 'split'>;

/** A chain with a transmitter is worn on the talker's chest; one without stands, hangs or is held. */
export function isWorn(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>): boolean {
  return chain.links.some((link) => items.get(link.itemId)?.kind === 'transmitter');
}

/**
 * Which candidates can be recorded in one take: as many as the recorder has tracks, as many worn ones
 * as a chest has room for (a split shares the microphone of its chain), none with another that would disturb it, and no item in more chains at once
 * than there are units of it, where their number is known. Recorders and cameras serve several chains at once. First fit, the most
 * barred candidates first, so that nothing is barred that could be together with all others.
 * @param times how many of each candidate a take carries, where levels are recorded at one moment
 */
export function togetherGroups(chains: readonly Rigged[], items: ReadonlyMap<string, Item>, limits: TogetherLimits, times = 1): Together {
  const bars = pairBars(chains, items, limits);
  const barred = (a: string, b: string) => bars.some(({ chainIds }) => chainIds.includes(a) && chainIds.includes(b));
  const count = (id: string) => bars.filter(({ chainIds }) => chainIds.includes(id)).length;
  const order = [...chains].sort((a, b) => count(b.id) - count(a.id));
  const groups: Rigged[][] = [];
  for (const chain of order) {
    const home = groups.find((group) => !group.some((other) => barred(other.id, chain.id)) && fits([...group, chain], items, limits, times));
    if (home) home.push(chain);
    else groups.push([chain]);
  }
  const place = new Map(chains.map((chain, index) => [chain.id, index]));
  const byPlace = (a: Rigged, b: Rigged) => (place.get(a.id) ?? 0) - (place.get(b.id) ?? 0);
  const sorted = groups.map((group) => group.sort(byPlace)).sort((a, b) => byPlace(a[0] as Rigged, b[0] as Rigged));
  return { groups: sorted.map((group) => group.map((chain) => chain.id)), bars };
}

/** Units that a chain keeps for itself while it records; what it shares by a split is counted with the other chain. */
function ownUnits(chain: Rigged, items: ReadonlyMap<string, Item>): Item[] {
  return chain.links
    .slice(chain.split?.links ?? 0)
    .flatMap((link) => items.get(link.itemId) ?? [])
    .filter((item) => item.kind !== 'recorder' && item.kind !== 'camera');
}

function pairBars(chains: readonly Rigged[], items: ReadonlyMap<string, Item>, limits: TogetherLimits): Bar[] {
  const bars: Bar[] = [];
  chains.forEach((first, index) => {
    for (const second of chains.slice(index + 1)) {
      if (limits.apart.some((pair) => pair.includes(first.id) && pair.includes(second.id))) {
        bars.push({ chainIds: [first.id, second.id], why: `${first.name} and ${second.name} would disturb each other` });
      }
      const shared = ownUnits(first, items).filter((item) => ownUnits(second, items).includes(item) && item.channels < 2 && item.owned !== null && item.owned < 2);
      for (const item of new Set(shared)) {
        bars.push({ chainIds: [first.id, second.id], why: `${first.name} and ${second.name} both need ${item.name}, of which there is ${item.owned === 0 ? 'none' : 'one'}` });
      }
    }
  });
  return bars;
}

function fits(group: readonly Rigged[], items: ReadonlyMap<string, Item>, limits: TogetherLimits, times: number): boolean {
  if (group.length * times > limits.tracks || group.filter((chain) => chain.split === null && isWorn(chain, items)).length * times > limits.onChest) return false;
  const needed = new Map<Item, number>();
  for (const item of group.flatMap((chain) => ownUnits(chain, items))) needed.set(item, (needed.get(item) ?? 0) + times);
  return [...needed].every(([item, count]) => item.owned === null || count <= Math.max(1, item.owned) * item.channels);
}

/** What sharing takes saves, and which candidates never share a moment. */
export interface TogetherSums {
  takesApart: number;
  takesTogether: number;
  /** Pairs of candidates that are only compared across takes. */
  apartPairs: [string, string][];
}

/** @param conditions number of conditions recorded with every candidate */
export function togetherSums(groups: readonly (readonly string[])[], conditions: number): TogetherSums {
  const all = groups.flat();
  const groupOf = (id: string) => groups.findIndex((group) => group.includes(id));
  const apartPairs = all.flatMap((a, index) =>
    all
      .slice(index + 1)
      .filter((b) => groupOf(a) !== groupOf(b))
      .map((b): [string, string] => [a, b]),
  );
  return { takesApart: all.length * conditions, takesTogether: groups.length * conditions, apartPairs };
}
