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

/** What is unusual about a channel, a sentence each: its events, and figures that stand out. */
export function unusual(report: ChannelReport): string[] {
  const sentences: string[] = [];
  for (const kind of EVENT_KINDS) {
    const events = (report.events ?? []).filter((event) => event.kind === kind);
    const [first] = events;
    if (!first) continue;
    if (events.length < MANY) sentences.push(...events.map((event) => sentence(eventText(event))));
    else {
      const lasted = events.reduce((sum, event) => sum + event.endS - event.startS, 0);
      sentences.push(sentence(`${EVENT_NAMES[kind]} ${events.length} times, ${lastedText(lasted)} in all, first at ${first.startS.toFixed(1)} s`));
    }
  }
  const { character, levels, noise, intelligibility } = report;
  if ((character?.pumpingDb ?? 0) >= 3) sentences.push(`Room tone comes up by ${character.pumpingDb?.toFixed(0)} dB within pauses: an automatic level is at work.`);
  if (Math.abs(levels.dcOffset ?? 0) > 0.005) sentences.push('The wave does not swing about zero: there is a DC offset.');
  if (noise.snrDb !== null && noise.snrDb < 12) sentences.push(`The voice is only ${noise.snrDb.toFixed(0)} dB over the noise.`);
  if (intelligibility?.sii !== null && intelligibility?.sii !== undefined && intelligibility.sii < 0.45) sentences.push('Words are hard to understand in this noise.');
  if ((character?.reverberationS ?? 0) > 0.7) sentences.push(`The room rings on for ${character.reverberationS?.toFixed(1)} s.`);
  return sentences;
}

const sentence = (text: string) => `${text[0]?.toUpperCase()}${text.slice(1)}.`;
