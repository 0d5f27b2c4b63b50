import type { Chain } from '../../domain/chain.ts';
import type { Suspect } from '../../domain/faultSearch.ts';
import type { Item } from '../../domain/item.ts';

const INSTEAD: Partial<Record<Item['kind'], string>> = {
  microphone: 'a twin, or another microphone into the same unit',
  transmitter: 'another transmitter, or its own recording instead of the radio',
  receiver: 'another receiver, or the transmitter’s own recording',
  recorder: 'another recorder, or its own file instead of the output',
  camera: 'a recorder in its place',
  windscreen: 'without it, indoors',
  cable: 'another cable',
  adapter: 'another adapter',
};

/** Suspects of a chain in signal order: its links, the feed where there is one, and the line input's level. */
export function suspectsOf(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>): Suspect[] {
  return chain.links.flatMap((link, index): Suspect[] => {
    const item = items.get(link.itemId);
    if (!item) return [];
    const suspects: Suspect[] = [{ id: `link-${index}`, name: item.name, instead: INSTEAD[item.kind] ?? 'its twin' }];
    if (item.powerNeeds && item.powerNeeds !== 'none')
      suspects.push({ id: `power-${index}`, name: `${item.powerNeeds} for ${item.name}`, instead: 'its battery, or a supply of its own' });
    if (link.settings.lineLevel === 'mic') suspects.push({ id: `level-${index}`, name: `mic input of ${item.name}`, instead: 'line level into the line input' });
    return suspects;
  });
}
