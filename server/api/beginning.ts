import { type Beginning, layOutSchema, type MomentPart } from '@marvet/core/contract/beginning';
import { microphoneReadings, type NamedChannel } from '@marvet/core/takes/beginning/microphoneNames';
import { momentsOf, sharedTimes } from '@marvet/core/takes/sound/moments';
import { Hono } from 'hono';
import { present } from '../store/table.ts';
import { pathId, readBody } from './http.ts';
import { layOut } from './layOut.ts';
import { headerStartMs, type LooseFile, looseFiles, momentStartMs } from './looseFiles.ts';
import { recorderNameOf } from './recorderTies.ts';
import type { Services } from './services.ts';

/** Moments that no clock dates come last. */
const LAST = Number.MAX_SAFE_INTEGER;

/** A trial that begins with recordings: what of them belongs together, and candidates and takes made of it. */
export function beginningRoutes({ store, sounds, work, events }: Services): Hono {
  return new Hono()
    .get('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const files = await looseFiles(store, trialId);
      const chains = await store.chains.findBy({ candidate: true, ...present(trialId) });
      const heard = sounds.of(
        trialId,
        files.map((file) => ({ id: file.id, sha256: file.sha256, recorder: recorderNameOf(file), startMs: headerStartMs(file), lengthS: file.format.durationS, placed: false })),
      );
      const times = sharedTimes(
        files.map(({ id, format }) => ({ id, lengthS: format.durationS })),
        heard.links,
      );
      const byId = new Map(files.map((file) => [file.id, file]));
      const moments = times.flatMap((time) => {
        const startOf = new Map(time.map(({ id, startS }) => [id, startS]));
        return momentsOf(time).map(({ parts }) =>
          parts.map(({ id, startS, endS }) => partOf(byId.get(id) as LooseFile, startS - (startOf.get(id) ?? 0), endS - (startOf.get(id) ?? 0))),
        );
      });
      const startOf = (parts: readonly MomentPart[]) => momentStartMs(parts, byId) ?? LAST;
      const inOrder = moments.sort((a, b) => startOf(a) - startOf(b) || firstName(a, byId).localeCompare(firstName(b, byId), 'en', { numeric: true }));
      const momentOf = new Map(inOrder.flatMap((parts, index) => parts.map(({ fileId }) => [fileId, String(index)] as const)));
      const channels = files.flatMap(channelsOf);
      return context.json({
        moments: inOrder,
        channels,
        readings: microphoneReadings(
          channels,
          (fileId) => momentOf.get(fileId) ?? fileId,
          chains.map(({ name }) => name),
        ),
        looked: heard.looked,
        of: heard.of,
        tooMany: heard.tooMany,
        troubles: heard.troubles.map(({ fileId, why }) => `${byId.get(fileId)?.name}: ${why}`),
      } satisfies Beginning);
    })
    .post('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const wanted = await readBody(context, layOutSchema);
      const { laid, cut } = await store.write((tables) => layOut(tables, trialId, wanted));
      if (cut.length > 0) await work.measuring.request(cut);
      await work.against.look(
        trialId,
        laid.takes.map(({ takeId }) => takeId),
      );
      events.tell(trialId, { type: 'records', tags: ['Takes', 'Chains', 'Files', 'Recordings', 'Trials', 'Verdict', 'Sounds'], page: null });
      return context.json(laid, 201);
    });
}

function channelsOf(file: LooseFile): NamedChannel[] {
  const { trackNames, channels } = file.format;
  return trackNames.map((trackName, channelIndex) => ({ fileId: file.id, channelIndex, fileName: file.name, recorder: recorderNameOf(file), trackName, of: channels }));
}

/** A part of a file, in seconds of the file; the whole of it where it is nearly that. */
function partOf(file: LooseFile, startS: number, endS: number): MomentPart {
  const whole = startS <= 0.01 && endS >= file.format.durationS - 0.01;
  return { fileId: file.id, startS: whole ? null : Math.max(0, startS), endS: whole ? null : Math.min(file.format.durationS, endS) };
}

const firstName = (parts: readonly MomentPart[], files: ReadonlyMap<string, LooseFile>) => files.get(parts[0]?.fileId ?? '')?.name ?? '';
