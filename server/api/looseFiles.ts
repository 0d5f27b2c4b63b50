import type { MomentPart } from '@marvet/core/contract/beginning';
import { fileTime } from '@marvet/core/takes/places/fileTime';
import type { AudioFileRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { present } from '../store/table.ts';

/** A file that lies in no take, as much of it as says where it belongs. */
export type LooseFile = Pick<AudioFileRow, 'id' | 'trialId' | 'name' | 'sha256' | 'recorder' | 'format' | 'modifiedAtMs'>;

/** When a file began as its header has it, which copying does not change; null where it does not say. */
export function headerStartMs(file: Pick<LooseFile, 'format' | 'modifiedAtMs'>): number | null {
  const time = fileTime(file);
  return time?.by === 'header' ? time.startMs : null;
}

/** The files of a trial, and those of them that lie in no take, in the order of their names as people count: 2 before 10. */
export async function filesOfTrial(tables: Pick<ReadTables, 'files' | 'query'>, trialId: string): Promise<{ all: LooseFile[]; loose: LooseFile[] }> {
  const select = { id: true, trialId: true, name: true, sha256: true, recorder: true, format: true as never, modifiedAtMs: true };
  const files = (await tables.files.find({ select, where: present(trialId) })) as LooseFile[];
  const placed = await tables.query<{ fileId: string }>('SELECT DISTINCT "fileId" FROM "recording" WHERE "trialId" = ? AND "takeId" IS NOT NULL', [trialId]);
  const taken = new Set(placed.map(({ fileId }) => fileId));
  const all = files.sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }) || a.id.localeCompare(b.id));
  return { all, loose: all.filter(({ id }) => !taken.has(id)) };
}

/** When a moment began by the first clock that says so; null where none does. */
export function momentStartMs(parts: readonly MomentPart[], files: ReadonlyMap<string, LooseFile>): number | null {
  const starts = parts.flatMap(({ fileId, startS }) => {
    const fileMs = headerStartMs(files.get(fileId) as LooseFile);
    return fileMs === null ? [] : [fileMs + Math.round(1000 * (startS ?? 0))];
  });
  return starts.length > 0 ? Math.min(...starts) : null;
}
