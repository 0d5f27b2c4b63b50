import { sharedTimes } from '@marvet/core/takes/sound/moments';
import type { SoundLink } from '@marvet/core/takes/sound/sameSound';
import type { SoundPrint } from '@marvet/core/takes/sound/soundPrint';
import { LRUCache } from 'lru-cache';
import type { BlobStore } from '../audio/blobs.ts';
import type { EventBus } from './events.ts';
import type { WorkerPool } from './pool.ts';
import type { AlikeTask, PrintedFile } from './tasks.ts';

/** A file that is listened to, and when it ran by its recorder's own clock, where its header says so. */
export interface HeardFile {
  id: string;
  sha256: string;
  recorder: string;
  startMs: number | null;
  lengthS: number;
  /** It lies in its take already: it is listened to only for what others have in common with it. */
  placed: boolean;
}

/** What was found so far by listening to files. */
export interface HeardSoFar {
  links: SoundLink[];
  /** Pairs that were listened to, of how many; none of none where they are too many. */
  looked: number;
  of: number;
  /** More pairs than can be listened to while somebody waits: nothing was. */
  tooMany: boolean;
  /** Files that could not be listened to, and why. */
  troubles: { fileId: string; why: string }[];
}

/** Finds which files are of the same moment, in the background and one step at a time, so that it never holds up what somebody waits for. */
export interface Sounds {
  /** What is known of these files; the rest is looked into, and told when there is more. */
  of(trialId: string, files: readonly HeardFile[]): HeardSoFar;
  /** Settles when nothing is being looked into. */
  idle(): Promise<void>;
  close(): Promise<void>;
}

/** Prints of some 40 hours; what falls out is taken again when it is asked for. */
const KEPT_BYTES = 128 << 20;
/** Some ten minutes of listening. */
const MOST_PAIRS = 20_000;
/** So many answers on pairs are kept. */
const KEPT_PAIRS = 50_000;
const TOLD_EVERY_MS = 1500;

/** The same whichever of the two is named first. */
const pairKey = (a: HeardFile, b: HeardFile) => [a.sha256, b.sha256].sort().join(' ');

export function openSounds({ blobs, pool, events }: { blobs: BlobStore; pool: WorkerPool; events: EventBus }): Sounds {
  const prints = new LRUCache<string, SoundPrint>({ maxSize: KEPT_BYTES, sizeCalculation: ({ bands }) => 1 + bands.reduce((sum, curve) => sum + curve.byteLength, 0) });
  /** The link of two files, which are named by their bytes in it; `none` where they have nothing in common. */
  const judged = new LRUCache<string, SoundLink | 'none'>({ max: KEPT_PAIRS });
  const troubles = new Map<string, string>();
  const wanted = new Map<string, readonly HeardFile[]>();
  const abort = new AbortController();
  let working: Promise<void> | null = null;

  async function printOf({ sha256 }: HeardFile): Promise<SoundPrint | null> {
    const known = prints.get(sha256);
    if (known || troubles.has(sha256)) return known ?? null;
    try {
      const print = await pool.run({ kind: 'print' as const, path: blobs.pathOf(sha256) }, abort.signal);
      prints.set(sha256, print);
      return print;
    } catch (error) {
      if (abort.signal.aborted) throw error;
      troubles.set(sha256, (error as Error).message);
      return null;
    }
  }

  async function linksOf({ sha256 }: HeardFile, file: PrintedFile, others: AlikeTask['others']): Promise<SoundLink[]> {
    try {
      return await pool.run({ kind: 'alike' as const, file, others }, abort.signal);
    } catch (error) {
      if (abort.signal.aborted) throw error;
      // One of them went away meanwhile, perhaps: what cannot be read is told, and the others go on.
      troubles.set(sha256, (error as Error).message);
      return [];
    }
  }

  /** Listens to one file against those that are open of it. @returns whether there was anything to do */
  async function step(files: readonly HeardFile[]): Promise<boolean> {
    const open = pairsOf(files).filter(({ other, file }) => !isJudged(other, file));
    const file = open[0]?.file;
    if (!file) return false;
    const against = open.filter((pair) => pair.file === file).map(({ other }) => other);
    const own = await printOf(file);
    // Where it cannot be read itself there is nothing to listen for.
    if (!own) return true;
    const groupOf = groups(files);
    const printed = (each: HeardFile, print: SoundPrint) => ({ id: each.sha256, path: blobs.pathOf(each.sha256), print });
    const others: AlikeTask['others'] = [];
    for (const other of against) {
      const print = await printOf(other);
      if (print) others.push({ ...printed(other, print), group: groupOf.get(other.sha256) ?? other.sha256 });
    }
    const links = others.length > 0 ? await linksOf(file, printed(file, own), others) : [];
    const found = new Map(links.map((link) => [link.b, link]));
    for (const other of against) judged.set(pairKey(other, file), found.get(other.sha256) ?? 'none');
    return true;
  }

  /** Files that lie on one time with surety, by the first of them. */
  function groups(files: readonly HeardFile[]): Map<string, string> {
    const sure = pairsOf(files).flatMap(({ other, file }) => {
      const link = judged.get(pairKey(other, file));
      return link && link !== 'none' && link.exact ? [link] : [];
    });
    const times = sharedTimes(
      files.map(({ sha256, lengthS }) => ({ id: sha256, lengthS })),
      sure,
    );
    return new Map(times.flatMap((time) => time.map(({ id }) => [id, time[0]?.id ?? id])));
  }

  const isJudged = (a: HeardFile, b: HeardFile) => judged.has(pairKey(a, b)) || troubles.has(a.sha256) || troubles.has(b.sha256);

  async function workOff(): Promise<void> {
    while (wanted.size > 0 && !abort.signal.aborted) {
      const [[trialId, files]] = [...wanted] as [[string, readonly HeardFile[]]];
      let toldMs = Date.now();
      while (wanted.get(trialId) === files && (await step(files))) {
        if (Date.now() - toldMs < TOLD_EVERY_MS) continue;
        toldMs = Date.now();
        events.tell(trialId, { type: 'records', tags: ['Sounds'], page: null });
      }
      if (wanted.get(trialId) === files) wanted.delete(trialId);
      events.tell(trialId, { type: 'records', tags: ['Sounds'], page: null });
    }
  }

  function begin(): void {
    working ??= workOff()
      .catch((error: unknown) => {
        wanted.clear();
        if (!abort.signal.aborted) console.error('Files could not be listened to:', error);
      })
      .finally(() => {
        working = null;
        // Asked for while the last of it was being told.
        if (wanted.size > 0 && !abort.signal.aborted) begin();
      });
  }

  return {
    of(trialId, files) {
      const open = files.filter(({ placed }) => !placed).length;
      if (open * (files.length - open) + (open * (open - 1)) / 2 > MOST_PAIRS) return { links: [], looked: 0, of: 0, tooMany: true, troubles: [] };
      const pairs = pairsOf(files);
      const looked = pairs.filter(({ other, file }) => isJudged(other, file)).length;
      if (looked < pairs.length && !abort.signal.aborted) {
        wanted.set(trialId, files);
        begin();
      }
      const links = pairs.flatMap(({ other, file }): SoundLink[] => {
        const link = judged.get(pairKey(other, file));
        if (!link || link === 'none') return [];
        const [a, b] = link.a === file.sha256 ? [file.id, other.id] : [other.id, file.id];
        return [{ ...link, a, b }];
      });
      const silent = files.flatMap(({ id, sha256 }) => (troubles.has(sha256) ? [{ fileId: id, why: troubles.get(sha256) as string }] : []));
      return { links, looked, of: pairs.length, tooMany: false, troubles: silent };
    },
    async idle() {
      while (working) await working;
    },
    async close() {
      abort.abort();
      await working;
    },
  };
}

/** Every two files of which one is in no take and which can be of one moment, each pair once. */
function pairsOf(files: readonly HeardFile[]): { other: HeardFile; file: HeardFile }[] {
  const pairs: { other: HeardFile; file: HeardFile }[] = [];
  // By those that are open: thousands that are in place are not gone through one against the other.
  for (const [index, file] of files.filter(({ placed }) => !placed).entries()) {
    let openBefore = 0;
    for (const other of files) {
      if (!other.placed && openBefore++ >= index) continue;
      if (mayMeet(other, file)) pairs.push({ other, file });
    }
  }
  return pairs;
}

/** Whether two files can be of one moment: one recorder does not write two at once. */
function mayMeet(a: HeardFile, b: HeardFile): boolean {
  if (a.recorder !== b.recorder || a.startMs === null || b.startMs === null) return true;
  return Math.min(a.startMs + 1000 * a.lengthS, b.startMs + 1000 * b.lengthS) > Math.max(a.startMs, b.startMs);
}
