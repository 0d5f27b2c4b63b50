import type { MeasuredFile } from '@marvet/core/measure/fileMeters';
import { DEFAULT_MEASURE_OPTIONS, type MarkedByHand, METHOD_VERSION, NOTHING_MARKED } from '@marvet/core/measure/report.types';
import type { BlobStore } from '../audio/blobs.ts';
import type { AudioFileRow } from '../store/records.ts';
import type { ReadTables, Store } from '../store/store.ts';
import { inParts } from '../store/table.ts';
import type { EventBus } from './events.ts';
import { keepReport, sameSpan } from './keepReport.ts';
import type { WorkerPool } from './pool.ts';
import type { JobHandler, JobRunner } from './runner.ts';
import type { FileSpan } from './tasks.ts';

/** Measures files in the background; what is to be measured is in the database, so nothing is forgotten. */
export interface Measuring {
  /** Has files measured, or measured again as they are marked now. */
  request(fileIds: readonly string[]): Promise<void>;
  /** Stops measuring a file because somebody asked; it can be measured again. */
  cancel(fileId: string): Promise<void>;
  /** Stops measuring a file that went into the bin; brought back, it is measured. */
  forget(fileId: string): Promise<void>;
}

const STOPPED = 'Measuring was stopped. Measure it again when you want its figures.';

/** What somebody marked on a stretch of a file, by channel, and which of its channels are one stereo recording. */
interface Part {
  span: FileSpan;
  marks: MarkedByHand[];
  stereo: [number, number][];
}
/** The file as a whole comes first; stretches where something was switched follow. */
type Marks = Part[];

const WHOLE: FileSpan = [null, null];

/** Room tone and events that somebody marked, by file, stretch and channel. */
async function marksOf(tables: Pick<ReadTables, 'recordings'>, fileIds: readonly string[]): Promise<Map<string, Marks>> {
  const select = { id: true, fileId: true, channels: true, roomTone: true, corrections: true, startS: true, endS: true };
  const recordings = await inParts(fileIds, (part) => tables.recordings.find({ select, where: { fileId: part } }));
  const marks = new Map<string, Marks>(fileIds.map((id) => [id, [{ span: WHOLE, marks: [], stereo: [] }]]));
  for (const { fileId, channels, roomTone, corrections, startS, endS } of recordings) {
    const parts = marks.get(fileId) as Marks;
    const span: FileSpan = [startS, endS];
    const own = parts.find((part) => sameSpan(part.span, span)) ?? { span, marks: [], stereo: [] };
    if (!parts.includes(own)) parts.push(own);
    if (channels.length === 2) own.stereo.push(channels as [number, number]);
    for (const channel of channels) {
      const other = own.marks[channel] ?? NOTHING_MARKED;
      own.marks[channel] = { roomTone: other.roomTone ?? roomTone, corrections: [...other.corrections, ...corrections] };
    }
  }
  const whole = (part: Part): Part => ({ ...part, marks: Array.from(part.marks, (mark) => mark ?? NOTHING_MARKED) });
  return new Map([...marks].map(([id, parts]) => [id, parts.map(whole)]));
}

/** Says of what a report would be: the bytes, the method, and what is marked on them. */
const keyOf = (file: Pick<AudioFileRow, 'sha256'>, parts: Marks | undefined) => {
  const [whole, ...stretches] = parts ?? [];
  const pairs = whole && whole.stereo.length > 0 ? ` stereo ${JSON.stringify(whole.stereo)}` : '';
  return `${file.sha256} v${METHOD_VERSION} ${JSON.stringify(whole?.marks)}${pairs}${stretches.length > 0 ? JSON.stringify(stretches) : ''}`;
};

export function openMeasuring(store: Store, runner: JobRunner): Measuring {
  return {
    async request(fileIds) {
      const files = await inParts(fileIds, (part) => store.files.find({ select: { id: true, trialId: true, sha256: true }, where: { id: part } }));
      const marks = await marksOf(store, fileIds);
      const requests = files.map((file) => ({ kind: 'measure' as const, trialId: file.trialId, subjectId: file.id, key: keyOf(file, marks.get(file.id)) }));
      await store.write((tables) => inParts(fileIds, async (part) => [await tables.files.update({ id: part }, { state: 'queued', failure: null })]));
      await runner.add(requests);
    },
    async cancel(fileId) {
      const stopped = await runner.cancel({ kind: 'measure', subjectId: fileId });
      if (stopped) await store.write((tables) => tables.files.update({ id: fileId }, { state: 'failed', failure: STOPPED }));
    },
    async forget(fileId) {
      const stopped = await runner.cancel({ kind: 'measure', subjectId: fileId });
      // It has not failed: it is measured once it comes back.
      if (stopped) await store.write((tables) => tables.files.update({ id: fileId }, { state: 'queued', failure: null }));
    },
  };
}

/** What is to be done once a file was measured. */
interface AfterMeasuring {
  /** What is marked on it changed meanwhile: it is measured once more. */
  again(fileId: string): Promise<void>;
  /** It is done, and lies in these takes. */
  look(trialId: string, takeIds: readonly (string | null)[]): Promise<void>;
  /** It is done, and may be the backup of another file, or have one. */
  lower(fileId: string): Promise<void>;
}

export function measureHandler(store: Store, blobs: BlobStore, pool: WorkerPool, events: EventBus, after: AfterMeasuring): JobHandler {
  return {
    resumes: true,
    async run({ subjectId: fileId }, signal, onProgress) {
      const file = await store.files.findOneBy({ id: fileId });
      // A trial that was removed for good takes its files along.
      if (!file) return;
      await store.write((tables) => tables.files.update({ id: fileId }, { state: 'measuring' }));
      const marksNow = async (tables: Pick<ReadTables, 'recordings'>) => (await marksOf(tables, [fileId])).get(fileId) as Marks;
      const marks = await marksNow(store);
      const parts = marks.map(({ span, marks: markedByChannel, stereo }) => ({ span, options: { ...DEFAULT_MEASURE_OPTIONS, markedByChannel, stereo } }));
      const measured = await pool.run({ kind: 'measure' as const, path: blobs.pathOf(file.sha256), parts }, signal, (share) => {
        events.tell(file.trialId, { type: 'progress', fileId, share });
        onProgress(share);
      });
      // A mark that was set while it was measured is not lost: then it is measured again.
      const stale = await store.write(async (tables) => {
        if (keyOf(file, await marksNow(tables)) !== keyOf(file, marks)) return true;
        await keepReport(
          tables,
          file,
          marks.map(({ span, stereo }, part) => ({ span, stereo, measured: measured[part] as MeasuredFile })),
        );
        return false;
      });
      if (stale) await after.again(fileId);
      else {
        await after.look(file.trialId, await takesOf(store, fileId));
        await after.lower(fileId);
      }
      events.tell(file.trialId, { type: 'file', fileId });
    },
    async ended({ subjectId: fileId, trialId }, state, failure) {
      if (state === 'failed') await store.write((tables) => tables.files.update({ id: fileId }, { state: 'failed', failure }));
      if (trialId) events.tell(trialId, { type: 'file', fileId });
    },
  };
}

/** Takes in which the recordings of a file lie. */
export async function takesOf(from: Pick<ReadTables, 'recordings'>, fileId: string): Promise<(string | null)[]> {
  return (await from.recordings.find({ select: { id: true, takeId: true }, where: { fileId } })).map(({ takeId }) => takeId);
}
