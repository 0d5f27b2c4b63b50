import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { ReadTables } from '../store/store.ts';

/** A row as it lies in the table: lists are the text that they are stored as. */
interface StoredRow extends Omit<RecordingRow, 'channels' | 'table' | 'backup'> {
  channels: string;
  backup: string | null;
  table: string | null;
}

const SELECT = `SELECT r."id", r."fileId", f."name" AS "fileName", r."channels", r."trackName", r."startS", r."endS", r."takeId", r."setupId", r."backup", f."state", f."methodVersion", r."shown" AS "table",
  json_array_length(f."warnings") AS "remarks" FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId"
  WHERE r."trialId" = ? AND f."binnedAtMs" IS NULL`;

/** Recordings of a trial as tables show them, as the text of a JSON list: thousands are written without parsing one. */
export async function recordingRowsJson(store: Pick<ReadTables, 'query'>, trialId: string): Promise<string> {
  const rows = await store.query<StoredRow>(`${SELECT} ORDER BY r."fileId", r."channels"`, [trialId]);
  const text = rows.map(
    ({ channels, table, backup, ...row }) => `${JSON.stringify(row).slice(0, -1)},"channels":${channels},"table":${table ?? 'null'},"backup":${backup ?? 'null'}}`,
  );
  return `[${text.join(',')}]`;
}

/** The recordings of one file. */
export async function recordingRows(store: Pick<ReadTables, 'query'>, trialId: string, fileId: string): Promise<RecordingRow[]> {
  const rows = await store.query<StoredRow>(`${SELECT} AND r."fileId" = ? ORDER BY r."channels"`, [trialId, fileId]);
  return rows.map((row) => ({
    ...row,
    channels: JSON.parse(row.channels) as number[],
    table: row.table === null ? null : (JSON.parse(row.table) as number[]),
    backup: row.backup === null ? null : (JSON.parse(row.backup) as RecordingRow['backup']),
  }));
}
