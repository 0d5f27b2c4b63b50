import { In } from 'typeorm';
import type { WorkerPool } from '../jobs/pool.ts';
import type { SessionRow } from '../store/rows.ts';
import type { Store } from '../store/store.ts';
import type { BlobStore } from './blobs.ts';

const MOST_SESSIONS = 3;

/** Clips of the sessions last listened to, in the order of the session's recordings, kept in memory. */
export interface ClipCache {
  clips(session: SessionRow): Promise<Uint8Array[]>;
}

export function openClipCache(store: Store, blobs: BlobStore, pool: WorkerPool): ClipCache {
  const kept = new Map<string, Promise<Uint8Array[]>>();

  async function make(session: SessionRow): Promise<Uint8Array[]> {
    const recordings = await store.recordings.findBy({ id: In(session.recordingIds) });
    const files = await store.files.findBy({ id: In(recordings.map((recording) => recording.fileId)) });
    const sources = session.recordingIds.map((id, place) => {
      const recording = recordings.find((each) => each.id === id);
      const file = files.find((each) => each.id === recording?.fileId);
      if (!recording || !file) throw new Error('A recording of this round is gone from the database');
      return {
        path: blobs.pathOf(file.sha256),
        channel: recording.channelIndex,
        firstWordS: recording.report?.activity.speech[0]?.[0] ?? 0,
        gainDb: session.gainsDb[place] ?? 0,
      };
    });
    // Channels of one file run on one clock; other files, even of one take, start when they were started.
    return pool.clips({ sources, sameClock: new Set(sources.map((source) => source.path)).size === 1 });
  }

  return {
    clips(session) {
      let clips = kept.get(session.id);
      if (!clips) {
        clips = make(session);
        // A failure is told to whoever waits and not kept, so that the next try starts afresh.
        clips.catch(() => kept.delete(session.id));
      } else kept.delete(session.id);
      kept.set(session.id, clips);
      const [oldest] = kept.keys();
      if (kept.size > MOST_SESSIONS && oldest !== undefined) kept.delete(oldest);
      return clips;
    },
  };
}
