import type { Chain } from '../domain/chain.ts';
import { connectorFacts } from '../domain/connector.ts';
import type { Item } from '../domain/item.ts';
import { signed } from '../measure/catalogue.ts';
import { isActive } from './levels.ts';

/** Something about a joint of two links: it does not work, it works with care, or it cannot be told. */
export interface JointFinding {
  severity: 'fault' | 'care' | 'unknown';
  /** Names of both links. */
  joint: string;
  sentence: string;
  remedy: string;
}

type Link = Chain['links'][number] & { item: Item };
/** Even at full gain a signal this far under full scale is a wrong input, not a quiet talker. */
const TOO_LOW_DB = 24;

/**
 * Looks at every joint of a chain, windscreens apart: do the connectors go together, are they wired
 * alike, is the microphone fed, does the level of one suit the next.
 */
export function checkJoints(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>): JointFinding[] {
  const links = chain.links.flatMap((link): Link[] => {
    const item = items.get(link.itemId);
    return item && item.kind !== 'windscreen' ? [{ ...link, item }] : [];
  });
  const joints = links.slice(1).flatMap((to, index) => connectorFindings((links[index] as Link).item, to.item));
  // Cables and adapters pass a level on: what counts is the electronics on either side.
  const active = links.filter(({ item }) => isActive(item));
  const levels = active.slice(1).flatMap((to, index) => levelFindings(active[index] as Link, to));
  return [...joints, ...levels, ...powerFindings(links.map(({ item }) => item))];
}

function connectorFindings(from: Item, to: Item): JointFinding[] {
  const joint = `${from.name} into ${to.name}`;
  if (from.outputConnector === null || to.inputConnector === null) {
    const whose = [from.outputConnector === null && `the output of ${from.name}`, to.inputConnector === null && `the input of ${to.name}`].filter(Boolean).join(' and ');
    return [{ severity: 'unknown', joint, sentence: `The connector of ${whose} is not known.`, remedy: 'Look, and enter it in the library.' }];
  }
  const out = connectorFacts(from.outputConnector);
  const into = connectorFacts(to.inputConnector);
  if (out.shape !== into.shape) {
    const sentence = `${from.name} ends in ${from.outputConnector}, ${to.name} takes ${to.inputConnector}.`;
    return [{ severity: 'fault', joint, sentence, remedy: `Put an adapter from ${from.outputConnector} to ${to.inputConnector} between them, and count its price.` }];
  }
  const findings: JointFinding[] = [];
  if (out.poles !== into.poles) {
    findings.push({
      severity: 'fault',
      joint,
      sentence: `A plug with ${out.poles} poles in a socket for ${into.poles}: contacts meet the wrong ones, and the voice is faint, hollow or gone.`,
      remedy: `Use an adapter from ${out.poles} to ${into.poles} poles, or the cable made for this socket.`,
    });
  }
  if (from.wiring && to.wiring && from.wiring !== to.wiring) {
    findings.push({
      severity: 'fault',
      joint,
      sentence: `The plug fits but is wired ${from.wiring}, the socket ${to.wiring}.`,
      remedy: 'Have the plug wired for this unit, or use the adapter for it. Try it before the day.',
    });
  }
  if (!out.locks || !into.locks) {
    findings.push({
      severity: 'care',
      joint,
      sentence: 'This joint does not lock: a pull on the cable opens it or makes it crackle.',
      remedy: 'Tape it, with a loop for strain relief.',
    });
  }
  return findings;
}

function levelFindings(from: Link, to: Link): JointFinding[] {
  const { outputMaxDbu } = from.item;
  const { inputMaxDbu, gainMaxDb } = to.item;
  if (outputMaxDbu === null || inputMaxDbu === null) return [];
  const joint = `${from.item.name} into ${to.item.name}`;
  const gainDb = (to.settings.gainDb ?? 0) - (to.settings.padDb ?? 0);
  const overDb = outputMaxDbu + gainDb - inputMaxDbu;
  if (overDb > 0) {
    return [
      {
        severity: 'fault',
        joint,
        sentence: `Line into mic: full scale of ${from.item.name} is ${signed(outputMaxDbu, 0)} dBu, ${overDb.toFixed(0)} dB more than ${to.item.name} takes as it is set.`,
        remedy: `Take ${overDb.toFixed(0)} dB of gain off, set a pad, or use the line input.`,
      },
    ];
  }
  const underDb = gainMaxDb === null ? 0 : inputMaxDbu - outputMaxDbu - gainMaxDb;
  if (underDb > TOO_LOW_DB) {
    return [
      {
        severity: 'fault',
        joint,
        sentence: `Mic into line: even at full gain, full scale of ${from.item.name} stays ${underDb.toFixed(0)} dB under that of ${to.item.name}, down in its noise.`,
        remedy: 'Use the mic input, or set the output to line level.',
      },
    ];
  }
  return [];
}

/** What feeds a microphone is the first link behind it that has electronics, or is a supply. */
function powerFindings(items: readonly Item[]): JointFinding[] {
  const microphone = items.find((item) => item.kind === 'microphone');
  const feeder = items.slice(microphone ? items.indexOf(microphone) + 1 : 0).find((item) => isActive(item) || item.powerGives !== null);
  if (!microphone || !feeder) return [];
  const joint = `${microphone.name} fed by ${feeder.name}`;
  const needs = microphone.powerNeeds;
  const gives = feeder.powerGives;
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
