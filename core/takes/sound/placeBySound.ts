import { grouped } from '../../domain/grouped.ts';
import { partsAround, type Stretch } from '../partsAround.ts';
import { AROUND_S, LEAST_SHARED_S, sharedS, sharedTimes } from './moments.ts';
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
    const placed = time.flatMap(({ id, startS }) =>
      (byId.get(id)?.parts ?? []).map((part) => ({ likeId: id, takeId: part.takeId, startS: startS + part.startS, endS: startS + part.endS })),
    );
    for (const file of time) {
      if ((byId.get(file.id)?.parts.length ?? 0) > 0) continue;
      const heard = grouped(
        placed.filter((part) => sharedS(file, part) >= LEAST_SHARED_S),
        ({ takeId }) => takeId,
      );
      const takes = [...heard.values()].map((parts) => ({
        ...(parts[0] as (typeof parts)[number]),
        startS: Math.min(...parts.map(({ startS }) => startS)),
        endS: Math.max(...parts.map(({ endS }) => endS)),
      }));
      const parts = partsAround(oneAfterTheOther(takes), file, AROUND_S);
      const confidence = sureness.get(file.id) ?? 0;
      if (parts.length > 0)
        found.set(
          file.id,
          parts.map((part) => ({ ...part, startS: part.startS - file.startS, endS: part.endS - file.startS, confidence })),
        );
    }
  }
  return found;
}

/** Takes in the order of their time; of two that are of one moment the first is meant. */
function oneAfterTheOther<Own extends Stretch>(takes: readonly Own[]): Own[] {
  const kept: Own[] = [];
  for (const take of [...takes].sort((a, b) => a.startS - b.startS)) {
    const before = kept.at(-1);
    if (!before || sharedS(before, take) < LEAST_SHARED_S) kept.push(take);
  }
  return kept;
}
