import { grouped } from '../../domain/grouped.ts';
import { withoutEnding } from '../../domain/withoutEnding.ts';

/** A channel that came in, with all that names say of it. */
export interface NamedChannel {
  fileId: string;
  channelIndex: number;
  fileName: string;
  /** What its recorder is called: the folder, what does not count up in the names of its files, and what it calls itself. */
  recorder: string;
  trackName: string | null;
  /** Channels of the file. */
  of: number;
}

/** One way of reading a microphone's name out of what a file is called. */
type Reading = (channel: NamedChannel) => string;

/** So many ways are worth a look. */
const MOST_READINGS = 5;
/** More microphones than this are hardly meant. */
const MOST_MICROPHONES = 16;
/** A name that is there already says more than how evenly names come again. */
const KNOWN_WORTH = 2;
/** Words that tell of a take, not of a microphone. */
const TAKE_WORDS = /^(?:slate|scene|take|sc|sl|tk|pass|s|t|p|rec|zoom|audio|track|tr|file|final|wav|mono|stereo)$/i;

const baseOf = ({ fileName }: NamedChannel) => withoutEnding(fileName);
/** @example partsOf('Lav A-take3') // ['Lav', 'A', 'take3'] */
const partsOf = (channel: NamedChannel) =>
  baseOf(channel)
    .split(/[\s_.-]+/)
    .filter(Boolean);
const words = (channel: NamedChannel) =>
  partsOf(channel)
    .map((part) => part.replace(/^\d+|\d+$/g, ''))
    .filter((part) => part !== '' && !TAKE_WORDS.test(part))
    .join(' ');

/** Ways of reading, likeliest first. */
const READINGS: readonly Reading[] = [
  ({ trackName }) => trackName ?? '',
  ({ recorder }) => recorder,
  words,
  (channel) => baseOf(channel).replace(/[\s_.-]*(?:slate|scene|take|tk|pass)?[\s_.-]*\d+$/i, ''),
  (channel) => baseOf(channel).replace(/^\d+[\s_.-]*/, ''),
  ...[0, 1, 2, 3].flatMap((place): Reading[] => [(channel) => partsOf(channel)[place] ?? '', (channel) => partsOf(channel).at(-1 - place) ?? '']),
];

/**
 * Which microphone each channel is of, as its names tell: all ways of reading them, best first. Under the best no take has a
 * microphone twice, and each microphone is in as many takes as possible.
 * @param takeOf the take of a file, as far as it is known: files of one moment are of one take, and so of different microphones
 * @param known names of microphones that are there already
 * @returns one name a channel in each way; in the last every file is a microphone of its own
 * @example microphoneReadings([lavA_1, boom_1, lavA_2, boom_2], takeOf)[0] // ['lavA', 'boom', 'lavA', 'boom']
 */
export function microphoneReadings(channels: readonly NamedChannel[], takeOf: (fileId: string) => string, known: readonly string[] = []): string[][] {
  const there = new Set(known.map((name) => name.toLowerCase()));
  const takes = channels.map(({ fileId }) => takeOf(fileId));
  const whole = channels.map((channel) => nameIn(channel, baseOf));
  const ways = READINGS.map((read) => channels.map((channel) => nameIn(channel, read))).filter((names) => names.every((name) => name !== ''));
  const judged = [...ways, whole].map((names) => ({
    names,
    worth: worthOf(names, takes) + (KNOWN_WORTH * names.filter((name) => there.has(name.toLowerCase())).length) / Math.max(1, names.length),
  }));
  const order = judged.sort((a, b) => b.worth - a.worth).map(({ names }) => names);
  // Of readings that tell the same channels apart the likeliest is kept.
  return [...grouped(order, partition).values()].map(([likeliest]) => likeliest as string[]).slice(0, MOST_READINGS);
}

/** Which channels go together, whatever they are called. */
const partition = (names: readonly string[]) => names.map((name) => names.indexOf(name)).join(' ');

/** A channel of many is called as its track is; without a name it is counted after its file. */
function nameIn(channel: NamedChannel, read: Reading): string {
  const name = read(channel).trim().slice(0, 60);
  if (channel.of < 2) return name;
  if (channel.trackName?.trim()) return channel.trackName.trim().slice(0, 60);
  return name && `${name} ${channel.channelIndex + 1}`;
}

/** How well names fit the takes: 1 where every microphone is once in every take. */
function worthOf(names: readonly string[], takes: readonly string[]): number {
  const microphones = new Set(names).size;
  const places = new Set(names.map((name, index) => `${takes[index]}\n${name}`)).size;
  const twice = names.length - places;
  const together = new Set(takes).size < names.length;
  // Recorded in turn, a microphone should come again, and as often as the others.
  const counts = [...grouped(names, (name) => name).values()].map((own) => own.length);
  const fill = together ? places / (microphones * new Set(takes).size) : Math.min(...counts) / Math.max(...counts);
  const again = microphones > 1 && microphones < names.length ? 1 : 0;
  const spelt = names.filter((name) => /\p{L}/u.test(name)).length / Math.max(1, names.length);
  return fill + again + 0.25 * spelt - 4 * (twice / names.length) - (microphones > MOST_MICROPHONES ? 2 : 0) - (microphones === 1 ? 1 : 0);
}
