import { newId } from '@marvet/core/domain/identity';
import { firstSetups, followedSetups, type Take, type TakeSetup } from '@marvet/core/domain/take';
import { type SetupStretch, switchCuts } from '@marvet/core/takes/switchCuts';
import type { FileSpan } from '../jobs/tasks.ts';
import type { AudioFileRow, RecordingRow } from '../store/records.ts';
import type { Tables } from '../store/store.ts';
import { ApiError } from './http.ts';
import { logStartS } from './performances.ts';

/** From where to where in its file a recording lies. */
export const spanOf = ({ startS, endS }: Pick<RecordingRow, 'startS' | 'endS'>): FileSpan => [startS, endS];

const UNMEASURED = { figures: null, shown: null, report: null, series: null, against: null } as const;
type Placed = Pick<RecordingRow, 'id' | 'fileId' | 'trialId' | 'channels' | 'trackName' | 'takeId' | 'setupId' | 'matchedBy' | 'startS' | 'endS' | 'cutBy'>;

/**
 * Cuts the recordings of files where something was switched while their takes ran, and joins them where a switch was taken back.
 * @returns files that changed, and are to be measured
 */
export async function cutFiles(tables: Tables, files: readonly Pick<AudioFileRow, 'id' | 'format'>[]): Promise<string[]> {
  const changed: string[] = [];
  for (const file of files) {
    const rows: Placed[] = await tables.recordings.find({
      select: { id: true, fileId: true, trialId: true, channels: true, trackName: true, takeId: true, setupId: true, matchedBy: true, startS: true, endS: true, cutBy: true },
      where: { fileId: file.id },
    });
    const byChannel = new Map<string, Placed[]>();
    for (const row of rows) byChannel.set(String(row.channels), [...(byChannel.get(String(row.channels)) ?? []), row]);
    let moved = false;
    for (const own of byChannel.values()) moved = (await cutChannel(tables, file, own)) || moved;
    if (moved) changed.push(file.id);
  }
  return changed;
}

/** The same for all files of takes. */
export async function cutTakes(tables: Tables, takes: readonly Pick<Take, 'id'>[]): Promise<string[]> {
  const changed: string[] = [];
  for (const { id } of takes) {
    const fileIds = new Set((await tables.recordings.find({ select: { id: true, fileId: true }, where: { takeId: id } })).map(({ fileId }) => fileId));
    for (const fileId of fileIds) changed.push(...(await cutFiles(tables, await tables.files.findBy({ id: fileId }))));
  }
  return changed;
}

/** Sets by hand where in its file a recording begins. @throws ApiError 422 where nothing was switched, or the moment is not in between */
export async function moveCut(tables: Tables, recording: RecordingRow, file: AudioFileRow, startS: number): Promise<void> {
  if (recording.startS === null) throw new ApiError(422, 'invalid', 'This recording begins with its file: nothing was switched there', { startS: 'Begins with its file' });
  const all = await tables.recordings.findBy({ fileId: file.id });
  // All channels were switched at that moment.
  const same = all.filter((row) => row.startS === recording.startS);
  const before = all.find((row) => row.endS === recording.startS && String(row.channels) === String(recording.channels));
  const [fromS, toS] = [before?.startS ?? 0, recording.endS ?? file.format.durationS];
  if (startS <= fromS || startS >= toS)
    throw new ApiError(422, 'invalid', `It begins between ${fromS.toFixed(2)} and ${toS.toFixed(2)} s of the file`, { startS: 'Not between the others' });
  for (const { id } of same) await tables.recordings.update(id, { startS, cutBy: 'hand' });
  await cutFiles(tables, [file]);
  for (const { id } of all) await tables.recordings.update(id, UNMEASURED);
}

async function cutChannel(tables: Tables, file: Pick<AudioFileRow, 'id' | 'format'>, rows: readonly Placed[]): Promise<boolean> {
  const placed = rows.find(({ takeId, setupId }) => takeId !== null && setupId !== null);
  const take = placed?.takeId ? await tables.takes.findOneBy({ id: placed.takeId }) : null;
  const first = take && placed ? firstOf(take, placed.setupId as string, rows) : null;
  const wanted: SetupStretch[] =
    take && first
      ? switchCuts(take, first, {
          clockStartS: logStartS(file.format.timeReferenceS, take.startedAtMs, file.format.durationS),
          fileLengthS: file.format.durationS,
          byHandS: new Map(rows.flatMap(({ setupId, startS, cutBy }) => (setupId !== null && startS !== null && cutBy === 'hand' ? [[setupId, startS]] : []))),
        })
      : [];
  if (wanted.length === 0 && rows.length === 1 && rows[0]?.startS === null && rows[0].endS === null) return false;
  const left = [...rows].sort((a, b) => (a.startS ?? 0) - (b.startS ?? 0));
  const taken = (wish: SetupStretch) => {
    const index = left.findIndex(({ setupId }) => setupId === wish.setupId);
    return left.splice(Math.max(0, index), left.length > 0 ? 1 : 0)[0];
  };
  let changed = false;
  const template = rows[0] as Placed;
  const wishes = wanted.length > 0 ? wanted : [{ setupId: null, startS: null, endS: null, cutBy: null }];
  for (const wish of wishes) {
    const row = taken(wish as SetupStretch);
    const sameSpan = row !== undefined && row.startS === wish.startS && row.endS === wish.endS;
    if (sameSpan && row.setupId === wish.setupId) continue;
    changed ||= !sameSpan;
    if (row) await tables.recordings.update(row.id, { ...wish, takeId: take?.id ?? row.takeId, ...(sameSpan ? {} : { ...UNMEASURED, roomTone: null, performance: null }) });
    else await tables.recordings.insert({ ...template, ...wish, id: newId(), ...UNMEASURED, roomTone: null, performance: null, corrections: [] });
  }
  for (const row of left) changed = (await letGo(tables, row)) || changed;
  return changed;
}

/** The setup with which the channel began: of the take's first ones the one from which the channel's setup follows. */
function firstOf(take: Pick<Take, 'setups'>, setupId: string, rows: readonly Placed[]): TakeSetup | null {
  const ids = new Set([setupId, ...rows.flatMap((row) => row.setupId ?? [])]);
  return firstSetups(take).find((first) => followedSetups(take, first).some(({ id }) => ids.has(id))) ?? null;
}

/** A stretch that is none any more goes, unless it was listened to or marked by hand: then it stays, tied to nothing. */
async function letGo(tables: Tables, row: Placed): Promise<boolean> {
  const rounds = await tables.rounds.find({ select: { id: true, recordingIds: true }, where: { trialId: row.trialId } });
  const { corrections } = await tables.recordings.findOneByOrFail({ id: row.id });
  if (corrections.length > 0 || rounds.some(({ recordingIds }) => recordingIds.includes(row.id))) await tables.recordings.update(row.id, { setupId: null, takeId: null });
  else await tables.recordings.delete({ id: row.id });
  return true;
}
