import { partsAround, type Stretch } from '../partsAround.ts';
import type { SoundLink } from './sameSound.ts';

/** A file on the time that it shares with others. */
export interface Lying extends Stretch {
  id: string;
}

/** Files that lie on one time, by what sounds in them. */
export type SharedTime = Lying[];

/**
 * Lays files on shared times by what links them, the surest links first. Of links that lead round in a circle the surest count.
 * @returns every file once; one that nothing links lies alone, from 0
 */
export function sharedTimes(files: readonly { id: string; lengthS: number }[], links: readonly SoundLink[]): SharedTime[] {
  /** Where each file starts on the time of its group, and whose group that is. */
  const placed = new Map(files.map(({ id }) => [id, { group: id, startS: 0 }]));
  const members = new Map(files.map(({ id }) => [id, [id]]));
  for (const { a, b, lagS } of [...links].sort((x, y) => y.confidence - x.confidence)) {
    const [one, other] = [placed.get(a), placed.get(b)];
    if (!one || !other || one.group === other.group) continue;
    // A moment t of a is at t + lagS of b: b starts lagS before a.
    const shiftS = one.startS - lagS - other.startS;
    const moving = members.get(other.group) as string[];
    members.delete(other.group);
    for (const id of moving) {
      const at = placed.get(id) as { group: string; startS: number };
      placed.set(id, { group: one.group, startS: at.startS + shiftS });
    }
    (members.get(one.group) as string[]).push(...moving);
  }
  const lengths = new Map(files.map(({ id, lengthS }) => [id, lengthS]));
  return [...members.values()].map((ids) =>
    ids
      .map((id) => {
        const { startS } = placed.get(id) as { startS: number };
        return { id, startS, endS: startS + (lengths.get(id) ?? 0) };
      })
      .sort((x, y) => x.startS - y.startS),
  );
}

/** A moment at which something was recorded by one file or several, and the part of each that is of it. */
export interface Moment {
  parts: Lying[];
}

/** Files that overlap by less are not of one moment. */
export const LEAST_SHARED_S = 1;
/** A file that ran on over several moments is of each with this much before and after. */
export const AROUND_S = 2;

/**
 * The moments of a shared time: files that overlap are of one. A file that runs on over several moments of the others, as a camera
 * or a recorder that is never stopped does, does not make one of them: it is of each, with the part that it has of it.
 */
export function momentsOf(time: SharedTime): Moment[] {
  const runsOn = new Set<string>();
  // Shorter ones first: two that ran on side by side both did.
  for (const file of [...time].sort((a, b) => a.endS - a.startS - (b.endS - b.startS))) {
    const lengthS = file.endS - file.startS;
    const shorter = time.filter((other) => other.endS - other.startS < lengthS && !runsOn.has(other.id) && sharedS(file, other) >= LEAST_SHARED_S);
    if (clusters(shorter).length > 1) runsOn.add(file.id);
  }
  const moments = clusters(time.filter(({ id }) => !runsOn.has(id)));
  const spans = moments.map((files) => ({ startS: Math.min(...files.map(({ startS }) => startS)), endS: Math.max(...files.map(({ endS }) => endS)) }));
  const running = time.filter(({ id }) => runsOn.has(id)).map((file) => ({ file, parts: partsAround(spans, file, AROUND_S) }));
  return moments.map((files, index) => {
    const span = spans[index] as Stretch;
    const around = running.flatMap(({ file, parts }): Lying[] => (sharedS(file, span) < LEAST_SHARED_S ? [] : [{ id: file.id, ...(parts[index] as Stretch) }]));
    return { parts: [...files, ...around] };
  });
}

/** How long two stretches run together; less than nothing is how far they lie apart. */
export const sharedS = (a: Stretch, b: Stretch) => Math.min(a.endS, b.endS) - Math.max(a.startS, b.startS);

/** Files that overlap, each with any other of its cluster, in the order of their start. */
function clusters(files: readonly Lying[]): Lying[][] {
  const found: Lying[][] = [];
  let endS = Number.NEGATIVE_INFINITY;
  for (const file of [...files].sort((a, b) => a.startS - b.startS)) {
    if (found.length > 0 && endS - file.startS >= Math.min(LEAST_SHARED_S, (file.endS - file.startS) / 2)) found.at(-1)?.push(file);
    else found.push([file]);
    endS = Math.max(endS, file.endS);
  }
  return found;
}
