import type { Chain } from './chain.ts';
import type { Item } from './item.ts';
import type { Hazard, Station } from './station.ts';

/** A warning that stands where the danger is. It never blocks, and each person may put it away. */
export interface Caution {
  /** Stable identity under which a person's dismissal is kept. */
  id: string;
  title: string;
  text: string;
}

const HAZARD_TEXT: Record<Hazard, string> = {
  road: 'A second person watches the traffic. Nobody logs while driving or crossing. Follow the road authority and the site’s own rules.',
  platform: 'Stay behind the line, with a second person watching for trains. Filming and booms need the operator’s leave; its rules go before this plan.',
  water: 'Life jackets where local rules ask for them, a second person watching, no cable that can pull anyone in. The skipper’s word goes before this plan.',
  vehicle: 'Nobody logs or monitors while driving or riding. Rig only when it stands still, and keep airbags, controls and sight lines clear. Local traffic law applies.',
  height: 'Edges and ladders: a second person, tools tied on, and a competent person for any work at height under local rules.',
  'overhead line': 'Raise no pole, boom or aerial near overhead lines. Keep the distance that the line’s owner and local rules give; if in doubt, do not raise it.',
};

/** Cautions that a station's hazards bring. */
export function stationCautions(station: Pick<Station, 'name' | 'hazards'>): Caution[] {
  return station.hazards.map((hazard) => ({
    id: `station:${hazard}`,
    title: `${station.name}: ${hazard}`,
    text: HAZARD_TEXT[hazard],
  }));
}

/** Cautions that a chain brings: a rig on skin, and the use of radio. */
export function chainCautions(chain: Pick<Chain, 'name' | 'rig' | 'links'>, items: ReadonlyMap<string, Item>): Caution[] {
  const cautions: Caution[] = [];
  if (chain.rig.onSkin) {
    cautions.push({
      id: 'rig:skin',
      title: `${chain.name}: rig on skin`,
      text: 'Ask for consent before rigging on a body, ask about allergies, and use tape made for skin. Stop at once if it stings.',
    });
  }
  if (chain.links.some((link) => ['transmitter', 'receiver'].includes(items.get(link.itemId)?.kind ?? ''))) {
    cautions.push({
      id: 'radio:licence',
      title: 'Radio',
      text: 'Which frequencies and powers may be used, and whether a licence is needed, is a matter of local law. Check with the national regulator before transmitting.',
    });
  }
  return cautions;
}

/** Each caution once, in the order first met. */
export function distinctCautions(cautions: readonly Caution[]): Caution[] {
  const seen = new Map<string, Caution>();
  for (const caution of cautions) {
    const key = `${caution.id}|${caution.title}`;
    if (!seen.has(key)) seen.set(key, caution);
  }
  return [...seen.values()];
}
