import type { Chain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import type { JointFinding } from './joint.types.ts';
import { isActive } from './levels.ts';

/**
 * Units that more candidates need at once than they have channels for. It concerns candidates that are
 * recorded together.
 */
export function checkShared(chains: readonly Pick<Chain, 'name' | 'links' | 'split'>[], items: ReadonlyMap<string, Item>): JointFinding[] {
  const users = new Map<string, string[]>();
  for (const chain of chains) {
    for (const link of chain.links.slice(chain.split?.links ?? 0)) users.set(link.itemId, [...(users.get(link.itemId) ?? []), chain.name]);
  }
  const tooMany = [...users].flatMap(([itemId, names]): JointFinding[] => {
    const item = items.get(itemId);
    // One channel and no number of units is what an item has that nobody described.
    const described = item !== undefined && (item.channels > 1 || item.owned !== null);
    if (!described || !isActive(item) || names.length <= item.channels * Math.max(1, item.owned ?? 1)) return [];
    const has = (item.owned ?? 1) > 1 ? `${item.owned} units with ${item.channels} each` : String(item.channels);
    return [
      {
        severity: 'care',
        joint: item.name,
        sentence: `${names.join(', ')} all go into ${item.name}: ${names.length} channels where there are ${has}.`,
        remedy: 'Enter its channels and how many you have in the library, use another unit, or record these apart.',
      },
    ];
  });
  return [...tooMany, ...fedTwice(chains, items)];
}

/** A line that is split and that both sides feed with phantom: the two supplies work against each other. */
function fedTwice(chains: readonly (Pick<Chain, 'name' | 'links' | 'split'> & { id?: string })[], items: ReadonlyMap<string, Item>): JointFinding[] {
  const feeder = (links: Chain['links']) => {
    const link = links.find(({ itemId }) => isActive(items.get(itemId) ?? { kind: 'cable' }));
    return link?.settings.power?.startsWith('phantom') ? items.get(link.itemId) : undefined;
  };
  return chains.flatMap((chain): JointFinding[] => {
    const whole = chain.split && chains.find((each) => each.id === chain.split?.chainId);
    if (!chain.split || !whole) return [];
    const [own, other] = [feeder(chain.links.slice(chain.split.links)), feeder(whole.links.slice(chain.split.links))];
    if (!own || !other) return [];
    return [
      {
        severity: 'fault',
        joint: `${other.name} and ${own.name}`,
        sentence: `Both sides of the split feed phantom: ${other.name} for ${whole.name} and ${own.name} for ${chain.name}.`,
        remedy: 'Let one side feed, and switch phantom off at the other.',
      },
    ];
  });
}
