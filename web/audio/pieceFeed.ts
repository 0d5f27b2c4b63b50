import type { SwitcherClip } from './switcherMessages.ts';
import { LEAST_PIECES, type Standing, wantedPieces } from './wantedPieces.ts';

const AT_ONCE = 2;
const TRIES = 4;
const AGAIN_MS = 500;

/** Clips that come in pieces. */
export interface PiecesToFeed {
  clips: number;
  frames: number;
  pieceFrames: number;
  /** Bytes of one piece of all clips. */
  pieceBytes: number;
  fetchPiece(piece: number, signal: AbortSignal): Promise<readonly SwitcherClip[]>;
}

/** What is fed: it takes pieces, and forgets them. */
export interface Fed {
  take(piece: number, clips: readonly SwitcherClip[]): void;
  drop(piece: number): void;
  /** A piece cannot be had. */
  failed(error: Error): void;
}

/** Refused for good: asked again it is refused again. */
export class Refused extends Error {}

/**
 * Keeps the pieces at hand that listening needs next, within an amount of memory that does not grow with the length of the clips: fetches
 * ahead, and has forgotten what is furthest away.
 */
export class PieceFeed {
  private readonly held = new Set<number>();
  private readonly fetching = new Set<number>();
  private readonly leaving = new AbortController();
  private readonly room: number;
  private standing: Standing;

  constructor(
    private readonly of: PiecesToFeed,
    private readonly fed: Fed,
    budgetBytes: number,
  ) {
    const pieces = Math.ceil(of.frames / of.pieceFrames);
    this.room = Math.max(LEAST_PIECES, Math.floor(budgetBytes / of.pieceBytes));
    this.standing = { at: 0, loop: [0, pieces - 1], pieces };
  }

  /** A piece that is there already. */
  has(piece: number, clips: readonly SwitcherClip[]): void {
    this.held.add(piece);
    this.fed.take(piece, clips);
  }

  /** Listening stands at a frame. */
  at(frame: number): void {
    const at = Math.min(this.standing.pieces - 1, Math.floor(frame / this.of.pieceFrames));
    if (at === this.standing.at) return;
    this.standing = { ...this.standing, at };
    this.go();
  }

  /** The loop goes from one frame to another. */
  loop(startFrame: number, endFrame: number): void {
    const piece = (frame: number) => Math.max(0, Math.min(this.standing.pieces - 1, Math.floor(frame / this.of.pieceFrames)));
    const loop = [piece(startFrame), piece(Math.max(startFrame, endFrame - 1))] as const;
    this.standing = { ...this.standing, loop, at: Math.max(loop[0], Math.min(loop[1], this.standing.at)) };
    this.go();
  }

  /** Fetches what is needed most and is not there. */
  go(): void {
    if (this.leaving.signal.aborted) return;
    const wanted = wantedPieces(this.standing, this.room);
    for (const piece of wanted) {
      if (this.fetching.size >= AT_ONCE) return;
      if (this.held.has(piece) || this.fetching.has(piece)) continue;
      this.fetching.add(piece);
      void this.fetched(piece, 1);
    }
  }

  private async fetched(piece: number, attempt: number): Promise<void> {
    const { signal } = this.leaving;
    try {
      const clips = await this.of.fetchPiece(piece, signal);
      if (signal.aborted) return;
      this.fetching.delete(piece);
      const wanted = wantedPieces(this.standing, this.room);
      // Listening may have gone elsewhere meanwhile.
      if (wanted.includes(piece)) {
        this.makeRoom(wanted);
        this.has(piece, clips);
      }
      this.go();
    } catch (error) {
      if (signal.aborted) return;
      if (attempt >= TRIES || error instanceof Refused) this.fed.failed(error as Error);
      else setTimeout(() => void this.fetched(piece, attempt + 1), AGAIN_MS * 2 ** (attempt - 1));
    }
  }

  /** Before a piece is taken in, what is not wanted any more goes. */
  private makeRoom(wanted: readonly number[]): void {
    for (const piece of this.held) {
      if (this.held.size < this.room) return;
      if (wanted.includes(piece)) continue;
      this.held.delete(piece);
      this.fed.drop(piece);
    }
  }

  close(): void {
    this.leaving.abort();
  }
}
