import type { Chain } from './chain.ts';
import type { Item } from './item.ts';
import type { RigRecordDraft } from './rigRecord.ts';
import type { Hazard, Station } from './station.ts';
import type { WearerDraft } from './wearer.ts';

/** A warning that stands where the danger is. It never blocks, and each person may put it away. */
export interface Caution {
  /** Which danger it is about. */
  id: string;
  /** Where or on whom; empty when it is about all of them. */
  subjects: string[];
  danger: string;
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

const SKIN_TEXT = 'Ask for consent before rigging on a body, ask about allergies, and use tape made for skin. Stop at once if it stings.';

/** What a range walk needs whoever walks it. */
export const WALK_CAUTION: Caution = {
  id: 'walk',
  subjects: [],
  danger: 'Range walk',
  text: 'Somebody else watches the way: nobody walks backwards, or near water, traffic or an edge, with eyes on a screen. Local rules for radio use go before this test.',
};

/** Cautions that a station's hazards bring. */
export function stationCautions(station: Pick<Station, 'name' | 'hazards'>): Caution[] {
  return station.hazards.map((hazard) => ({
    id: `station:${hazard}`,
    subjects: [station.name],
    danger: hazard,
    text: HAZARD_TEXT[hazard],
  }));
}

/** Cautions that a chain brings: a rig on skin, and the use of radio. */
export function chainCautions(chain: Pick<Chain, 'name' | 'rig' | 'links'>, items: ReadonlyMap<string, Item>): Caution[] {
  const cautions: Caution[] = [];
  if (chain.rig.onSkin) {
    cautions.push({
      id: 'rig:skin',
      subjects: [chain.name],
      danger: 'rig on skin',
      text: SKIN_TEXT,
    });
  }
  if (chain.links.some((link) => ['transmitter', 'receiver'].includes(items.get(link.itemId)?.kind ?? ''))) {
    cautions.push({
      id: 'radio:licence',
      subjects: [],
      danger: 'Radio',
      text: 'Which frequencies and powers may be used, and whether a licence is needed, is a matter of local law. Check with the national regulator before transmitting.',
    });
  }
  return cautions;
}

/** Cautions that a wearer brings: nobody is rigged without having been asked, and skin is told of. */
export function wearerCautions(wearer: Pick<WearerDraft, 'name' | 'consent'>, rig: Pick<RigRecordDraft, 'onSkin' | 'name'> | null): Caution[] {
  const cautions: Caution[] = [];
  if (wearer.consent === '')
    cautions.push({
      id: 'wearer:consent',
      subjects: [wearer.name],
      danger: 'not asked yet',
      text: 'Ask before rigging on a body: where, by whom, and who else is in the room. Whoever wears it may say no at any time, also to a spot that was agreed. Write down what was agreed.',
    });
  if (rig?.onSkin) cautions.push({ id: 'rig:skin', subjects: [rig.name], danger: 'rig on skin', text: SKIN_TEXT });
  return cautions;
}

/** How a caution is headed, and under what a person's dismissal of it is kept. */
export function cautionTitle({ subjects, danger }: Caution): string {
  return subjects.length > 0 ? `${subjects.join(', ')}: ${danger}` : danger;
}

/** Each danger once, with all that it is about, in the order first met. */
export function distinctCautions(cautions: readonly Caution[]): Caution[] {
  const seen = new Map<string, Caution>();
  for (const caution of cautions) {
    const known = seen.get(caution.id);
    seen.set(caution.id, known ? { ...known, subjects: [...new Set([...known.subjects, ...caution.subjects])] } : caution);
  }
  return [...seen.values()];
}
