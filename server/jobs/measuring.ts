import { WavError } from '@marvet/core/audio/wavFormat';
import { MEASURE_IDS, measureValue } from '@marvet/core/measure/catalogue';
import type { MeasuredFile } from '@marvet/core/measure/report';
import { type ChannelReport, DEFAULT_MEASURE_OPTIONS, METHOD_VERSION } from '@marvet/core/measure/report.types';
import type { BlobStore } from '../audio/blobs.ts';
import type { AudioFileRow, RecordingRow } from '../store/rows.ts';
import type { Store, Tables } from '../store/store.ts';
import type { EventBus } from './events.ts';
import type { WorkerPool } from './pool.ts';

/** Measures files in the background; what is to be measured is in the database, so nothing is forgotten. */
export interface Measuring {
  /** Takes up a file whose state is `queued`. */
  add(file: Pick<AudioFileRow, 'id' | 'trialId' | 'sha256'>): void;
  /** Stops measuring a file; its state becomes `failed`, and it can be measured again. */
  cancel(fileId: string): void;
  /** Takes up all that was queued or under way when the server last stopped. */
  resume(): Promise<void>;
  /** Settles when nothing is queued or under way. */
  idle(): Promise<void>;
}

/** Figures of a report by measure id, without those that could not be measured. */
export function figuresOf(report: ChannelReport): NonNullable<RecordingRow['figures']> {
  return Object.fromEntries(
    MEASURE_IDS.flatMap((id) => {
      const value = measureValue(report, id);
      // Four decimals are more than any figure deserves, and keep tables of thousands small.
      return value === null ? [] : [[id, Number(value.toFixed(4))]];
    }),
  );
}

export function openMeasuring(store: Store, blobs: BlobStore, pool: WorkerPool, events: EventBus): Measuring {
  const running = new Map<string, AbortController>();
  const work = new Set<Promise<void>>();

  async function measure(file: Pick<AudioFileRow, 'id' | 'trialId' | 'sha256'>, abort: AbortController): Promise<void> {
    await store.files.update(file.id, { state: 'measuring' });
    try {
      const tell = (share: number) => events.tell(file.trialId, { type: 'progress', fileId: file.id, share });
      const marked = await store.recordings.find({ select: { channelIndex: true, roomTone: true }, where: { fileId: file.id }, order: { channelIndex: 'ASC' } });
      const options = { ...DEFAULT_MEASURE_OPTIONS, roomToneByChannel: marked.map(({ roomTone }) => roomTone) };
      const measured = await pool.measure({ path: blobs.pathOf(file.sha256), options }, tell, abort.signal);
      await store.transaction((tables) => keepReport(tables, file.id, measured));
    } catch (error) {
      const failure = abort.signal.aborted ? 'Measuring was stopped. Measure it again when you want its figures.' : failureText(error);
      await store.files.update(file.id, { state: 'failed', failure });
    }
    events.tell(file.trialId, { type: 'file', fileId: file.id });
  }

  const measuring: Measuring = {
    add(file) {
      if (running.has(file.id)) return;
      const abort = new AbortController();
      running.set(file.id, abort);
      const job = measure(file, abort).finally(() => {
        running.delete(file.id);
        work.delete(job);
      });
      work.add(job);
    },
    cancel(fileId) {
      running.get(fileId)?.abort();
    },
    async resume() {
      const left = await store.files.find({ where: [{ state: 'queued' }, { state: 'measuring' }] });
      for (const file of left) measuring.add(file);
    },
    async idle() {
      while (work.size > 0) await Promise.allSettled([...work]);
    },
  };
  return measuring;
}

function failureText(error: unknown): string {
  if (error instanceof WavError) return error.message;
  // Errors lose their class on the way from a worker thread; their text stays.
  return error instanceof Error ? error.message : String(error);
}

/** Writes what was measured beside the file it belongs to. */
export async function keepReport(tables: Tables, fileId: string, { report, series }: MeasuredFile): Promise<void> {
  await tables.files.update(fileId, {
    state: 'done',
    failure: null,
    methodVersion: METHOD_VERSION,
    warnings: report.warnings,
    programme: report.programme,
  });
  for (const channel of report.channels) {
    await tables.recordings.update({ fileId, channelIndex: channel.index }, { report: channel, figures: figuresOf(channel), series: series[channel.index] ?? null });
  }
}
