import { type Beginning, type BegunMoment, layBackSchema, layOutSchema, type MomentPart } from '@marvet/core/contract/beginning';
import { grouped } from '@marvet/core/domain/grouped';
import { microphoneReadings, type NamedChannel } from '@marvet/core/takes/beginning/microphoneNames';
import { momentsOf, sharedTimes } from '@marvet/core/takes/sound/moments';
import type { SoundPlace } from '@marvet/core/takes/sound/placeBySound';
import type { SoundLink } from '@marvet/core/takes/sound/sameSound';
import { Hono } from 'hono';
import { present } from '../store/table.ts';
import { heardPlaces } from './heardPlaces.ts';
import { pathId, readBody } from './http.ts';
import { layBack } from './layBack.ts';
import { layOut } from './layOut.ts';
import { filesOfTrial, type LooseFile, momentStartMs } from './looseFiles.ts';
import { recorderNameOf, sourcesIn } from './recorderTies.ts';
import type { Services } from './services.ts';

/** Moments that no clock dates come last. */
const LAST = Number.MAX_SAFE_INTEGER;

/** A trial that begins with recordings: what of them belongs together, and candidates and takes made of it. */
export function beginningRoutes({ store, sounds, work, events }: Services): Hono {
  return (
    new Hono()
      .get('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const [{ loose, all }, chains, takes] = await Promise.all([
          filesOfTrial(store, trialId),
          store.chains.findBy({ candidate: true, ...present(trialId) }),
          store.takes.find({ select: { id: true, slate: true }, where: { trialId } }),
        ]);
        const heard = await heardPlaces({ store, sounds }, trialId, all);
        const byId = new Map(loose.map((file) => [file.id, file]));
        const slates = new Map(takes.map(({ id, slate }) => [id, slate]));
        const joined = joinedMoments(loose, heard.places, slates);
        const fresh = freshMoments(
          loose.filter(({ id }) => !heard.places.has(id)),
          heard.links,
        );
        const highest = Math.max(0, ...slates.values());
        const moments = [...joined, ...fresh.map((parts, index) => ({ takeId: null, slate: highest + index + 1, parts }))];
        const momentOf = new Map(moments.flatMap(({ parts }, index) => parts.map(({ fileId }) => [fileId, String(index)] as const)));
        const own = await sourcesIn(store, trialId);
        const channels = loose.flatMap((file) => channelsOf(file, own.get(file.id) ?? []));
        return context.json({
          moments,
          channels,
          readings: microphoneReadings(
            channels,
            (fileId) => momentOf.get(fileId) ?? fileId,
            chains.map(({ name }) => name),
          ),
          looked: heard.looked,
          of: heard.of,
          tooMany: heard.tooMany,
          troubles: heard.troubles.flatMap(({ fileId, why }) => (byId.has(fileId) ? [`${byId.get(fileId)?.name}: ${why}`] : [])),
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
      })
      /** Takes laying out back, with what it answered. */
      .post('/back', async (context) => {
        const trialId = pathId(context, 'trial');
        const back = await readBody(context, layBackSchema);
        const cut = await store.write((tables) => layBack(tables, trialId, back));
        if (cut.length > 0) await work.measuring.request(cut);
        await work.against.look(trialId, [...back.takeIds, ...back.joined.map(({ takeId }) => takeId)]);
        events.tell(trialId, { type: 'records', tags: ['Takes', 'Chains', 'Files', 'Recordings', 'Trials', 'Verdict', 'Sounds'], page: null });
        return context.body(null, 204);
      })
  );
}

/** The sources in a file: a channel each, or two that are stereo; a backup is none. */
function channelsOf(file: LooseFile, sources: readonly number[]): NamedChannel[] {
  const named = { fileId: file.id, fileName: file.name, recorder: recorderNameOf(file), of: sources.length };
  return sources.map((channelIndex) => ({ ...named, channelIndex, trackName: file.format.trackNames[channelIndex] ?? null }));
}

/** Files that sound like takes that are there, by take. */
function joinedMoments(files: readonly LooseFile[], places: ReadonlyMap<string, readonly SoundPlace[]>, slates: ReadonlyMap<string, number>): BegunMoment[] {
  const parts = files.flatMap((file) => {
    const own = places.get(file.id) ?? [];
    return own.map(({ takeId, startS, endS }) => ({ takeId, part: own.length === 1 ? { fileId: file.id, startS: null, endS: null } : partOf(file, startS, endS) }));
  });
  const byTake = [...grouped(parts, ({ takeId }) => takeId)].map(([takeId, own]) => ({ takeId, slate: slates.get(takeId) ?? 0, parts: own.map(({ part }) => part) }));
  return byTake.sort((a, b) => a.slate - b.slate);
}

/** What sounded at one moment among files that belong to no take, in the order of their time, or of their names. */
function freshMoments(files: readonly LooseFile[], links: readonly SoundLink[]): MomentPart[][] {
  const byId = new Map(files.map((file) => [file.id, file]));
  const times = sharedTimes(
    files.map(({ id, format }) => ({ id, lengthS: format.durationS })),
    links,
  );
  const moments = times.flatMap((time) => {
    const startOf = new Map(time.map(({ id, startS }) => [id, startS]));
    return momentsOf(time).map(({ parts }) =>
      parts.map(({ id, startS, endS }) => partOf(byId.get(id) as LooseFile, startS - (startOf.get(id) ?? 0), endS - (startOf.get(id) ?? 0))),
    );
  });
  const startOf = (parts: readonly MomentPart[]) => momentStartMs(parts, byId) ?? LAST;
  return moments.sort((a, b) => startOf(a) - startOf(b) || firstName(a, byId).localeCompare(firstName(b, byId), 'en', { numeric: true }));
}

/** A part of a file, in seconds of the file; the whole of it where it is nearly that. */
function partOf(file: LooseFile, startS: number, endS: number): MomentPart {
  const whole = startS <= 0.01 && endS >= file.format.durationS - 0.01;
  return { fileId: file.id, startS: whole ? null : Math.max(0, startS), endS: whole ? null : Math.min(file.format.durationS, endS) };
}

const firstName = (parts: readonly MomentPart[], files: ReadonlyMap<string, LooseFile>) => files.get(parts[0]?.fileId ?? '')?.name ?? '';
