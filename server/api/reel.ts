import { type ReelTold, reelQuerySchema } from '@marvet/core/contract/reel';
import { LONGEST_WHOLE_S } from '@marvet/core/listen/clipForm';
import { layReel, partName, phrasesOf, type Reel } from '@marvet/core/listen/reel';
import { reelPage } from '@marvet/core/listen/reelPage';
import type { Span } from '@marvet/core/measure/report.types';
import { takenNames } from '@marvet/core/takes/takenName';
import { Hono } from 'hono';
import { reelFonts } from '../exchange/reelFonts.ts';
import { lettersS, reelZipParts, spokenLetters } from '../exchange/reelZip.ts';
import { type ZipPart, zipped } from '../exchange/zipped.ts';
import type { ChannelPlace } from '../jobs/tasks.ts';
import type { ReadTables } from '../store/store.ts';
import { ApiError, notFound, parsed, pathId, savedAs } from './http.ts';
import { type Described, described } from './reelNames.ts';
import { anyStereo, matchedClips, placesOf } from './roundCuts.ts';
import type { Services } from './services.ts';

/** Nobody listens to a longer one; it bounds the file. */
const LONGEST_S = 30 * 60;

/** A reel to send: clips matched and one after the other, with chapters, and the untouched files beside it. */
export function reelRoutes({ store, blobs, work }: Pick<Services, 'store' | 'blobs' | 'work'>): Hono {
  /** What is asked for, laid out. @throws ApiError where there is no such reel, and why */
  async function laid(trialId: string, query: Record<string, string>) {
    const asked = parsed(reelQuerySchema, query);
    const { matchedLufs, gainsDb, cuts, lengthS: performanceS } = await matchedClips({ store, blobs, work }, trialId, asked);
    const lengthS = Math.min(performanceS ?? 0, LONGEST_WHOLE_S);
    const starts = (cuts ?? []).map(({ startS }) => startS);
    const clips = await described(store, trialId, asked.recordingIds);
    const phrases = asked.order === 'phrase' ? await phrasesIn(store, asked.recordingIds, starts[0] ?? 0, lengthS, clips) : null;
    const letters = asked.gaps === 'spoken' ? lettersS(spokenLetters(clips.length, matchedLufs)) : null;
    const reel = layReel(clips.length, lengthS, phrases, asked.gapS, letters);
    if (reel.lengthS > LONGEST_S)
      throw new ApiError(422, 'too-long', `The reel would last ${Math.round(reel.lengthS / 60)} minutes, and half an hour is the most: choose fewer takes`, {
        recordingIds: 'Too many',
      });
    return { asked, matchedLufs, gainsDb, starts, lengthS, leftOutS: (performanceS ?? 0) - lengthS, clips, reel };
  }

  const routes = new Hono().get('/reel', async (context) => {
    const { reel, leftOutS } = await laid(pathId(context, 'trial'), context.req.query());
    return context.json({ parts: reel.parts.length, lengthS: reel.lengthS, leftOutS } satisfies ReelTold);
  });
  return routes.get('/reel.zip', async (context) => {
    const trialId = pathId(context, 'trial');
    const trial = await store.trials.findOneBy({ id: trialId });
    if (!trial) throw notFound('trial');
    const { asked, matchedLufs, gainsDb, starts, lengthS, clips, reel } = await laid(trialId, context.req.query());
    const wide = await anyStereo(store, asked.recordingIds);
    const places = await placesOf({ store, blobs }, trialId, asked.recordingIds);
    const clipAt = (place: number) =>
      work.clip(trialId, { ...(places[place] as ChannelPlace), startS: starts[place] ?? 0, lengthS, gainDb: gainsDb[place] ?? 0, wide, disguise: null });
    const names = clips.map(({ name }) => name);
    const page = reelPage({ title: `${trial.name}: ${names.length} clips`, matchedLufs, names, fonts: await reelFonts(), answers: null });
    const files = [...new Map(clips.map((clip) => [clip.file.id, clip])).values()];
    const kept = takenNames(
      files.map(({ file, take }) => ({
        name: file.name,
        takes: take ? [take] : [],
        tapes: clips.flatMap((each) => (each.file.id === file.id && each.tape ? [each.tape] : [])),
      })),
    );
    const parts: ZipPart[] = [
      ...(await reelZipParts(reel, { names, clipAt, matchedLufs }, page)),
      {
        name: 'reel.txt',
        mtimeMs: Date.now(),
        text: listOf(
          reel,
          names,
          gainsDb,
          matchedLufs,
          clips.map(({ file }) => kept[files.findIndex((each) => each.file.id === file.id)] as string),
        ),
      },
      ...files.map(
        ({ file }, index): ZipPart => ({
          name: `untouched files/${kept[index]}`,
          mtimeMs: file.modifiedAtMs ?? file.uploadedAtMs,
          path: blobs.pathOf(file.originalSha256 ?? file.sha256),
        }),
      ),
    ];
    const zip = await zipped(parts);
    return new Response(zip.body, { headers: { 'Content-Type': 'application/zip', ...savedAs(`${trial.name} reel.zip`), 'Content-Length': String(zip.sizeBytes) } });
  });
}

/** Phrases by the words of the first recording. @throws ApiError 422 where recordings are of several takes, or no word was found */
async function phrasesIn(store: ReadTables, recordingIds: readonly string[], startS: number, lengthS: number, clips: readonly Described[]): Promise<Span[]> {
  if (new Set(clips.map(({ takeId }) => takeId)).size > 1)
    throw new ApiError(422, 'invalid', 'Only recordings of one take are cut by phrase: in others the words fall at other times. Play clips whole, or choose one take.', {
      order: 'Of several takes',
    });
  const first = await store.recordings.findOneByOrFail({ id: recordingIds[0] as string });
  const phrases = phrasesOf(
    (first.report?.activity.speech ?? []).map(([from, to]): Span => [from - startS, to - startS]),
    lengthS,
  );
  if (phrases.length === 0) throw new ApiError(422, 'invalid', 'No words were found in the first recording, so that it has no phrases. Play clips whole.', { order: 'No words' });
  return phrases;
}

/** The reel as a list to read: when what is heard, and of which file. */
function listOf(reel: Reel, names: readonly string[], gainsDb: readonly number[], matchedLufs: number, files: readonly string[]): string {
  const time = (seconds: number) => `${String(Math.floor(seconds / 60)).padStart(2, '0')}:${(seconds % 60).toFixed(1).padStart(4, '0')}`;
  const lines = [
    `All clips begin at the same syllable and are matched to ${matchedLufs.toFixed(1)} LUFS, by the voice in each.`,
    '',
    ...reel.parts.map((part) => `${time(part.atS)}  ${partName(part, names)}`),
    '',
    'Gain of each, and the file that it is cut from, untouched beside this list:',
    ...names.map((name, clip) => `${name}: ${(gainsDb[clip] ?? 0).toFixed(1)} dB, ${files[clip]}`),
    '',
  ];
  return lines.join('\r\n');
}
