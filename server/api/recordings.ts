import { roomToneSchema } from '@marvet/core/domain/recording';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import { Hono } from 'hono';
import { IsNull } from 'typeorm';
import { channelWav } from '../audio/channelWav.ts';
import type { AudioFileRow, RecordingRow } from '../store/rows.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

const MOST_PAIRS = 200;

/** A row as it lies in the table. */
interface StoredRow {
  id: string;
  fileId: string;
  channelIndex: number;
  trackName: string | null;
  candidateId: string | null;
  figures: string | null;
}

/** Recordings of a trial: all of them with their figures, or one with its whole report. */
export function recordingRoutes({ store, blobs, pool, measuring, events }: Services): Hono {
  const placeOf = ({ recording, file }: { recording: RecordingRow; file: AudioFileRow }) => ({ path: blobs.pathOf(file.sha256), channel: recording.channelIndex });
  async function present(trialId: string, id: string): Promise<{ recording: RecordingRow; file: AudioFileRow }> {
    const recording = await store.recordings.findOneBy({ id, trialId });
    const file = recording && (await store.files.findOneBy({ id: recording.fileId, binnedAtMs: IsNull() }));
    if (!recording || !file) throw notFound('recording');
    return { recording, file };
  }
  /** Pairs do not change while their files do not, so the last few are kept. */
  const pairs = new Map<string, Promise<ComparedPair>>();

  return (
    new Hono()
      .get('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const files = await store.files.find({ select: { id: true, name: true, takeId: true, state: true, methodVersion: true }, where: { trialId, binnedAtMs: IsNull() } });
        const byId = new Map(files.map((file) => [file.id, file]));
        // Figures stay the text they are stored as: parsing thousands of them only to write them again would take most of the time.
        const rows: StoredRow[] = await store.dataSource.query(
          'SELECT "id", "fileId", "channelIndex", "trackName", "candidateId", "figures" FROM "recording" WHERE "trialId" = ? ORDER BY "fileId", "channelIndex"',
          [trialId],
        );
        const shown = rows.flatMap(({ figures, ...row }) => {
          const file = byId.get(row.fileId);
          if (!file) return [];
          const rest = JSON.stringify({ ...row, fileName: file.name, takeId: file.takeId, state: file.state, methodVersion: file.methodVersion });
          return [`${rest.slice(0, -1)},"figures":${figures ?? 'null'}}`];
        });
        return context.body(`[${shown.join(',')}]`, 200, { 'Content-Type': 'application/json' });
      })
      .get('/:id', async (context) => {
        const { recording, file } = await present(pathId(context, 'trial'), pathId(context, 'id'));
        const { figures: _figures, ...rest } = recording;
        return context.json({ ...rest, takeId: file.takeId, file, programme: file.programme });
      })
      .put('/:id/room-tone', async (context) => {
        const { recording, file } = await present(pathId(context, 'trial'), pathId(context, 'id'));
        const { roomTone } = await readBody(context, roomToneSchema);
        if (roomTone && roomTone[1] > file.format.durationS) {
          throw new ApiError(422, 'invalid', `The recording ends at ${file.format.durationS.toFixed(2)} s; mark room tone before that`, { roomTone: 'Ends after the recording' });
        }
        await store.recordings.update(recording.id, { roomTone });
        await store.files.update(file.id, { state: 'queued', failure: null });
        measuring.add(file);
        events.tell(file.trialId, { type: 'file', fileId: file.id });
        return context.body(null, 202);
      })
      /** This recording against another of the same performance. */
      .get('/:id/pair/:other', async (context) => {
        const own = await present(pathId(context, 'trial'), pathId(context, 'id'));
        const other = await present(pathId(context, 'trial'), pathId(context, 'other'));
        const key = `${own.recording.id} ${other.recording.id}`;
        const known = pairs.get(key);
        const work = known ?? pool.pair({ channel: placeOf(own), reference: placeOf(other) });
        if (!known) {
          pairs.set(key, work);
          if (pairs.size > MOST_PAIRS) pairs.delete(pairs.keys().next().value ?? '');
          work.catch(() => pairs.delete(key));
        }
        return context.json(await work);
      })
      /** One channel as a mono file, so that any browser plays just that one. */
      .get('/:id/audio', async (context) => {
        const recording = await store.recordings.findOneBy({ id: pathId(context, 'id'), trialId: pathId(context, 'trial') });
        const file = recording && (await store.files.findOneBy({ id: recording.fileId }));
        if (!recording || !file) throw notFound('recording');
        const { lengthBytes, body } = channelWav(blobs.pathOf(file.sha256), recording.channelIndex);
        return context.body(body, 200, { 'Content-Type': 'audio/wav', 'Content-Length': String(lengthBytes), 'Cache-Control': 'private, max-age=3600' });
      })
  );
}
