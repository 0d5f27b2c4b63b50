import type { AudioFile } from '../../domain/recording.ts';
import { fileTime } from './fileTime.ts';

/** Files that a recorder split while it ran on, in their order, and what tells that they go on in each other. */
export interface SplitFile {
  fileIds: string[];
  by: 'time reference' | 'start times';
}

type Part = Pick<AudioFile, 'id' | 'name' | 'sizeBytes' | 'originalSha256' | 'modifiedAtMs' | 'format'>;

const DAY_S = 86_400;
/** Time references count samples: a recorder that was stopped and started is not back within this. */
const EXACT_S = 0.02;
/** Dates of headers are told to the second, those of cards to two. */
const COARSE_S = 2.1;
/** Where recorders begin another file, in bytes: what a card's file system holds, or a signed size. */
const LARGEST_BYTES = [2 ** 31, 2 ** 32, 2e9, 4e9];
/** A file that was split is so near to that size, as a share of it. */
const NEARLY = 0.02;
/** Files that were split after a while are alike in length to this. */
const SAME_LENGTH_S = 0.5;

/**
 * Recordings of one recorder that lie in several files, since it began another one when the file had become too large or too long:
 * the next begins where the one before ends. A recorder that keeps the last seconds before it is
 * started may begin a file there as well: what its files call different takes are no parts of one recording. Where times are told to the second only, that could be a recorder that
 * was started again at once: then the one before has to be full as well, and the numbers of their names have to count on.
 * @param files of one recorder
 */
export function splitFiles(files: readonly Part[]): SplitFile[] {
  const wave = files.filter((file) => file.originalSha256 === null && !file.format.lossy && fileTime(file) !== null);
  const links = new Map<Part, { after: Part; by: SplitFile['by'] }>();
  const followed = new Map<Part, number>();
  for (const before of wave) {
    const found = wave.flatMap((after) => {
      const by = after === before ? null : goesOnBy(before, after, wave);
      return by ? [{ after, by }] : [];
    });
    // A recorder that writes a file a track splits all of them at one moment: then their names tell which goes on in which.
    const [link, ...others] = found.length > 1 ? found.filter(({ after }) => isNextName(before.name, after.name)) : found;
    if (!link || others.length > 0) continue;
    links.set(before, link);
    followed.set(link.after, (followed.get(link.after) ?? 0) + 1);
  }
  // What two files would go on in is not known to be of either.
  for (const [before, { after }] of links) if ((followed.get(after) ?? 0) > 1 && !isNextName(before.name, after.name)) links.delete(before);
  const afters = new Set([...links.values()].map(({ after }) => after));
  return wave.flatMap((first): SplitFile[] => {
    if (!links.has(first) || afters.has(first)) return [];
    const split: SplitFile = { fileIds: [first.id], by: 'time reference' };
    for (let link = links.get(first); link; link = links.get(link.after)) {
      split.fileIds.push(link.after.id);
      if (link.by === 'start times') split.by = link.by;
    }
    return [split];
  });
}

/** What tells that one file goes on in another; null where nothing does. */
function goesOnBy(before: Part, after: Part, all: readonly Part[]): SplitFile['by'] | null {
  const alike = (['encoding', 'bitDepth', 'sampleRateHz', 'channels'] as const).every((each) => before.format[each] === after.format[each]);
  const sameTake = before.format.scene === after.format.scene && before.format.take === after.format.take;
  if (!alike || !sameTake || Math.abs(gapS(before, after)) > COARSE_S) return null;
  const [from, to] = [before.format.timeReferenceS, after.format.timeReferenceS];
  // Recorders without a clock write a 0 into each of their files.
  if (from !== null && to !== null && (from !== 0 || to !== 0)) return Math.abs(roundTheClock(to - from - before.format.durationS)) <= EXACT_S ? 'time reference' : null;
  return isFull(before, all) && isNextName(before.name, after.name) ? 'start times' : null;
}

function gapS(before: Part, after: Part): number {
  const [from, to] = [fileTime(before), fileTime(after)];
  return from && to ? (to.startMs - from.startMs) / 1000 - before.format.durationS : Number.POSITIVE_INFINITY;
}

/** A difference of times of day, -12 to 12 hours. */
const roundTheClock = (seconds: number) => seconds - DAY_S * Math.round(seconds / DAY_S);

/** It is as large as a file may be, or as long as another of its recorder, and none is longer. */
function isFull({ id, sizeBytes, format }: Part, all: readonly Part[]): boolean {
  if (LARGEST_BYTES.some((most) => sizeBytes <= most && sizeBytes > (1 - NEARLY) * most)) return true;
  const others = all.filter((other) => other.id !== id).map((other) => other.format.durationS);
  return others.some((lengthS) => Math.abs(lengthS - format.durationS) < SAME_LENGTH_S) && others.every((lengthS) => lengthS < format.durationS + SAME_LENGTH_S);
}

/** Whether one name is the other with one of its numbers counted on: `T_0007_2.wav` and `T_0008_2.wav`. */
function isNextName(name: string, next: string): boolean {
  const [parts, nextParts] = [name.split(/(\d+)/), next.split(/(\d+)/)];
  if (parts.length !== nextParts.length) return false;
  // Text and numbers take turns.
  const differing = parts.flatMap((part, index) => (part === nextParts[index] ? [] : [{ isNumber: index % 2 === 1, byOne: Number(nextParts[index]) - Number(part) === 1 }]));
  return differing.length === 1 && differing.every(({ isNumber, byOne }) => isNumber && byOne);
}
