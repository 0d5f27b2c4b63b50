import { sharedTimes } from './moments.ts';
import type { SoundLink } from './sameSound.ts';

/** A file, and the parts of it that lie in takes already; none where it lies in none. */
export interface SoundedFile {
  id: string;
  lengthS: number;
  parts: readonly { takeId: string; startS: number; endS: number }[];
}

/** A take that a file sounds like, and where in the file that lies. */
export interface SoundPlace {
  takeId: string;
  startS: number;
  endS: number;
  /** The file in place that it is heard in as well. */
  likeId: string;
  confidence: number;
}

/** So much is left about what lies in a take already: another recorder ran longer. */
const AROUND_S = 2;
const LEAST_SHARED_S = 1;

/**
 * Takes of files that lie in none, by what sounds in them: those of the files in place that hold the same moment, straight or by way of
 * others. A file that ran on over several has them all, each with its part, in the order of their time.
 */
export function placesBySound(files: readonly SoundedFile[], links: readonly SoundLink[]): Map<string, SoundPlace[]> {
  const byId = new Map(files.map((file) => [file.id, file]));
  const sureness = new Map<string, number>();
  for (const { a, b, confidence } of links) for (const id of [a, b]) sureness.set(id, Math.max(confidence, sureness.get(id) ?? 0));
  const found = new Map<string, SoundPlace[]>();
  for (const time of sharedTimes(files, links)) {
    const placed = time.flatMap(({ id, startS }) => (byId.get(id)?.parts ?? []).map((part) => ({ ...part, id, fromS: startS + part.startS, toS: startS + part.endS })));
    for (const { id, startS, endS } of time) {
      if ((byId.get(id)?.parts.length ?? 0) > 0) continue;
      const places = new Map<string, SoundPlace>();
      for (const part of placed) {
        if (Math.min(endS, part.toS) - Math.max(startS, part.fromS) < LEAST_SHARED_S) continue;
        const known = places.get(part.takeId);
        const own = { startS: Math.max(0, part.fromS - AROUND_S - startS), endS: Math.min(endS - startS, part.toS + AROUND_S - startS) };
        places.set(part.takeId, {
          takeId: part.takeId,
          startS: Math.min(own.startS, known?.startS ?? own.startS),
          endS: Math.max(own.endS, known?.endS ?? own.endS),
          likeId: known?.likeId ?? part.id,
          confidence: sureness.get(id) ?? 0,
        });
      }
      if (places.size > 0) found.set(id, apart([...places.values()].sort((a, b) => a.startS - b.startS)));
    }
  }
  return found;
}

/** Parts that overlap by what is left about them meet in the middle; of two takes of one moment the first is meant. */
function apart(places: readonly SoundPlace[]): SoundPlace[] {
  const kept: SoundPlace[] = [];
  for (const place of places) {
    const before = kept.at(-1);
    if (before && place.startS < before.endS - 2 * AROUND_S - LEAST_SHARED_S) continue;
    if (before && place.startS < before.endS) {
      const middleS = (place.startS + before.endS) / 2;
      before.endS = middleS;
      kept.push({ ...place, startS: middleS });
    } else kept.push(place);
  }
  return kept;
}
