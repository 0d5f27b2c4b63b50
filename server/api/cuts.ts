import { grouped } from '@marvet/core/domain/grouped';
import { newId } from '@marvet/core/domain/identity';
import { isPart } from '@marvet/core/domain/recording';
import { firstSetups, followedSetups, type Take, type TakeSetup } from '@marvet/core/domain/take';
import { marksOn, type StretchMarks } from '@marvet/core/takes/stretchMarks';
import { type SetupStretch, switchCuts } from '@marvet/core/takes/switchCuts';
import type { FileSpan } from '../jobs/tasks.ts';
import type { AudioFileRow, RecordingRow } from '../store/records.ts';
import type { Tables } from '../store/store.ts';
import { ApiError } from './http.ts';
import { logStartS } from './performances.ts';

/** From where to where in its file a recording lies. */
export const spanOf = ({ startS, endS }: Pick<RecordingRow, 'startS' | 'endS'>): FileSpan => [startS, endS];

const MARKS = { corrections: true, roomTone: true, performance: true } as const;
export const UNMEASURED = { figures: null, shown: null, report: null, series: null, second: null, stereo: null, against: null } as const;
export type Placed = Pick<
  RecordingRow,
  'id' | 'fileId' | 'trialId' | 'channels' | 'trackName' | 'takeId' | 'setupId' | 'matchedBy' | 'startS' | 'endS' | 'cutBy' | 'logStartS' | 'backup'
> &
  StretchMarks;

/**
 * Cuts the recordings of files where something was switched while their takes ran, and joins them where a switch was taken back.
 * @param movedS where recordings begin that a hand moved just now, by their identity
 * @returns files that changed, and are to be measured
 */
export async function cutFiles(tables: Tables, files: readonly Pick<AudioFileRow, 'id' | 'format'>[], movedS: ReadonlyMap<string, number> = new Map()): Promise<string[]> {
  const changed: string[] = [];
  for (const file of files) {
    const rows = await placedRows(tables, file.id);
    // A file that was cut about several takes has each of them in a part of its own.
    const byTake = grouped(rows, ({ channels, takeId }) => `${channels} ${takeId}`);
    let moved = false;
    for (const own of byTake.values()) moved = (await cutChannel(tables, file, own, movedS)) || moved;
    if (moved) changed.push(file.id);
  }
  return changed;
}

/** Recordings of a file with all that cutting moves, without their reports. */
export function placedRows(tables: Pick<Tables, 'recordings'>, fileId: string): Promise<Placed[]> {
  const select = { id: true, fileId: true, trialId: true, channels: true, trackName: true, takeId: true, setupId: true, matchedBy: true } as const;
  return tables.recordings.find({ select: { ...select, startS: true, endS: true, cutBy: true, logStartS: true, backup: true, ...MARKS }, where: { fileId } });
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
  const all = await tables.recordings.find({ select: { id: true, channels: true, takeId: true, startS: true, endS: true, ...MARKS }, where: { fileId: file.id } });
  const sameChannel = all.filter((row) => String(row.channels) === String(recording.channels));
  const before = sameChannel.find((row) => row.endS === recording.startS && row.takeId === recording.takeId);
  // Cut out of a longer file, it may begin where what lies before it ends.
  const cutFromS = sameChannel.reduce((latest, { endS }) => (endS !== null && endS <= (recording.startS as number) ? Math.max(latest, endS) : latest), 0);
  const [fromS, toS] = [before ? (before.startS ?? 0) : cutFromS, recording.endS ?? file.format.durationS];
  if (startS <= fromS || startS >= toS)
    throw new ApiError(422, 'invalid', `It begins between ${fromS.toFixed(2)} and ${toS.toFixed(2)} s of the file`, { startS: 'Not between the others' });
  const together = all.filter((row) => row.startS === recording.startS && (before || row.takeId === recording.takeId));
  if (!before) {
    for (const row of together) await tables.recordings.update(row.id, { startS, ...UNMEASURED, ...marksOn([row], startS, row.endS) });
    return;
  }
  // All channels were switched at that moment.
  const moved = new Map(together.map(({ id }) => [id, startS]));
  await cutFiles(tables, [file], moved);
}

async function cutChannel(tables: Tables, file: Pick<AudioFileRow, 'id' | 'format'>, rows: readonly Placed[], movedS: ReadonlyMap<string, number>): Promise<boolean> {
  const takeId = rows.find((row) => row.takeId !== null && row.setupId !== null)?.takeId ?? null;
  const take = takeId === null ? null : await tables.takes.findOneBy({ id: takeId });
  const first = take && firstOf(take, rows);
  const byHandS = new Map(
    rows.flatMap(({ id, setupId, startS, cutBy }): [string, number][] => {
      const byHand = movedS.get(id) ?? (cutBy === 'hand' ? startS : null);
      return setupId !== null && byHand !== null ? [[setupId, byHand]] : [];
    }),
  );
  // A channel that nothing was switched on stays as somebody tied it.
  if (!first && rows.length === 1) return false;
  const inOrder = [...rows].sort((a, b) => (a.startS ?? 0) - (b.startS ?? 0));
  const within = [inOrder[0]?.startS ?? null, inOrder.at(-1)?.endS ?? null] as const;
  const partBy = inOrder.map(({ cutBy }) => cutBy).find(isPart) ?? null;
  const { durationS, timeReferenceS } = file.format;
  const clockStartS = inOrder[0]?.logStartS ?? logStartS(timeReferenceS, take?.startedAtMs ?? null, durationS);
  const wishes: (Omit<SetupStretch, 'setupId'> & { setupId: string | null })[] =
    take && first
      ? switchCuts(take, first, { clockStartS, fileLengthS: durationS, byHandS, within, partBy })
      : [{ setupId: null, startS: within[0], endS: within[1], cutBy: partBy }];
  const left = [...inOrder];
  let changed = false;
  for (const wish of wishes) {
    const [row] = left.splice(
      Math.max(
        0,
        left.findIndex(({ setupId }) => setupId === wish.setupId),
      ),
      1,
    );
    const sameSpan = row !== undefined && row.startS === wish.startS && row.endS === wish.endS;
    if (sameSpan && row.setupId === wish.setupId && row.cutBy === wish.cutBy) continue;
    changed ||= !sameSpan;
    const anew = sameSpan ? {} : { ...UNMEASURED, ...marksOn(rows, wish.startS, wish.endS) };
    if (row) await tables.recordings.update(row.id, { ...wish, takeId: take?.id ?? row.takeId, ...anew });
    else await tables.recordings.insert({ ...(rows[0] as Placed), ...wish, ...UNMEASURED, ...marksOn(rows, wish.startS, wish.endS), id: newId() });
  }
  for (const row of left) await letGo(tables, row);
  return changed || left.length > 0;
}

/** The setup with which the channel began: of the take's first ones the one from which a setup of the channel follows. */
function firstOf(take: Pick<Take, 'setups'>, rows: readonly Placed[]): TakeSetup | null {
  const ids = new Set(rows.map(({ setupId }) => setupId));
  return firstSetups(take).find((first) => followedSetups(take, first).some(({ id }) => ids.has(id))) ?? null;
}

/** A stretch that is none any more goes, its marks with those that hold its time now; one that was listened to stays, tied to nothing. */
export async function letGo(tables: Tables, row: Pick<RecordingRow, 'id' | 'trialId'>): Promise<void> {
  const rounds = await tables.rounds.find({ select: { id: true, recordingIds: true }, where: { trialId: row.trialId } });
  if (rounds.some(({ recordingIds }) => recordingIds.includes(row.id))) await tables.recordings.update(row.id, { setupId: null, takeId: null });
  else await tables.recordings.delete({ id: row.id });
}
