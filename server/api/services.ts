import type { BlobStore } from '../audio/blobs.ts';
import type { EventBus } from '../jobs/events.ts';
import type { Measuring } from '../jobs/measuring.ts';
import type { WorkerPool } from '../jobs/pool.ts';
import type { Store } from '../store/store.ts';

/** All that the API works with. */
export interface Services {
  store: Store;
  blobs: BlobStore;
  pool: WorkerPool;
  events: EventBus;
  measuring: Measuring;
}
