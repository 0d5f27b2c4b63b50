import type { Chain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import type { JointFinding } from './joint.types.ts';
import { isActive } from './levels.ts';

type Link = Chain['links'][number] & { item: Item };

/** Phantom that is switched on where it does harm: into the output of a receiver, or into a microphone that lives on its own battery. */
function phantomFindings(links: readonly Link[]): JointFinding[] {
  return links.flatMap(({ item, settings }, at): JointFinding[] => {
    const before = links.slice(0, at).findLast((link) => isActive(link.item) || link.item.kind === 'microphone' || link.item.powerGives !== null)?.item;
    if (!before || !settings.power?.startsWith('phantom')) return [];
    const joint = `${before.name} fed by ${item.name}`;
    if (before.kind === 'receiver') {
      const sentence = `${item.name} feeds ${settings.power} into the output of ${before.name}: that can crackle, and some outputs do not survive it.`;
      return [{ severity: 'fault', joint, sentence, remedy: 'Switch phantom off at this input.' }];
    }
    if (before.kind === 'microphone' && before.powerNeeds === 'none' && before.balancedOutput === false) {
      const sentence = `${before.name} has its own power and an unbalanced output: ${settings.power} of ${item.name} lies across it and can destroy it.`;
      return [{ severity: 'fault', joint, sentence, remedy: 'Switch phantom off at this input, or put a transformer between them.' }];
    }
    return [];
  });
}

/** What feeds a microphone is the first link behind it that has electronics, or is a supply. */
export function powerFindings(links: readonly Link[]): JointFinding[] {
  return [...phantomFindings(links), ...feedFindings(links)];
}

function feedFindings(links: readonly Link[]): JointFinding[] {
  const at = links.findIndex(({ item }) => item.kind === 'microphone');
  const microphone = links[at]?.item;
  const feeding = links.slice(at + 1).find(({ item }) => isActive(item) || item.powerGives !== null);
  if (!microphone || !feeding) return [];
  const feeder = feeding.item;
  const joint = `${microphone.name} fed by ${feeder.name}`;
  const needs = microphone.powerNeeds;
  const gives = feeding.settings.power ?? feeder.powerGives;
  if (needs === null || (gives === null && needs !== 'none')) {
    const whose = needs === null ? `what ${microphone.name} is fed with` : `what ${feeder.name} feeds`;
    return [{ severity: 'unknown', joint, sentence: `It is not known ${whose}.`, remedy: 'Look it up and enter it in the library.' }];
  }
  if (gives === null || needs === gives || needs === 'none') return [];
  // A microphone that takes 12 V of phantom takes 48 V as well; the other way round it stays deaf.
  if (needs === 'phantom 12 V' && gives === 'phantom 48 V') return [];
  const harm = (needs === 'plug-in' || needs === 'bias') && gives.startsWith('phantom');
  return [
    {
      severity: 'fault',
      joint,
      sentence: harm
        ? `${microphone.name} wants ${needs} power, ${feeder.name} gives ${gives}: that can destroy it.`
        : `${microphone.name} wants ${needs}${needs.startsWith('phantom') ? '' : ' power'}, ${feeder.name} gives ${gives === 'none' ? 'none' : gives}: it stays silent or thin.`,
      remedy: harm ? 'Switch phantom off and put a power adapter between them.' : 'Use a supply between them, another input, or its own battery.',
    },
  ];
}
