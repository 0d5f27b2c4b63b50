import type { RecordName, Row } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { inParts, type ReadTable } from '../store/table.ts';

/** Records that name their trial. */
const OF_TRIAL = [
  'expectations',
  'preflight',
  'criteria',
  'marks',
  'chains',
  'stations',
  'placements',
  'rigs',
  'frames',
  'wearers',
  'sights',
  'scripts',
  'plans',
  'takes',
  'logLines',
  'files',
  'recordings',
  'recorders',
  'rounds',
  'moments',
  'devices',
  'readings',
  'voiceNotes',
] as const satisfies readonly RecordName[];

/**
 * Kinds of records that an archive of a trial holds, each in a file of its own. What is under way on one computer (jobs, recordings
 * that are being made) and who was let in stay there.
 */
export const ARCHIVED = ['trials', 'items', ...OF_TRIAL, 'listeners', 'ratings', 'choices', 'photos'] as const satisfies readonly RecordName[];
export type Archived = (typeof ARCHIVED)[number];

/** The records of a trial, as they are stored. */
export type ArchivedRows = { [Name in Archived]: Row<Name>[] };

/** Everything that belongs to a trial, with what lies in its bin, and the items of its chains. */
export async function archivedRows(tables: ReadTables, trialId: string): Promise<ArchivedRows> {
  const here = (name: (typeof OF_TRIAL)[number]) => (tables[name] as unknown as ReadTable<{ trialId: string }>).findBy({ trialId });
  const own = Object.fromEntries(await Promise.all(OF_TRIAL.map(async (name) => [name, await here(name)]))) as unknown as Pick<ArchivedRows, (typeof OF_TRIAL)[number]>;
  const ids = (rows: readonly { id: string }[]) => rows.map(({ id }) => id);
  const listeners = await inParts(ids(own.rounds), (part) => tables.listeners.findBy({ roundId: part }));
  const itemIds = [...new Set(own.chains.flatMap(({ links }) => links.map(({ itemId }) => itemId)))];
  const owners = [...itemIds, ...(['stations', 'chains', 'sights', 'frames', 'takes', 'placements'] as const).flatMap((name) => ids(own[name]))];
  return {
    ...own,
    trials: await tables.trials.findBy({ id: trialId }),
    items: await inParts(itemIds, (part) => tables.items.findBy({ id: part })),
    listeners,
    ratings: await inParts(ids(listeners), (part) => tables.ratings.findBy({ listenerId: part })),
    choices: await inParts(ids(listeners), (part) => tables.choices.findBy({ listenerId: part })),
    photos: await inParts(owners, (part) => tables.photos.findBy({ ownerId: part })),
  };
}

/** Hashes of all bytes that the records of a trial speak of. */
export function hashesOf({ files, photos, voiceNotes }: Pick<ArchivedRows, 'files' | 'photos' | 'voiceNotes'>): string[] {
  const sounds = files.flatMap(({ sha256, originalSha256 }) => [sha256, ...(originalSha256 === null ? [] : [originalSha256])]);
  return [...new Set([...sounds, ...photos.map(({ sha256 }) => sha256), ...voiceNotes.map(({ sha256 }) => sha256)])];
}
