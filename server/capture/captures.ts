import { fieldChunks } from '@marvet/core/audio/chunks/fieldChunks';
import { growingWavHead } from '@marvet/core/audio/growingWav';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import type { CaptureState } from '@marvet/core/contract/captures';
import { CAPTURE_FORMAT, pieceFrames } from '@marvet/core/domain/capture';
import { ApiError, notFound } from '../api/http.ts';
import { newFile } from '../api/newFile.ts';
import type { BlobStore } from '../audio/blobs.ts';
import { withFileSource } from '../audio/fileSource.ts';
import type { EventBus } from '../jobs/events.ts';
import { keepReport } from '../jobs/keepReport.ts';
import { takesOf } from '../jobs/measuring.ts';
import type { WorkerPool } from '../jobs/pool.ts';
import type { Work } from '../jobs/work.ts';
import type { CaptureRow } from '../store/records.ts';
import type { Store } from '../store/store.ts';
import { IsNull, present } from '../store/table.ts';
import { captureName } from './captureName.ts';
import type { Captures } from './captures.types.ts';
import { type Following, follow } from './following.ts';
import type { GrowingFiles } from './growingFiles.ts';

/** A recording of which nothing was heard for so long is closed as far as it goes: its page is gone. */
const ABANDONED_MS = 120_000;
const LOOK_EVERY_MS = 10_000;

interface Parts {
  store: Store;
  blobs: BlobStore;
  files: GrowingFiles;
  /** Threads of their own: who listens along never waits for bulk work, nor holds it up. */
  pool: WorkerPool;
  events: EventBus;
  work: Work;
}

export function openCaptures({ store, blobs, files, pool, events, work }: Parts): Captures {
  const heads = new Map<string, number>();
  const heardMs = new Map<string, number>();
  const followed = new Map<string, Following>();
  /** What is done to one recording is done one after the other. */
  const queues = new Map<string, Promise<unknown>>();
  const startedMs = Date.now();

  const bytesPerFrame = ({ channels }: Pick<CaptureRow, 'channels'>) => (channels.length * CAPTURE_FORMAT.bitDepth) / 8;
  const pieceBytes = (row: CaptureRow) => pieceFrames(row.sampleRateHz) * bytesPerFrame(row);

  function inTurn<Result>(id: string, work: () => Promise<Result>): Promise<Result> {
    const next = (queues.get(id) ?? Promise.resolve()).then(work);
    const settled = next
      .catch(() => undefined)
      .then(() => {
        if (queues.get(id) === settled) queues.delete(id);
      });
    queues.set(id, settled);
    return next;
  }

  async function rowOf(trialId: string, id: string): Promise<CaptureRow> {
    const row = await store.captures.findOneBy({ id, trialId });
    if (!row) throw notFound('recording under way');
    return row;
  }

  async function headOf(row: CaptureRow): Promise<Uint8Array> {
    const take = await store.takes.findOneBy({ id: row.takeId });
    const trial = await store.trials.findOneBy({ id: row.trialId });
    const notes = { project: trial?.name ?? '', scene: String(take?.slate ?? ''), take: String(take?.pass ?? ''), tape: '', note: '' };
    const chunks = fieldChunks({ ...notes, originator: 'Marvet', trackNames: row.channels.map(({ name }) => name), startedAtMs: row.startedAtMs, sampleRateHz: row.sampleRateHz });
    return growingWavHead({ ...CAPTURE_FORMAT, channels: row.channels.length, sampleRateHz: row.sampleRateHz }, chunks);
  }

  /** How long the head is: read from the file itself, since a name in it may have changed meanwhile. */
  async function headBytes(row: CaptureRow): Promise<number> {
    const known = heads.get(row.id) ?? (await files.headBytes(row.id)) ?? (await headOf(row)).byteLength;
    heads.set(row.id, known);
    return known;
  }

  async function stateOf(row: CaptureRow): Promise<CaptureState> {
    const bytes = row.fileId === null ? ((await files.dataBytes(row.id, await headBytes(row))) ?? 0) : 0;
    return { ...row, pieces: Math.floor(bytes / pieceBytes(row)), lengthS: bytes / bytesPerFrame(row) / row.sampleRateHz };
  }

  function listenAlong(row: CaptureRow, frames: number): void {
    const following =
      followed.get(row.id) ?? follow(pool, files.pathOf(row.id), (heard) => events.tell(row.trialId, { type: 'capture', told: { captureId: row.id, takeId: row.takeId, heard } }));
    followed.set(row.id, following);
    following.grown(frames);
  }

  async function finish(row: CaptureRow, binned: boolean): Promise<void> {
    if (row.fileId !== null || row.failure !== null) return;
    const head = await headBytes(row);
    const bytes = (await files.dataBytes(row.id, head)) ?? 0;
    const frames = Math.floor(bytes / bytesPerFrame(row));
    const following = followed.get(row.id);
    followed.delete(row.id);
    if (frames === 0) {
      await store.write((tables) => tables.captures.update(row.id, { failure: 'Nothing was recorded' }));
      await files.remove(row.id);
      return;
    }
    await files.close(row.id, head, bytes, bytesPerFrame(row));
    const [grown, staged] = await Promise.all([following ? following.ended(frames) : null, blobs.stageFile(files.pathOf(row.id))]);
    const layout = withFileSource(staged.path, readWavHeader);
    const file = await store.write(async (tables) => {
      const blob = await staged.keep();
      const recorded = { takeId: row.takeId, setupIds: row.channels.map(({ setupId }) => setupId) };
      const made = await newFile(tables, { trialId: row.trialId, name: row.name, ...blob }, layout, recorded);
      const whole = (await tables.recordings.find({ select: { id: true, startS: true, endS: true }, where: { fileId: made.file.id } })).every(
        ({ startS, endS }) => startS === null && endS === null,
      );
      // Where something was switched its stretches are measured by themselves.
      if (grown && whole) await keepReport(tables, made.file, [{ span: [null, null], stereo: [], measured: grown.measured }]);
      if (binned) await tables.files.update(made.file.id, { binnedAtMs: Date.now() });
      await tables.captures.update(row.id, { fileId: made.file.id });
      return { id: made.file.id, final: whole && grown?.final === true };
    });
    await files.remove(row.id);
    for (const kept of [heads, heardMs]) kept.delete(row.id);
    if (!file.final && !binned) await work.measuring.request([file.id]);
    if (!binned) await work.against.look(row.trialId, await takesOf(store, file.id));
    events.tell(row.trialId, { type: 'file', fileId: file.id });
    events.tell(row.trialId, { type: 'records', tags: ['Captures', 'Files', 'Recordings', 'Bin'], page: null });
  }

  async function closeAbandoned(): Promise<void> {
    const rows = await store.captures.findBy({ fileId: IsNull(), failure: IsNull() });
    for (const row of rows) {
      if (Date.now() - (heardMs.get(row.id) ?? startedMs) < ABANDONED_MS) continue;
      await inTurn(row.id, async () => finish((await store.captures.findOneBy({ id: row.id })) ?? row, false)).catch((error: unknown) =>
        console.error('A recording that was left could not be closed, and is tried again:', error),
      );
    }
  }
  const timer = setInterval(() => void closeAbandoned().catch((error: unknown) => console.error('Recordings that were left could not be looked for:', error)), LOOK_EVERY_MS);
  timer.unref();

  return {
    async begin(trialId, draft) {
      return inTurn(draft.id, async () => {
        const known = await store.captures.findOneBy({ id: draft.id, trialId });
        if (known) return stateOf(known);
        const take = await store.takes.findOneBy({ id: draft.takeId, ...present(trialId) });
        if (!take) throw notFound('take');
        const strange = draft.channels.findIndex(({ setupId }) => setupId !== null && !take.setups.some(({ id }) => id === setupId));
        if (strange >= 0) throw new ApiError(422, 'invalid', `Channel ${strange + 1}: that candidate is not in this take`, { channels: 'Choose candidates of the take' });
        const trial = await store.trials.findOneBy({ id: trialId });
        const row: CaptureRow = { ...draft, trialId, name: captureName(trial?.name ?? '', take, draft.part), fileId: null, failure: null };
        // The file first: a row without one would promise what is not there. What a stop in the middle left of one is written over.
        const head = await headOf(row);
        await files.begin(row.id, head);
        heads.set(row.id, head.byteLength);
        heardMs.set(row.id, Date.now());
        await store.write((tables) => tables.captures.insert(row));
        return stateOf(row);
      });
    },
    async open(trialId) {
      const rows = await store.captures.findBy({ trialId, fileId: IsNull(), failure: IsNull() });
      return Promise.all(rows.map(stateOf));
    },
    put: (trialId, id, number, bytes) =>
      inTurn(id, async () => {
        const row = await rowOf(trialId, id);
        heardMs.set(id, Date.now());
        if (row.fileId !== null || row.failure !== null) throw new ApiError(410, 'closed', 'This recording was closed. What comes after it is a part of its own.');
        const { pieces } = await stateOf(row);
        if (number < pieces) return pieces;
        if (number > pieces) throw new ApiError(409, 'missing', `Piece ${pieces} is missing. Send it first.`);
        if (bytes.byteLength === 0 || bytes.byteLength > pieceBytes(row) || bytes.byteLength % bytesPerFrame(row) !== 0) {
          throw new ApiError(422, 'invalid', 'That is no whole number of samples of this recording');
        }
        const at = pieces * pieceBytes(row);
        await files.put(id, (await headBytes(row)) + at, bytes);
        listenAlong(row, Math.floor((at + bytes.byteLength) / bytesPerFrame(row)));
        return Math.floor((at + bytes.byteLength) / pieceBytes(row));
      }),
    async finish(trialId, id, binned = false) {
      return inTurn(id, async () => {
        await finish(await rowOf(trialId, id), binned);
        return stateOf(await rowOf(trialId, id));
      });
    },
    async close() {
      clearInterval(timer);
      await Promise.all(queues.values());
      for (const following of followed.values()) following.left();
      await files.release();
    },
  };
}
