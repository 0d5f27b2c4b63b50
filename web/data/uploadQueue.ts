import type { UploadResult } from '@marvet/core/contract/answers';
import PQueue from 'p-queue';
import { type OnSent, upload } from './upload.ts';

/** A file on its way, and what became of it. */
export interface UploadState {
  id: number;
  name: string;
  /** Part that was sent, 0 to 1. */
  share: number;
  state: 'waiting' | 'running' | 'done' | 'failed';
  /** What is to be told of it; empty while there is nothing. */
  said: string;
  /** It is here, but something has to be looked at: it is a duplicate. */
  asks: boolean;
  /** It is here as this file, and found no take by its name; null where it found one, or is not here yet. */
  unplacedId: string | null;
}

/** Sends one file; rejects with a sentence for the person. */
export type SendFile = (trialId: string, file: File, onSent: OnSent, signal: AbortSignal) => Promise<UploadResult>;

const AT_ONCE = 2;

/**
 * The files of one trial that are being sent, two at a time. It lives outside the views: who leaves Takes
 * and comes back finds it as it is.
 */
export class UploadQueue {
  private uploads: readonly UploadState[] = [];
  private readonly stops = new Map<number, AbortController>();
  private readonly queue = new PQueue({ concurrency: AT_ONCE });
  private readonly listeners = new Set<() => void>();
  private lastId = 0;

  constructor(
    private readonly trialId: string,
    private readonly sendFile: SendFile,
  ) {}

  /** All files, first come first; another list whenever something changed. */
  readonly all = (): readonly UploadState[] => this.uploads;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  add(files: Iterable<File>): void {
    for (const file of files) {
      const id = ++this.lastId;
      this.stops.set(id, new AbortController());
      this.put([...this.uploads, { id, name: file.name, share: 0, state: 'waiting', said: '', asks: false, unplacedId: null }]);
      void this.queue.add(() => this.send(id, file));
    }
  }

  /** Stops a file that waits or runs; one that is here or failed stays as it is. */
  stop(id: number): void {
    this.stops.get(id)?.abort();
    if (this.uploads.some((each) => each.id === id && each.state === 'waiting')) this.change(id, { state: 'failed', said: 'Stopped' });
  }

  /** Takes those that are here or failed off the list. */
  clear(): void {
    this.put(this.uploads.filter((each) => isOpen(each)));
  }

  private async send(id: number, file: File): Promise<void> {
    const signal = (this.stops.get(id) as AbortController).signal;
    if (signal.aborted) return;
    this.change(id, { state: 'running' });
    try {
      const { file: row, matchedBy, duplicate } = await this.sendFile(this.trialId, file, (share, said) => this.change(id, said ? { said } : { share, said }), signal);
      const said = duplicate ? `the same sound is here already as ${row.name}` : matchedBy ? `matched by ${matchedBy}` : 'no take yet';
      this.change(id, { state: 'done', share: 1, said, asks: duplicate, unplacedId: duplicate || matchedBy ? null : row.id });
    } catch (error) {
      this.change(id, { state: 'failed', said: (error as Error).message });
    }
  }

  private change(id: number, patch: Partial<UploadState>): void {
    this.put(this.uploads.map((each) => (each.id === id ? { ...each, ...patch } : each)));
  }

  private put(uploads: readonly UploadState[]): void {
    this.uploads = uploads;
    for (const listener of this.listeners) listener();
  }
}

/** Whether a file is still to come. */
export function isOpen({ state }: UploadState): boolean {
  return state === 'waiting' || state === 'running';
}

/** Those worth a line of their own: what failed first, then what runs, waits, and asks for something. What came well is only counted. */
export function worthTelling(uploads: readonly UploadState[], most: number): UploadState[] {
  const rank = (each: UploadState) => (each.state === 'failed' ? 0 : each.state === 'running' ? 1 : each.asks ? 2 : each.state === 'waiting' ? 3 : 4);
  const told = uploads.length <= most ? [...uploads] : uploads.filter((each) => rank(each) < 4);
  return told.sort((a, b) => rank(a) - rank(b) || a.id - b.id);
}

const queues = new Map<string, UploadQueue>();

/** The queue of a trial; the same one each time. */
export function uploadQueueOf(trialId: string): UploadQueue {
  const known = queues.get(trialId) ?? new UploadQueue(trialId, upload);
  queues.set(trialId, known);
  return known;
}
