import type { Beginning, BegunMoment, LayOut } from '@marvet/core/contract/beginning';
import type { Chain } from '@marvet/core/domain/chain';
import { nextTape, type Tape } from '@marvet/core/domain/tape';

/** What a person said otherwise than it was found; kept by what does not change while more is found. */
export interface BeginChanges {
  /** Which way of reading the names. */
  reading: number;
  /** New names of microphones, by the names that were read. */
  names: Readonly<Record<string, string>>;
  /** The microphone of a channel by itself; null leaves it out. */
  channels: Readonly<Record<string, string | null>>;
  /** A file that is of the same take as another, or of one of its own where that is itself. */
  takes: Readonly<Record<string, string>>;
}

export const NO_CHANGES: BeginChanges = { reading: 0, names: {}, channels: {}, takes: {} };

/** A channel as it is to be laid out. */
export interface BeginRow {
  key: string;
  fileId: string;
  channelIndex: number;
  fileName: string;
  trackName: string | null;
  of: number;
  /** Numbers of the takes that it is of. */
  takes: number[];
  /** Null where it is left out. */
  microphone: string | null;
  /** The same microphone stands in its take already. */
  twice: boolean;
}

export interface BeginDraft {
  rows: BeginRow[];
  /** Microphones in the order in which they come, and how many recordings each has. */
  microphones: { read: string; name: string; recordings: number }[];
  moments: BegunMoment[];
}

export const channelKey = ({ fileId, channelIndex }: { fileId: string; channelIndex: number }) => `${fileId} ${channelIndex}`;

/** What was found, with what a person said otherwise. */
export function beginDraft(found: Beginning, changes: BeginChanges): BeginDraft {
  const moments = movedMoments(found.moments, changes.takes);
  const takesOf = new Map<string, number[]>();
  for (const { slate, parts } of moments) for (const { fileId } of parts) takesOf.set(fileId, [...(takesOf.get(fileId) ?? []), slate]);
  const reading = found.readings[changes.reading % Math.max(1, found.readings.length)] ?? [];
  const microphones = new Map<string, { read: string; name: string; recordings: number }>();
  const seen = new Set<string>();
  const rows = found.channels.map(({ fileId, channelIndex, fileName, trackName, of }, index): BeginRow => {
    const key = channelKey({ fileId, channelIndex });
    const read = reading[index] ?? fileName;
    const own = changes.channels[key];
    const microphone = own === undefined ? (changes.names[read] ?? read) : own;
    const takes = takesOf.get(fileId) ?? [];
    if (microphone !== null) {
      const known = microphones.get(microphone) ?? { read: own === undefined ? read : microphone, name: microphone, recordings: 0 };
      microphones.set(microphone, { ...known, recordings: known.recordings + takes.length });
    }
    const places = takes.map((take) => `${take} ${microphone}`);
    const twice = microphone !== null && places.some((place) => seen.has(place));
    for (const place of places) seen.add(place);
    return { key, fileId, channelIndex, fileName, trackName, of, takes, microphone, twice };
  });
  return { rows, microphones: [...microphones.values()], moments };
}

/** Moments after files were put with others, or by themselves. A file that runs on over several stays where it is. */
function movedMoments(found: readonly BegunMoment[], takes: BeginChanges['takes']): BegunMoment[] {
  const moments = found.map((moment) => ({ ...moment, parts: [...moment.parts] }));
  const holds = (fileId: string) => (moment: BegunMoment) => moment.parts.some((part) => part.fileId === fileId);
  for (const [fileId, withId] of Object.entries(takes)) {
    const own = moments.filter(holds(fileId));
    const [from] = own;
    const to = moments.find(holds(withId));
    if (!from || own.length > 1 || (withId !== fileId && (!to || to === from))) continue;
    const parts = from.parts.splice(
      from.parts.findIndex((each) => each.fileId === fileId),
      1,
    );
    if (withId === fileId) moments.splice(moments.indexOf(from) + 1, 0, { takeId: null, slate: 0, parts });
    else to?.parts.push(...parts);
  }
  // New takes are numbered as they will be: after those that are there, in their order.
  let next = Math.min(...found.flatMap(({ takeId, slate }) => (takeId === null ? [slate] : [])), 1 + Math.max(0, ...found.map(({ slate }) => slate)));
  const kept = moments.filter(({ parts }) => parts.length > 0);
  const there = kept.filter(({ takeId }) => takeId !== null);
  return [...there, ...kept.filter(({ takeId }) => takeId === null).map((moment) => ({ ...moment, slate: next++ }))];
}

/** As it is sent. */
export function layOutOf({ rows, moments }: BeginDraft): LayOut {
  return { moments: moments.map(({ takeId, parts }) => ({ takeId, parts })), channels: rows.map(({ fileId, channelIndex, microphone }) => ({ fileId, channelIndex, microphone })) };
}

/** The tapes that microphones get, by their names; those that are candidates already keep theirs. */
export function tapesOf(names: readonly string[], known: readonly Pick<Chain, 'name' | 'tape' | 'candidate'>[]): Map<string, Tape> {
  const taken = known.filter(({ candidate }) => candidate);
  const tapes = taken.map(({ tape }) => tape);
  return new Map(
    names.map((name) => {
      const own = taken.find((chain) => chain.name.toLowerCase() === name.toLowerCase())?.tape ?? nextTape(name, tapes);
      tapes.push(own);
      return [name, own];
    }),
  );
}
