import { In } from 'typeorm';
import type { WorkerPool } from '../jobs/pool.ts';
import type { RoundRow } from '../store/rows.ts';
import type { Store } from '../store/store.ts';
import type { BlobStore } from './blobs.ts';

const MOST_ROUNDS = 3;

/** Clips of the rounds last listened to, in the order of the round's recordings, kept in memory. */
export interface ClipCache {
  clips(round: RoundRow): Promise<Uint8Array[]>;
}

export function openClipCache(store: Store, blobs: BlobStore, pool: WorkerPool): ClipCache {
  const kept = new Map<string, Promise<Uint8Array[]>>();

  async function make(round: RoundRow): Promise<Uint8Array[]> {
    const recordings = await store.recordings.findBy({ id: In(round.recordingIds) });
    const files = await store.files.findBy({ id: In(recordings.map((recording) => recording.fileId)) });
    const sources = round.recordingIds.map((id, place) => {
      const recording = recordings.find((each) => each.id === id);
      const file = files.find((each) => each.id === recording?.fileId);
      if (!recording || !file) throw new Error('A recording of this round is gone from the database');
      return {
        path: blobs.pathOf(file.sha256),
        channel: recording.channelIndex,
        firstWordS: recording.report?.activity.speech[0]?.[0] ?? 0,
        gainDb: round.gainsDb[place] ?? 0,
      };
    });
    // Channels of one file run on one clock; other files, even of one take, start when they were started.
    return pool.clips({ sources, sameClock: new Set(sources.map((source) => source.path)).size === 1 });
  }

  return {
    clips(round) {
      let clips = kept.get(round.id);
      if (!clips) {
        clips = make(round);
        // A failure is told to whoever waits and not kept, so that the next try starts afresh.
        clips.catch(() => kept.delete(round.id));
      } else kept.delete(round.id);
      kept.set(round.id, clips);
      const [oldest] = kept.keys();
      if (kept.size > MOST_ROUNDS && oldest !== undefined) kept.delete(oldest);
      return clips;
    },
  };
}
