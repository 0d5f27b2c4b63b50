import type { BlobStore } from '../audio/blobs.ts';
import type { EventBus } from '../jobs/events.ts';
import type { WorkerPool } from '../jobs/pool.ts';
import type { Work } from '../jobs/work.ts';
import type { OpenedStore } from '../store/store.ts';

/** All that the API works with. */
export interface Services {
  store: OpenedStore;
  blobs: BlobStore;
  pool: WorkerPool;
  events: EventBus;
  work: Work;
  /** What was wrong with the data folder at the start, in sentences. */
  troubles: string[];
}
