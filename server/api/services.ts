import type { BlobStore } from '../audio/blobs.ts';
import type { Captures } from '../capture/captures.types.ts';
import type { DeviceHub } from '../devices/hub.ts';
import type { StandIns } from '../devices/standIns/standIns.ts';
import type { EventBus } from '../jobs/events.ts';
import type { WorkerPool } from '../jobs/pool.ts';
import type { Sounds } from '../jobs/sounds.ts';
import type { Work } from '../jobs/work.ts';
import type { OpenedStore } from '../store/store.ts';
import type { KeptVerdicts } from './keptVerdicts.ts';

/** All that the API works with. */
export interface Services {
  store: OpenedStore;
  blobs: BlobStore;
  pool: WorkerPool;
  events: EventBus;
  work: Work;
  /** Which files are of the same moment, by what sounds in them. */
  sounds: Sounds;
  verdicts: KeptVerdicts;
  captures: Captures;
  /** Threads that listen along while something is recorded. */
  livePool: WorkerPool;
  devices: DeviceHub;
  standIns: StandIns;
  /** What was wrong with the data folder at the start, in sentences. */
  troubles: string[];
}
