import { EVENT_KINDS, type EventKind } from '../domain/measureId.ts';
import { EVENT_NAMES } from './eventNames.ts';
import type { AudioEvent, ChannelReport } from './report.types.ts';

/** What the severity of each kind is. */
export const SEVERITY_WORDS: Record<EventKind, string> = {
  dropout: 'deep',
  click: 'out of its surroundings',
  clip: 'over the top',
  plosive: 'against the voice',
  wind: 'against the voice',
  handling: 'against the voice',
  rustle: 'against the voice',
  disturbance: 'against the voice',
};

/** How long something lasted: milliseconds up to a second. */
export function lastedText(seconds: number): string {
  return seconds < 1 ? `${Math.max(1, Math.round(seconds * 1000))} ms` : `${seconds.toFixed(1)} s`;
}

/**
 * An event in a few words.
 * @example eventText({ kind: 'dropout', startS: 3.2, endS: 3.24, severityDb: 41 }) // "break-up at 3.2 s, 40 ms"
 */
export function eventText({ kind, startS, endS }: AudioEvent): string {
  return `${EVENT_NAMES[kind]} at ${startS.toFixed(1)} s, ${lastedText(endS - startS)}`;
}

const MANY = 3;
/** So many things are told of a take; the rest stands in the figures and the list of events. */
const MOST_TOLD = 4;

/** How bad an event of each kind is for a take, one against another. */
const WEIGHT: Record<EventKind, number> = { dropout: 10, clip: 9, wind: 6, handling: 5, rustle: 5, click: 4, plosive: 3, disturbance: 3 };
/** Each second that something lasts in a minute adds as much as an event. */
const MOST_COUNTED = 30;

/** What is said of a cause or of a whole take, beside its events. */
export type Claim = 'overload' | 'masked' | 'noisy' | 'gate' | 'automatic level' | 'room' | 'hum' | 'offset';

interface Told {
  sentence: string;
  weight: number;
}

/**
 * What is unusual about a channel, at most four sentences, the worst first: its events, and figures that
 * stand out. What is said of a cause has a figure of its own that could have said otherwise.
 * @param lengthS length of the recording; how often something comes is judged by it
 */
export function unusual(report: ChannelReport, lengthS: number): string[] {
  const told: Told[] = [...EVENT_KINDS.flatMap((kind) => eventsTold(report, kind, lengthS)), ...claimsOf(report)];
  return told
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_TOLD)
    .map(({ sentence }) => sentence);
}

function eventsTold(report: ChannelReport, kind: EventKind, lengthS: number): Told[] {
  const events = (report.events ?? []).filter((event) => event.kind === kind);
  const [first] = events;
  if (!first) return [];
  const lasted = events.reduce((sum, event) => sum + event.endS - event.startS, 0);
  const perMinute = ((events.length + lasted) * 60) / Math.max(lengthS, 1);
  const weight = WEIGHT[kind] * Math.min(MOST_COUNTED, perMinute);
  if (events.length < MANY) return [{ sentence: sentence(events.map(eventText).join('; ')), weight }];
  return [{ sentence: sentence(`${EVENT_NAMES[kind]} ${events.length} times, ${lastedText(lasted)} in all, first at ${first.startS.toFixed(1)} s`), weight }];
}

/** From such a share of loud peaks flattened an earlier stage was overloaded. */
export const OVERLOAD_SHARE = 0.1;
/** From here on a figure is worth a sentence. */
const MASKED_SII = 0.45;
const NOISY_DB = 12;
const GATED_DB = 5;
const PUMPING_DB = 3;
const LIVE_S = 0.7;
const OFFSET = 0.005;

/** What may be said of the cause of something, and of the take as a whole. */
export function claimsOf({ character, levels, noise, intelligibility }: ChannelReport): (Told & { claim: Claim })[] {
  const told: (Told & { claim: Claim })[] = [];
  const tell = (claim: Claim, weight: number, value: number | null | undefined, isSo: (value: number) => boolean, text: (value: number) => string) => {
    if (value !== null && value !== undefined && isSo(value)) told.push({ claim, weight, sentence: text(value) });
  };
  const pumpingDb = character?.pumpingDb ?? 0;
  tell(
    'overload',
    120,
    levels.flattenedShare,
    (share) => share >= OVERLOAD_SHARE,
    (share) => `${(100 * share).toFixed(0)} % of the loud peaks are flat though none is cut off here: an earlier stage was overloaded.`,
  );
  tell(
    'masked',
    110,
    intelligibility?.sii,
    (index) => index < MASKED_SII,
    () => 'Words are hard to understand in this noise.',
  );
  tell(
    'noisy',
    100,
    noise.snrDb,
    (db) => db < NOISY_DB,
    (db) => `The voice is only ${db.toFixed(0)} dB over the noise.`,
  );
  tell(
    'gate',
    70,
    noise.gatedDb,
    (db) => db >= GATED_DB,
    (db) => `Noise falls by ${db.toFixed(0)} dB after words and stays down: a gate, an expander or noise reduction is at work, and the floor is not the place's.`,
  );
  tell(
    'automatic level',
    60,
    pumpingDb,
    (db) => db >= PUMPING_DB,
    (db) => `Room tone comes up by ${db.toFixed(0)} dB within pauses: an automatic level is at work.`,
  );
  // An automatic level brings the ends of words up, which makes any place sound like a room.
  tell(
    'room',
    40,
    character?.reverberationS,
    (seconds) => seconds > LIVE_S && pumpingDb < PUMPING_DB,
    (seconds) => `The room rings on for ${seconds.toFixed(1)} s.`,
  );
  tell(
    'hum',
    30,
    noise.humDbfs,
    (db) => db > (noise.floorDbfs ?? 0) - HUM_UNDER_FLOOR_DB,
    () => 'Sound at the mains and its harmonics makes up much of the room tone.',
  );
  tell(
    'offset',
    20,
    levels.dcOffset,
    (offset) => Math.abs(offset) > OFFSET,
    () => 'The wave does not swing about zero: there is a DC offset.',
  );
  return told;
}

/** Hum this near to the whole floor is most of it. */
const HUM_UNDER_FLOOR_DB = 3;

const sentence = (text: string) => `${text[0]?.toUpperCase()}${text.slice(1)}.`;
