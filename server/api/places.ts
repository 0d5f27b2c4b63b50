import { clockSetSchema, type FilePlace, type Places, placingsSchema, type RecorderOfTrial, recorderSetSchema } from '@marvet/core/contract/places';
import { grouped } from '@marvet/core/domain/grouped';
import { candidatesOf, firstSetups } from '@marvet/core/domain/take';
import { matchSetups } from '@marvet/core/takes/matchFile';
import { fileTime } from '@marvet/core/takes/places/fileTime';
import { habitOf, setupsByHabit } from '@marvet/core/takes/places/habit';
import { recorderOf } from '@marvet/core/takes/places/recorderOf';
import type { TimedFile } from '@marvet/core/takes/places/timed';
import { Hono } from 'hono';
import { takesOf } from '../jobs/measuring.ts';
import type { AudioFileRow } from '../store/records.ts';
import type { ReadTables, Tables } from '../store/store.ts';
import { In, inParts, present } from '../store/table.ts';
import { assignFile, type ChannelTie } from './assignFile.ts';
import { notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

type DatedFile = Pick<AudioFileRow, 'id' | 'name' | 'recorder' | 'format' | 'modifiedAtMs'>;

/** Files that came before recorders were told apart are told by what they are called. */
const recorderNameOf = ({ recorder, name, format }: Pick<AudioFileRow, 'recorder' | 'name' | 'format'>) =>
  recorder ?? recorderOf({ name, folder: null, originator: format.originator });

/** Where files belong: found by names and clocks, put there many at once, and moved by setting a clock or a recorder. */
export function placeRoutes({ store, work, events }: Services): Hono {
  return (
    new Hono()
      .get('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const [files, takes, clocks] = await Promise.all([
          store.files.find({
            select: { id: true, name: true, recorder: true, format: true as never, modifiedAtMs: true },
            where: present(trialId),
            order: { uploadedAtMs: 'ASC', name: 'ASC' },
          }),
          store.takes.find({ select: { id: true, startedAtMs: true, stoppedAtMs: true }, where: present(trialId) }),
          store.recorderClocks.findBy({ trialId }),
        ]);
        const placed = await placedNow(store, trialId);
        const byRecorder = grouped(files as DatedFile[], recorderNameOf);
        const recorders = [...byRecorder].sort(([a], [b]) => a.localeCompare(b));
        const aheadOf = (recorder: string) => clocks.find((each) => each.recorder === recorder)?.aheadS ?? null;
        const found = await work.places(trialId, {
          recorders: recorders.map(([recorder, own]) => ({ files: own.flatMap((file) => timed(file, placed)), aheadByHandS: aheadOf(recorder) })),
          takes: takes.flatMap(({ id, startedAtMs, stoppedAtMs }) => (startedAtMs === null ? [] : [{ id, startedAtMs, stoppedAtMs }])),
        });
        const answer: Places = { recorders: [], files: [] };
        for (const [index, [recorder, own]] of recorders.entries()) {
          const { clock, places } = found[index] as (typeof found)[number];
          answer.recorders.push({ recorder, files: own.length, timed: places.length, clock, aheadByHandS: aheadOf(recorder) } satisfies RecorderOfTrial);
          const placeOf = new Map(places.map((place) => [place.fileId, place]));
          for (const file of own) {
            const time = fileTime(file);
            const here = placed.get(file.id) ?? null;
            const unknown = { fileId: file.id, takeId: here?.takeId ?? null, confidence: here ? 1 : 0, startsAtMs: null, others: [], over: [] };
            const place = placeOf.get(file.id) ?? unknown;
            const startsAtMs = clock || aheadOf(recorder) !== null ? place.startsAtMs : null;
            answer.files.push({ ...place, startsAtMs, recorder, ownStartMs: time?.startMs ?? null, timeBy: time?.by ?? null, placed: here } satisfies FilePlace);
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
          const touched = new Set<string | null>();
          const cut: string[] = [];
          for (const { fileId, takeId, by, channels } of places) {
            const file = files.get(fileId);
            if (!file) throw notFound('file');
            for (const left of await takesOf(tables, fileId)) touched.add(left);
            touched.add(takeId);
            const ties = channels ?? (takeId === null ? [] : await foundTies(tables, file, takeId));
            if (await assignFile(tables, file, { takeId, by, channels: ties })) cut.push(fileId);
          }
          return { before, cut, touched };
        });
        if (done.cut.length > 0) await work.measuring.request(done.cut);
        await work.against.look(trialId, [...done.touched]);
        events.tell(trialId, { type: 'records', tags: ['Files', 'Recordings', 'Trials', 'Verdict'], page: null });
        return context.json(done.before);
      })
      .put('/clock', async (context) => {
        const trialId = pathId(context, 'trial');
        const { recorder, aheadS } = await readBody(context, clockSetSchema);
        await store.write(async (tables) => {
          if (!(await tables.trials.existsBy({ id: trialId }))) throw notFound('trial');
          await tables.recorderClocks.delete({ trialId, recorder });
          if (aheadS !== null) await tables.recorderClocks.insert({ trialId, recorder, aheadS });
        });
        events.tell(trialId, { type: 'records', tags: ['Files'], page: null });
        return context.body(null, 204);
      })
      .put('/recorder', async (context) => {
        const trialId = pathId(context, 'trial');
        const { fileIds, recorder } = await readBody(context, recorderSetSchema);
        await store.write((tables) => inParts(fileIds, async (part) => [await tables.files.update({ id: part, ...present(trialId) }, { recorder })]));
        events.tell(trialId, { type: 'records', tags: ['Files'], page: null });
        return context.body(null, 204);
      })
  );
}

type Placed = NonNullable<FilePlace['placed']>;

/** The take of each file that has one, and by what. */
async function placedNow(store: Services['store'], trialId: string): Promise<Map<string, Placed>> {
  const rows = await store.query<{ fileId: string; takeId: string; by: Placed['by'] }>(
    `SELECT "fileId", "takeId", "matchedBy" AS "by" FROM "recording" WHERE "trialId" = ? AND "takeId" IS NOT NULL GROUP BY "fileId"`,
    [trialId],
  );
  return new Map(rows.map(({ fileId, ...place }) => [fileId, place]));
}

/** A file as the clock sees it. What a clock found before binds it to nothing: it is found anew. */
function timed(file: DatedFile, placed: ReadonlyMap<string, Placed>): TimedFile[] {
  const time = fileTime(file);
  if (!time) return [];
  const here = placed.get(file.id);
  const tied = !here || here.by === 'clock' ? null : { takeId: here.takeId, by: here.by === 'hand' || here.by === 'recorded here' ? ('hand' as const) : ('name' as const) };
  return [{ id: file.id, startsAtMs: time.startMs, durationS: file.format.durationS, tied }];
}

/** How files are tied now, in the shape in which it is asked for. */
async function tiesOf(tables: Pick<ReadTables, 'recordings'>, fileIds: readonly string[]) {
  const select = { id: true, fileId: true, takeId: true, setupId: true, matchedBy: true, channels: true, startS: true } as const;
  const rows = await inParts(fileIds, (part) => tables.recordings.find({ select, where: { fileId: part } }));
  const byFile = grouped(rows, ({ fileId }) => fileId);
  const places = fileIds.map((fileId) => {
    const own = byFile.get(fileId) ?? [];
    const tied = own.find(({ takeId }) => takeId !== null);
    // Where something was switched the first stretch says it; the others follow.
    const channels = own.flatMap(({ channels: [channelIndex = 0], setupId, startS }): ChannelTie[] => (startS === null ? [{ channelIndex, setupId }] : []));
    return { fileId, takeId: tied?.takeId ?? null, by: tied?.matchedBy ?? null, channels };
  });
  return { places };
}

/** Setups of the channels of a file in a take, by names, then by what its recorder did before. */
async function foundTies(tables: Tables, file: AudioFileRow, takeId: string): Promise<ChannelTie[]> {
  const take = await tables.takes.findOneBy({ id: takeId });
  if (!take) return [];
  const chains = await tables.chains.findBy({ id: In(candidatesOf(take)) });
  const recorder = recorderNameOf(file);
  const setups = firstSetups(take);
  const named = matchSetups(`${recorder} ${file.name}`, file.format.trackNames, setups, chains);
  const others = await tables.files.find({ select: { id: true }, where: { recorder, ...present(file.trialId) } });
  const tied = await inParts(
    others.map(({ id }) => id),
    (part) => tables.recordings.find({ select: { id: true, channels: true, setupId: true, takeId: true }, where: { fileId: part } }),
  );
  const takes = await inParts([...new Set(tied.flatMap(({ takeId: id }) => id ?? []))], (part) =>
    tables.takes.find({ select: { id: true, setups: true as never }, where: { id: part } }),
  );
  const candidateOf = new Map(takes.flatMap(({ setups: all }) => all.map(({ id, candidateId }) => [id, candidateId] as const)));
  const habit = habitOf(
    tied.flatMap(({ channels: [channelIndex = 0], setupId }) => {
      const candidateId = candidateOf.get(setupId ?? '');
      return candidateId ? [{ channelIndex, candidateId }] : [];
    }),
  );
  return setupsByHabit(named, setups, habit).map((setupId, channelIndex) => ({ channelIndex, setupId }));
}
