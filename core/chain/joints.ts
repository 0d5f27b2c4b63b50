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
  return [...joints, ...levels, ...powerFindings(links), ...clockFindings(active)];
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
  if (from.balancedOutput !== null && to.balancedInput !== null && from.balancedOutput !== to.balancedInput) {
    findings.push({
      severity: 'care',
      joint,
      sentence: from.balancedOutput
        ? 'Balanced into unbalanced: half of the signal may be shorted, and the cable picks up hum.'
        : 'Unbalanced into balanced: the cable picks up hum and radio.',
      remedy: 'Keep this cable short, or put a transformer between them.',
    });
  }
  if (from.channels > to.channels) {
    findings.push({
      severity: 'care',
      joint,
      sentence: `${from.name} gives ${from.channels} channels, ${to.name} takes ${to.channels}: the others are lost, or summed with this one.`,
      remedy: 'Set the output to one channel, or use an input for each.',
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
  const wrongInput = inputFinding(from, to);
  if (wrongInput) return [wrongInput];
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

/** Full scale of a line output is above this, that of a microphone output below. */
const LINE_FROM_DBU = -6;
const MIC_TO_DBU = -20;

/** Whether the input is set to the kind of level that comes. */
function inputFinding(from: Link, to: Link): JointFinding | null {
  const { outputMaxDbu } = from.item;
  const joint = `${from.item.name} into ${to.item.name}`;
  if (outputMaxDbu !== null && outputMaxDbu >= LINE_FROM_DBU && to.settings.lineLevel === 'mic') {
    const sentence = `Line into mic: ${from.item.name} gives ${signed(outputMaxDbu, 0)} dBu at full scale, and ${to.item.name} is set to mic level.`;
    return { severity: 'fault', joint, sentence, remedy: `Set ${to.item.name} to line level, or turn the output of ${from.item.name} down to mic level.` };
  }
  if (outputMaxDbu !== null && outputMaxDbu <= MIC_TO_DBU && to.settings.lineLevel === 'line') {
    const sentence = `Mic into line: ${from.item.name} gives ${signed(outputMaxDbu, 0)} dBu at full scale, and ${to.item.name} is set to line level.`;
    return { severity: 'fault', joint, sentence, remedy: `Set ${to.item.name} to mic level, or the output of ${from.item.name} to line.` };
  }
  return null;
}

/** Sample rates along a chain: one that a unit cannot run at, and ones that differ. */
function clockFindings(active: readonly Link[]): JointFinding[] {
  const set = active.filter((link) => link.settings.sampleRateHz !== null);
  const unable = set.filter(({ item, settings }) => item.sampleRatesHz.length > 0 && !item.sampleRatesHz.includes(settings.sampleRateHz as number));
  const findings = unable.map(({ item, settings }): JointFinding => {
    const sentence = `${item.name} is set to ${rateText(settings.sampleRateHz as number)} but runs at ${item.sampleRatesHz.map(rateText).join(', ')}.`;
    return { severity: 'fault', joint: item.name, sentence, remedy: 'Set it to a rate that it has.' };
  });
  const [first] = set;
  for (const { item, settings } of set.slice(1)) {
    if (!first || settings.sampleRateHz === first.settings.sampleRateHz) continue;
    const joint = `${first.item.name} and ${item.name}`;
    const sentence = `${first.item.name} runs at ${rateText(first.settings.sampleRateHz as number)}, ${item.name} at ${rateText(settings.sampleRateHz as number)}: their files differ in length and pitch when one is taken for the other.`;
    findings.push({ severity: 'fault', joint, sentence, remedy: 'Set both to the same rate.' });
  }
  return findings;
}

const rateText = (hz: number) => `${hz / 1000} kHz`;

/**
 * Units that more candidates need at once than they have channels for. It concerns candidates that are
 * recorded together.
 */
export function checkShared(chains: readonly Pick<Chain, 'name' | 'links' | 'split'>[], items: ReadonlyMap<string, Item>): JointFinding[] {
  const users = new Map<string, string[]>();
  for (const chain of chains) {
    for (const link of chain.links.slice(chain.split?.links ?? 0)) users.set(link.itemId, [...(users.get(link.itemId) ?? []), chain.name]);
  }
  return [...users].flatMap(([itemId, names]): JointFinding[] => {
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
}

/** What feeds a microphone is the first link behind it that has electronics, or is a supply. */
function powerFindings(links: readonly Link[]): JointFinding[] {
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
