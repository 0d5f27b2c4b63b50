import type { FilePlace } from '@marvet/core/contract/places';
import { grouped } from '@marvet/core/domain/grouped';
import { SURE } from '@marvet/core/takes/places/placeByClock';
import { placesBySound, type SoundPlace } from '@marvet/core/takes/sound/placeBySound';
import type { AudioFileRow } from '../store/records.ts';
import { headerStartMs } from './looseFiles.ts';
import { recorderNameOf } from './recorderTies.ts';
import type { Services } from './services.ts';

type HeardRow = Pick<AudioFileRow, 'id' | 'name' | 'sha256' | 'recorder' | 'format' | 'modifiedAtMs'>;
/** A take that a file sounds like, and the name of the file that it was heard in as well. */
type NamedPlace = SoundPlace & { likeName: string };

/** Where files that lie in no take belong by what sounds in them, as far as they were listened to, and what was heard. */
export async function heardPlaces({ store, sounds }: Pick<Services, 'store' | 'sounds'>, trialId: string, files: readonly HeardRow[]) {
  const rows = await store.query<{ fileId: string; takeId: string; startS: number | null; endS: number | null }>(
    'SELECT DISTINCT "fileId", "takeId", "startS", "endS" FROM "recording" WHERE "trialId" = ? AND "takeId" IS NOT NULL',
    [trialId],
  );
  const parts = grouped(rows, ({ fileId }) => fileId);
  const names = new Map(files.map(({ id, name }) => [id, name]));
  const heard = sounds.of(
    trialId,
    files.map((file) => ({
      id: file.id,
      sha256: file.sha256,
      recorder: recorderNameOf(file),
      startMs: headerStartMs(file),
      lengthS: file.format.durationS,
      placed: parts.has(file.id),
    })),
  );
  const sounded = files.map(({ id, format: { durationS } }) => ({
    id,
    lengthS: durationS,
    parts: (parts.get(id) ?? []).map(({ takeId, startS, endS }) => ({ takeId, startS: startS ?? 0, endS: endS ?? durationS })),
  }));
  const places = new Map(
    [...placesBySound(sounded, heard.links)].map(([id, own]) => [id, own.map((place): NamedPlace => ({ ...place, likeName: names.get(place.likeId) ?? '' }))]),
  );
  return { ...heard, places };
}

/**
 * A place as the clock has it, with what sounds in the file. Sound is surer than a clock that is not sure; a clock that is sure of
 * another take is contradicted, and then neither is sure.
 */
export function withSound(place: FilePlace, heard: readonly NamedPlace[] | undefined): FilePlace {
  const [first] = heard ?? [];
  if (!first || !heard || place.placed) return place;
  const like = { name: first.likeName, takeId: first.takeId };
  const clockSays = place.confidence > SURE && place.takeId !== null && place.over.length === 0 ? place.takeId : null;
  if (clockSays !== null && !heard.some(({ takeId }) => takeId === clockSays)) return { ...place, confidence: 1 - first.confidence, like };
  const cuts = heard.map(({ takeId, startS, endS }) => ({ takeId, startS, endS, logStartS: null, cutOff: null }));
  const over = heard.length > 1 ? heard.map(({ takeId }) => takeId) : [];
  return { ...place, takeId: first.takeId, confidence: Math.max(first.confidence, clockSays === first.takeId ? place.confidence : 0), others: [], over, cuts, by: 'sound', like };
}
