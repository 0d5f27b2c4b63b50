import type { Chain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import { GAIN_STAGES, type Gains } from '../domain/take.ts';

/** Gains of a chain as they are set in Kit, by stage; a stage that it has not, or that nobody set, is left out. */
export function kitGains(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Pick<Item, 'kind'>>): Gains {
  const gains: Gains = {};
  for (const { itemId, settings } of chain.links) {
    const stage = GAIN_STAGES.find((each) => each === items.get(itemId)?.kind);
    if (stage && settings.gainDb !== null) gains[stage] = settings.gainDb;
  }
  return gains;
}
