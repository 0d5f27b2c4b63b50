import type { Chain } from '../domain/chain.ts';
import { connectorFacts } from '../domain/connector.ts';
import type { Item } from '../domain/item.ts';
import { signed } from '../measure/catalogue.ts';
import type { JointFinding } from './joint.types.ts';
import { isActive } from './levels.ts';
import { powerFindings } from './powerJoints.ts';
import { sameWiring } from './wiring.ts';

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
  // Cables and adapters pass a level on, less what they take away: what counts is the electronics on either side.
  const active = links.filter(({ item }) => isActive(item) || item.kind === 'microphone');
  const levels = active.slice(1).flatMap((to, index) => {
    const from = active[index] as Link;
    const between = links.slice(links.indexOf(from) + 1, links.indexOf(to));
    return [...roleFindings(from, to), ...levelFindings(from, to, between)];
  });
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
  if (!into.takes.includes(out.shape)) {
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
  findings.push(...wiringFindings(from, to, joint));
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
  if (from.channels === 2 && to.channels === 1 && from.balancedOutput === false && to.balancedInput === true) {
    findings.push({
      severity: 'fault',
      joint,
      sentence: 'Stereo into balanced mono: the input takes the difference of left and right, so that what both have is gone.',
      remedy: 'Use a cable that brings one of the two, or an input for each.',
    });
  } else if (from.channels > to.channels) {
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

/** How each end of a joint is wired; an adapter or cable may be wired differently at its other end. */
function wiringFindings(from: Item, to: Item, joint: string): JointFinding[] {
  const out = from.outputWiring || from.wiring;
  const into = to.wiring;
  if (out && into && !sameWiring(out, into)) {
    return [
      {
        severity: 'fault',
        joint,
        sentence: `The plug fits but is wired ${out}, the socket ${into}.`,
        remedy: 'Have the plug wired for this unit, or use the adapter for it. Try it before the day.',
      },
    ];
  }
  // Only of small plugs makers disagree; one side alone says nothing of whether they go together.
  const small = from.outputConnector !== null && connectorFacts(from.outputConnector).wiredDifferently;
  if (!small || !!out === !!into) return [];
  const whose = out ? to.name : from.name;
  return [{ severity: 'unknown', joint, sentence: `The plug fits, but how ${whose} is wired is not known.`, remedy: 'Look it up, and try the pair before the day.' }];
}

/** What is what in a chain: radio goes from a transmitter to a receiver of its own system, and nowhere else. */
function roleFindings(from: Link, to: Link): JointFinding[] {
  const joint = `${from.item.name} into ${to.item.name}`;
  const fault = (sentence: string, remedy: string): JointFinding[] => [{ severity: 'fault', joint, sentence, remedy }];
  if (from.item.kind === 'transmitter' && to.item.kind !== 'receiver') {
    return fault(`${from.item.name} sends by radio: ${to.item.name} cannot hear it.`, 'Put the receiver of this transmitter between them.');
  }
  if (to.item.kind === 'receiver' && from.item.kind !== 'transmitter') {
    return fault(`${to.item.name} takes what a transmitter sends, not the output of ${from.item.name}.`, 'Put a transmitter before it, or leave the receiver out.');
  }
  if (to.item.kind !== 'receiver') return [];
  const [own, other] = [from.item.radioSystem, to.item.radioSystem].map((system) => system.toLowerCase().trim()) as [string, string];
  if (own && other && own !== other) {
    return fault(
      `${from.item.name} is of the system ${from.item.radioSystem}, ${to.item.name} of ${to.item.radioSystem}: they do not hear each other.`,
      'Use a receiver of the same system.',
    );
  }
  if (!!own === !!other) return [];
  const whose = own ? to.item.name : from.item.name;
  return [{ severity: 'unknown', joint, sentence: `Which radio system ${whose} is of is not known.`, remedy: 'Look, and enter it in the library.' }];
}

function levelFindings(from: Link, to: Link, between: readonly Link[]): JointFinding[] {
  if (from.item.kind === 'microphone') return microphoneIntoLine(from, to);
  if (from.item.kind === 'transmitter' || to.item.kind === 'receiver') return [];
  const lostDb = between.reduce((sum, { item, settings }) => sum + (item.lossDb ?? 0) + (settings.padDb ?? 0), 0);
  const outputMaxDbu = from.item.outputMaxDbu === null ? null : from.item.outputMaxDbu - lostDb;
  const { gainMaxDb } = to.item;
  const inputMaxDbu = to.settings.lineLevel === 'line' ? to.item.lineInputMaxDbu : to.item.inputMaxDbu;
  const wrongInput = inputFinding(from, to, outputMaxDbu);
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

/** A microphone straight into an input that is set to line. */
function microphoneIntoLine(from: Link, to: Link): JointFinding[] {
  if (to.settings.lineLevel !== 'line') return [];
  const joint = `${from.item.name} into ${to.item.name}`;
  const sentence = `Microphone into line: ${to.item.name} is set to line level, and the voice stays down in its noise.`;
  return [{ severity: 'fault', joint, sentence, remedy: `Set ${to.item.name} to mic level.` }];
}

/** Full scale of a line output is above this, that of a microphone output below. */
const LINE_FROM_DBU = -6;
const MIC_TO_DBU = -20;

/** Whether the input is set to the kind of level that comes. */
function inputFinding(from: Link, to: Link, outputMaxDbu: number | null): JointFinding | null {
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
  // An analogue joint has no rate: only what is sent as numbers must agree, as a radio does with its receiver.
  active.slice(1).forEach((to, index) => {
    const from = active[index] as Link;
    const rates = [from, to].map((link) => link.settings.sampleRateHz);
    if (to.item.kind !== 'receiver' || rates.some((rate) => rate === null) || rates[0] === rates[1]) return;
    const sentence = `${from.item.name} runs at ${rateText(rates[0] as number)}, ${to.item.name} at ${rateText(rates[1] as number)}: what one sends the other cannot take as it is.`;
    findings.push({ severity: 'fault', joint: `${from.item.name} and ${to.item.name}`, sentence, remedy: 'Set both to the same rate.' });
  });
  return findings;
}

const rateText = (hz: number) => `${hz / 1000} kHz`;
