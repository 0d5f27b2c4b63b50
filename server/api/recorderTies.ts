import type { Placings } from '@marvet/core/contract/places';
import { grouped } from '@marvet/core/domain/grouped';
import { isPart } from '@marvet/core/domain/recording';
import { candidatesOf, firstSetups } from '@marvet/core/domain/take';
import { matchSources } from '@marvet/core/takes/matchFile';
import { firstKnown, habitOf, setupsOf } from '@marvet/core/takes/places/habit';
import { recorderOf } from '@marvet/core/takes/places/recorderOf';
import type { AudioFileRow, RecorderRow, RecordingRow } from '../store/records.ts';
import type { ReadTables, Tables } from '../store/store.ts';
import { In, inParts, present } from '../store/table.ts';
import { assignCuts, assignFile, type ChannelTie } from './assignFile.ts';

/** What is known of the recorders of a trial: what somebody said of each, and which candidate its channels are of in files that are tied. */
export interface KnownRecorders {
  said: ReadonlyMap<string, RecorderRow>;
  habits: ReadonlyMap<string, ReadonlyMap<number, string>>;
}
const NO_HABIT: ReadonlyMap<number, string> = new Map();

/** Files that came before recorders were told apart are told by what they are called. */
export const recorderNameOf = ({ recorder, name, format }: Pick<AudioFileRow, 'recorder' | 'name' | 'format'>) =>
  recorder ?? recorderOf({ name, folder: null, originator: format.originator });

/** How files are tied now, in the shape in which it is asked for. */
export async function tiesOf(tables: Pick<ReadTables, 'recordings'>, fileIds: readonly string[]) {
  const select = { id: true, fileId: true, takeId: true, setupId: true, matchedBy: true, channels: true, startS: true, endS: true, cutBy: true, logStartS: true } as const;
  const rows = await inParts(fileIds, (part) => tables.recordings.find({ select, where: { fileId: part } }));
  const byFile = grouped(rows, ({ fileId }) => fileId);
  const places = fileIds.map((fileId) => {
    const own = byFile.get(fileId) ?? [];
    const tied = own.find(({ takeId }) => takeId !== null);
    // Where something was switched the first stretch says it; the others follow.
    const channels = own.flatMap(({ channels: [channelIndex = 0], setupId, startS }): ChannelTie[] => (startS === null ? [{ channelIndex, setupId }] : []));
    const parts = grouped(
      own.filter(({ cutBy, takeId }) => isPart(cutBy) && takeId !== null),
      ({ takeId }) => takeId as string,
    );
    const cuts = [...parts].map(([takeId, rows]) => partOf(takeId, rows, own));
    return { fileId, takeId: tied?.takeId ?? null, by: tied?.matchedBy ?? null, channels, ...(cuts.length > 0 ? { cuts } : {}) };
  });
  return { places };
}

type Part = Pick<RecordingRow, 'takeId' | 'setupId' | 'channels' | 'startS' | 'endS' | 'logStartS' | 'cutBy'>;

/** A part of a file as it was cut; what was switched in it follows from its take. */
function partOf(takeId: string, rows: readonly Part[], all: readonly Part[]) {
  const endS = Math.max(...all.filter((row) => row.takeId === takeId).map((row) => row.endS ?? 0));
  const channels = rows.map(({ channels: [channelIndex = 0], setupId }): ChannelTie => ({ channelIndex, setupId }));
  const [first] = rows;
  return { takeId, startS: first?.startS ?? 0, endS, logStartS: first?.logStartS ?? null, cutBy: first?.cutBy === 'passage' ? ('passage' as const) : ('log' as const), channels };
}

/** Setups of the channels of a file in a take: as somebody said of its recorder, then by names, then by what its other files have. */
export async function foundTies(tables: Tables, file: AudioFileRow, takeId: string, known: KnownRecorders): Promise<ChannelTie[]> {
  const take = await tables.takes.findOneBy({ id: takeId });
  if (!take) return [];
  const chains = await tables.chains.findBy({ id: In(candidatesOf(take)) });
  const recorder = recorderNameOf(file);
  const setups = firstSetups(take);
  const { trackNames } = file.format;
  const rows = await tables.recordings.find({ select: { id: true, channels: true, backup: true as never }, where: { fileId: file.id } });
  const sources = [...new Set(rows.flatMap(({ channels: [channel = 0], backup }) => (backup ? [] : [channel])))].sort((a, b) => a - b);
  const said = new Map((known.said.get(recorder)?.candidateIds ?? []).flatMap((id, channel) => (id === null ? [] : [[channel, id] as const])));
  const ways = [
    setupsOf(trackNames.length, setups, said),
    matchSources(`${recorder} ${file.name}`, trackNames, sources, setups, chains),
    setupsOf(trackNames.length, setups, known.habits.get(recorder) ?? NO_HABIT),
  ];
  return firstKnown(ways).map((setupId, channelIndex) => ({ channelIndex, setupId }));
}

/** Ties files of a recorder that are in place anew, after somebody said which candidates its channels are of. */
export async function retied(tables: Tables, trialId: string, recorder: string): Promise<{ before: Placings['places']; cut: string[]; touched: string[] }> {
  const files = (await tables.files.findBy(present(trialId))).filter((file) => recorderNameOf(file) === recorder);
  const { places } = await tiesOf(
    tables,
    files.map(({ id }) => id),
  );
  const inPlace = places.filter(({ takeId }) => takeId !== null);
  const known = await knownRecorders(tables, trialId);
  const cut: string[] = [];
  for (const { fileId, takeId, by, cuts } of inPlace) {
    const file = files.find(({ id }) => id === fileId) as AudioFileRow;
    if (cuts) {
      const parts = await Promise.all(cuts.map(async (part) => ({ ...part, channels: await foundTies(tables, file, part.takeId, known) })));
      await assignCuts(tables, file, parts, by);
      cut.push(fileId);
    } else if (await assignFile(tables, file, { takeId, by, channels: await foundTies(tables, file, takeId as string, known) })) cut.push(fileId);
  }
  return { before: inPlace, cut, touched: inPlace.flatMap(({ takeId, cuts }) => cuts?.map((part) => part.takeId) ?? [takeId as string]) };
}

/** The candidate of each channel of a recorder, as far as it is known. */
export function channelsOf(files: readonly Pick<AudioFileRow, 'format'>[], recorder: string, { said, habits }: KnownRecorders): (string | null)[] {
  const length = Math.max(0, ...files.map(({ format }) => format.channels));
  return Array.from({ length }, (_, channel) => said.get(recorder)?.candidateIds[channel] ?? habits.get(recorder)?.get(channel) ?? null);
}

/** The first channels of all recordings that can be of a microphone of their own, by file. */
export async function sourcesIn(store: Pick<ReadTables, 'query'>, trialId: string): Promise<Map<string, number[]>> {
  const rows = await store.query<{ fileId: string; channel: number }>(
    `SELECT DISTINCT "fileId", json_extract("channels", '$[0]') AS "channel" FROM "recording" WHERE "trialId" = ? AND "backup" IS NULL ORDER BY 1, 2`,
    [trialId],
  );
  return new Map([...grouped(rows, ({ fileId }) => fileId)].map(([fileId, own]) => [fileId, own.map(({ channel }) => channel)]));
}

export async function knownRecorders(tables: Pick<ReadTables, 'files' | 'recordings' | 'takes' | 'recorders'>, trialId: string): Promise<KnownRecorders> {
  const rows = await tables.recorders.findBy({ trialId });
  return { said: new Map(rows.map((row) => [row.name, row])), habits: await habitsOf(tables, trialId) };
}

/** What each recorder's channels were of so far, in files that are tied. */
async function habitsOf(tables: Pick<ReadTables, 'files' | 'recordings' | 'takes'>, trialId: string): Promise<Map<string, Map<number, string>>> {
  const files = await tables.files.find({ select: { id: true, name: true, recorder: true, format: true as never }, where: present(trialId) });
  const takes = await tables.takes.find({ select: { id: true, setups: true as never }, where: present(trialId) });
  const candidateOf = new Map(takes.flatMap(({ setups }) => setups.map(({ id, candidateId }) => [id, candidateId] as const)));
  const recorderById = new Map(files.map((file) => [file.id, recorderNameOf(file)]));
  const rows = await tables.recordings.find({ select: { id: true, fileId: true, channels: true, setupId: true }, where: { trialId } });
  const tied = rows.flatMap(({ fileId, channels: [channelIndex = 0], setupId }) => {
    const [recorder, candidateId] = [recorderById.get(fileId), candidateOf.get(setupId ?? '')];
    return recorder !== undefined && candidateId ? [{ recorder, channelIndex, candidateId }] : [];
  });
  return new Map([...grouped(tied, ({ recorder }) => recorder)].map(([recorder, own]) => [recorder, habitOf(own)]));
}
