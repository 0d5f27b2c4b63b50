import { type FilePlace, type Places, type Placings, placingsSchema, type RecorderOfTrial, recorderPatchSchema, recorderSetSchema } from '@marvet/core/contract/places';
import { grouped } from '@marvet/core/domain/grouped';
import type { MatchedBy } from '@marvet/core/domain/recording';
import { dayCuts } from '@marvet/core/takes/places/dayCuts';
import { fileTime } from '@marvet/core/takes/places/fileTime';
import { SURE } from '@marvet/core/takes/places/placeByClock';
import { splitFiles } from '@marvet/core/takes/places/splitFiles';
import type { TimedFile } from '@marvet/core/takes/places/timed';
import { Hono } from 'hono';
import { takesOf } from '../jobs/measuring.ts';
import type { AudioFileRow } from '../store/records.ts';
import type { Tables } from '../store/store.ts';
import { In, inParts, present } from '../store/table.ts';
import { assignCuts, assignFile, type ChannelTie } from './assignFile.ts';
import { heardPlaces, withSound } from './heardPlaces.ts';
import { changedMeanwhile, notFound, pathId, readBody } from './http.ts';
import { channelsOf, foundTies, type KnownRecorders, knownRecorders, recorderNameOf, retied, sourcesIn, tiesOf } from './recorderTies.ts';
import type { Services } from './services.ts';

type DatedFile = Pick<AudioFileRow, 'id' | 'name' | 'sha256' | 'originalSha256' | 'sizeBytes' | 'recorder' | 'format' | 'modifiedAtMs'>;

/** Where files belong: found by names and clocks, put there many at once, and moved by setting a clock or a recorder. */
export function placeRoutes({ store, work, sounds, events }: Services): Hono {
  return (
    new Hono()
      .get('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const [files, takes, known] = await Promise.all([
          store.files.find({
            select: { id: true, name: true, sha256: true, originalSha256: true, sizeBytes: true, recorder: true, format: true as never, modifiedAtMs: true },
            where: present(trialId),
            order: { uploadedAtMs: 'ASC', name: 'ASC' },
          }),
          store.takes.find({ select: { id: true, startedAtMs: true, stoppedAtMs: true }, where: present(trialId) }),
          knownRecorders(store, trialId),
        ]);
        const [placed, sources] = await Promise.all([placedNow(store, trialId), sourcesIn(store, trialId)]);
        const byRecorder = grouped(files as DatedFile[], recorderNameOf);
        const recorders = [...byRecorder].sort(([a], [b]) => a.localeCompare(b));
        const aheadOf = (recorder: string) => known.said.get(recorder)?.aheadS ?? null;
        const logged = takes.flatMap(({ id, startedAtMs, stoppedAtMs }) => (startedAtMs === null ? [] : [{ id, startedAtMs, stoppedAtMs }]));
        const found = await work.places(trialId, {
          recorders: recorders.map(([recorder, own]) => ({ files: own.flatMap((file) => timed(file, placed)), aheadByHandS: aheadOf(recorder) })),
          takes: logged,
        });
        const heard = await heardPlaces({ store, sounds }, trialId, files as DatedFile[]);
        const answer: Places = { recorders: [], files: [], split: recorders.flatMap(([, own]) => splitFiles(own)), looked: heard.looked, of: heard.of, tooMany: heard.tooMany };
        for (const [index, [recorder, own]] of recorders.entries()) {
          const { clock, places } = found[index] as (typeof found)[number];
          answer.recorders.push({
            recorder,
            files: own.length,
            timed: places.length,
            clock,
            aheadByHandS: aheadOf(recorder),
            candidateIds: channelsOf(own, recorder, known),
            sources: [...new Set(own.flatMap(({ id }) => sources.get(id) ?? []))].sort((a, b) => a - b),
          } satisfies RecorderOfTrial);
          const placeOf = new Map(places.map((place) => [place.fileId, place]));
          for (const file of own) {
            const time = fileTime(file);
            const here = placed.get(file.id) ?? null;
            const unknown = { fileId: file.id, takeId: here?.takeId ?? null, confidence: here ? 1 : 0, startsAtMs: null, others: [], over: [] };
            const place = placeOf.get(file.id) ?? unknown;
            const startsAtMs = clock || aheadOf(recorder) !== null ? place.startsAtMs : null;
            const cuts =
              startsAtMs !== null && (aheadOf(recorder) !== null || (clock && clock.sure > SURE)) ? dayCuts({ startsAtMs, durationS: file.format.durationS }, logged) : [];
            answer.files.push(
              withSound(
                { ...place, cuts, startsAtMs, recorder, ownStartMs: time?.startMs ?? null, timeBy: time?.by ?? null, placed: here, by: 'clock', like: null },
                heard.places.get(file.id),
              ),
            );
          }
        }
        return context.json(answer);
      })
      /** Puts files where they belong, all or none. Answers with where they lay before, to be sent back as it is. */
      .post('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const { places } = await readBody(context, placingsSchema);
        const ids = places.map(({ fileId }) => fileId);
        const done = await store.write(async (tables) => {
          const files = new Map((await inParts(ids, (part) => tables.files.findBy({ id: In(part), ...present(trialId) }))).map((file) => [file.id, file]));
          const before = await tiesOf(tables, ids);
          const known = await knownRecorders(tables, trialId);
          const touched = new Set<string | null>();
          const cut: string[] = [];
          for (const { fileId, takeId, by, from, channels, cuts } of places) {
            const file = files.get(fileId);
            if (!file) throw notFound('file');
            const left = await takesOf(tables, fileId);
            // Put elsewhere meanwhile, by hand perhaps, it is not moved on.
            if (from !== undefined && !left.includes(from)) throw changedMeanwhile('file', { fileId, takeId: left[0] ?? null });
            for (const each of left) touched.add(each);
            touched.add(takeId);
            if (cuts && cuts.length > 0) {
              const parts = await Promise.all(cuts.map(async (part) => ({ ...part, channels: part.channels ?? (await tiesBy(by, tables, file, part.takeId, known)) })));
              await assignCuts(tables, file, parts, by);
              for (const part of parts) touched.add(part.takeId);
              cut.push(fileId);
              continue;
            }
            const ties = channels ?? (takeId === null ? [] : await tiesBy(by, tables, file, takeId, known));
            if (await assignFile(tables, file, { takeId, by, channels: ties })) cut.push(fileId);
          }
          return { before, cut, touched };
        });
        if (done.cut.length > 0) await work.measuring.request(done.cut);
        await work.against.look(trialId, [...done.touched]);
        events.tell(trialId, { type: 'records', tags: ['Files', 'Recordings', 'Trials', 'Verdict'], page: null });
        // Undone, it is as it was, unless it was put elsewhere since.
        const putIn = new Map(places.map(({ fileId, takeId }) => [fileId, takeId]));
        return context.json({ places: done.before.places.map((place) => ({ ...place, from: putIn.get(place.fileId) ?? null })) } satisfies Placings);
      })
      /** What somebody says of a recorder. Its files that are in place have their candidates by it; answers with how they were tied before. */
      .patch('/recorders', async (context) => {
        const trialId = pathId(context, 'trial');
        const { name, aheadS, channel } = await readBody(context, recorderPatchSchema);
        const { before, cut, touched } = await store.write(async (tables) => {
          if (!(await tables.trials.existsBy({ id: trialId }))) throw notFound('trial');
          const known = (await tables.recorders.findOneBy({ trialId, name })) ?? { trialId, name, aheadS: null, candidateIds: [] };
          const candidateIds = [...known.candidateIds];
          // Only the channel that was meant: what another page says of the others stays.
          if (channel) for (let index = candidateIds.length; index <= channel.index; index++) candidateIds[index] = null;
          if (channel) candidateIds[channel.index] = channel.candidateId;
          await tables.recorders.save({ ...known, candidateIds, ...(aheadS === undefined ? {} : { aheadS }) });
          return channel ? retied(tables, trialId, name) : { before: [], cut: [], touched: [] };
        });
        if (cut.length > 0) await work.measuring.request(cut);
        await work.against.look(trialId, touched);
        events.tell(trialId, { type: 'records', tags: ['Files', 'Recordings', 'Verdict'], page: null });
        return context.json({ places: before } satisfies Placings);
      })
      .put('/recorder', async (context) => {
        const trialId = pathId(context, 'trial');
        const { fileIds, recorder } = await readBody(context, recorderSetSchema);
        await store.write(async (tables) => {
          const here = await inParts(fileIds, (part) => tables.files.find({ select: { id: true }, where: { id: In(part), ...present(trialId) } }));
          if (here.length < new Set(fileIds).size) throw notFound('file');
          await inParts(fileIds, async (part) => [await tables.files.update({ id: part }, { recorder })]);
        });
        events.tell(trialId, { type: 'records', tags: ['Files'], page: null });
        return context.body(null, 204);
      })
  );
}

/** Setups of the channels of a file. What only sounds like a take is another microphone than those that are in it already. */
async function tiesBy(by: MatchedBy | null, tables: Tables, file: AudioFileRow, takeId: string, known: KnownRecorders): Promise<ChannelTie[]> {
  const ties = await foundTies(tables, file, takeId, known);
  if (by !== 'sound') return ties;
  const rows = await tables.recordings.find({ select: { id: true, fileId: true, setupId: true }, where: { takeId } });
  const taken = new Set(rows.filter(({ fileId }) => fileId !== file.id).map(({ setupId }) => setupId));
  return ties.map((tie) => (tie.setupId !== null && taken.has(tie.setupId) ? { ...tie, setupId: null } : tie));
}

type Placed = NonNullable<FilePlace['placed']>;

/** The take of each file that has one, and by what. */
async function placedNow(store: Services['store'], trialId: string): Promise<Map<string, Placed>> {
  const rows = await store.query<Placed & { fileId: string }>(
    `SELECT "fileId", "takeId", "matchedBy" AS "by", COUNT(DISTINCT "takeId") AS "takes" FROM "recording" WHERE "trialId" = ? AND "takeId" IS NOT NULL GROUP BY "fileId"`,
    [trialId],
  );
  return new Map(rows.map(({ fileId, ...place }) => [fileId, place]));
}

/** A file as the clock sees it. What a clock found before binds it to nothing: it is found anew. */
function timed(file: DatedFile, placed: ReadonlyMap<string, Placed>): TimedFile[] {
  const time = fileTime(file);
  if (!time) return [];
  const here = placed.get(file.id);
  const tied =
    !here || here.by === 'clock' || here.takes > 1 ? null : { takeId: here.takeId, by: here.by === 'hand' || here.by === 'recorded here' ? ('hand' as const) : ('name' as const) };
  return [{ id: file.id, startsAtMs: time.startMs, durationS: file.format.durationS, tied }];
}
