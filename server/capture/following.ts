import type { GrownFile, HeardWhileGrowing } from '@marvet/core/measure/measureGrowing';
import type { WorkerPool } from '../jobs/pool.ts';

/** A thread that measures a file while it is written. */
export interface Following {
  /** So many frames are on the disk. */
  grown(frames: number): void;
  /** The file is closed with so many frames. Settles with its report; with null where the thread failed, and it has to be measured anew. */
  ended(frames: number): Promise<GrownFile | null>;
  /** Nobody needs the report. */
  left(): void;
}

export function follow(pool: WorkerPool, path: string, onHeard: (heard: HeardWhileGrowing[]) => void): Following {
  const state = new SharedArrayBuffer(8);
  const shared = new Int32Array(state);
  const stopping = new AbortController();
  const report = pool.run({ kind: 'follow' as const, path, state }, stopping.signal, onHeard).catch((error: unknown) => {
    // The sound is on the disk whatever happens here: it is measured once it is closed.
    if (!stopping.signal.aborted) console.warn('A recording could not be measured while it was made:', error);
    return null;
  });
  const tell = (at: 0 | 1, value: number) => {
    Atomics.store(shared, at, value);
    Atomics.notify(shared, 0);
  };
  return {
    grown: (frames) => tell(0, frames),
    ended(frames) {
      tell(0, frames);
      tell(1, 1);
      return report;
    },
    left: () => stopping.abort(),
  };
}
