import type { CaptureDraft } from '@marvet/core/domain/capture';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** A recording that this browser has not handed over wholly. */
export interface UnsentCapture {
  id: string;
  trialId: string;
  draft: CaptureDraft;
  /** How many pieces it has in all; null while it goes on. */
  pieces: number | null;
  /** Its start was an accident: it goes to the bin. */
  binned: boolean;
  /** Why the server will not have it; null while it has not refused it. */
  refused: string | null;
}

interface Piece {
  captureId: string;
  number: number;
  bytes: Uint8Array<ArrayBuffer>;
}

interface Schema extends DBSchema {
  captures: { key: string; value: UnsentCapture };
  pieces: { key: [string, number]; value: Piece };
}

/** What is left of a recording from a piece on, as a part of its own. */
export const nextPart = (capture: UnsentCapture, id: string, from: number): UnsentCapture => ({
  ...capture,
  id,
  draft: { ...capture.draft, id, part: capture.draft.part + 1 },
  pieces: capture.pieces === null ? null : capture.pieces - from,
});

/** Where sound waits until it is on the server's disk. */
export interface PieceStore {
  keepCapture(capture: UnsentCapture): Promise<void>;
  captures(): Promise<UnsentCapture[]>;
  keepPiece(piece: Piece): Promise<void>;
  /** The first piece from a number on; null where there is none. */
  pieceFrom(captureId: string, number: number): Promise<Piece | null>;
  /** The number of the last piece that waits; null where none does. */
  lastPiece(captureId: string): Promise<number | null>;
  /** Lets pieces before a number go: they are on the disk. */
  forgetBefore(captureId: string, number: number): Promise<void>;
  forget(captureId: string): Promise<void>;
  /** Makes a recording the next part of itself, its pieces from a number on counting from 0 there: all of it or nothing. */
  moveOn(captureId: string, id: string, from: number): Promise<void>;
  /** How many pieces wait, of all recordings. */
  count(): Promise<number>;
}

/** Sound in this browser's own database. */
export function browserPieces(): PieceStore {
  let opened: Promise<IDBPDatabase<Schema>> | null = null;
  const database = () => {
    opened ??= openDB<Schema>('marvet-captures', 1, {
      upgrade(db) {
        db.createObjectStore('captures', { keyPath: 'id' });
        db.createObjectStore('pieces', { keyPath: ['captureId', 'number'] });
      },
    });
    return opened;
  };
  const of = (captureId: string, from = 0, to = Number.MAX_SAFE_INTEGER) => IDBKeyRange.bound([captureId, from], [captureId, to], false, true);
  return {
    async keepCapture(capture) {
      await (await database()).put('captures', capture);
    },
    captures: async () => (await database()).getAll('captures'),
    async keepPiece(piece) {
      await (await database()).put('pieces', piece);
    },
    async pieceFrom(captureId, number) {
      const cursor = await (await database()).transaction('pieces').store.openCursor(of(captureId, number));
      return cursor?.value ?? null;
    },
    async lastPiece(captureId) {
      const cursor = await (await database()).transaction('pieces').store.openCursor(of(captureId), 'prev');
      return cursor?.value.number ?? null;
    },
    async forgetBefore(captureId, number) {
      await (await database()).delete('pieces', of(captureId, 0, number));
    },
    async forget(captureId) {
      const transaction = (await database()).transaction(['captures', 'pieces'], 'readwrite');
      await Promise.all([transaction.objectStore('captures').delete(captureId), transaction.objectStore('pieces').delete(of(captureId))]);
      await transaction.done;
    },
    async moveOn(captureId, id, from) {
      const transaction = (await database()).transaction(['captures', 'pieces'], 'readwrite');
      const pieces = transaction.objectStore('pieces');
      for (let cursor = await pieces.openCursor(of(captureId)); cursor; cursor = await cursor.continue()) {
        await pieces.put({ ...cursor.value, captureId: id, number: cursor.value.number - from });
        await cursor.delete();
      }
      const captures = transaction.objectStore('captures');
      const before = await captures.get(captureId);
      if (before) await captures.put(nextPart(before, id, from));
      await captures.delete(captureId);
      await transaction.done;
    },
    count: async () => (await database()).count('pieces'),
  };
}
