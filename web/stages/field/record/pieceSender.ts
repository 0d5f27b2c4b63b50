import type { CaptureDraft } from '@marvet/core/domain/capture';
import { newId } from '@marvet/core/domain/identity';
import type { PieceStore, UnsentCapture } from './pieceStore.ts';

/** What became of a request: done, with what it says; not reached; closed without it; or refused. */
export type Answered<Said> = { ok: Said } | { away: true } | { closed: true } | { refused: string };

/** The server, as far as sound is sent to it. */
export interface CaptureServer {
  begin(trialId: string, draft: CaptureDraft): Promise<Answered<{ pieces: number }>>;
  put(trialId: string, captureId: string, number: number, bytes: Uint8Array<ArrayBuffer>): Promise<Answered<{ pieces: number }>>;
  finish(trialId: string, captureId: string, binned: boolean): Promise<Answered<{ fileId: string | null }>>;
}

const RETRY_MS = 1000;

/**
 * Sends what the store holds, piece by piece in order, until all of it is on the server's disk. A piece is let
 * go only once the server says that it is there. Recordings of before, of a page that was closed, are sent too.
 */
export class PieceSender {
  private sending = false;
  private again = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly begun = new Map<string, number>();
  /** Recordings that go on under another identity, and from which piece on. */
  private readonly moved = new Map<string, { id: string; from: number }>();
  reachable = true;

  constructor(
    private readonly store: PieceStore,
    private readonly server: CaptureServer,
    private readonly onChange: () => void,
  ) {}

  /** Where a piece of a recording belongs now. */
  placeOf(captureId: string, number: number): { captureId: string; number: number } {
    const moved = this.moved.get(captureId);
    return moved ? this.placeOf(moved.id, number - moved.from) : { captureId, number };
  }

  /** Something new is in the store. */
  async kick(): Promise<void> {
    if (this.sending) {
      this.again = true;
      return;
    }
    this.sending = true;
    clearTimeout(this.timer);
    let reached = true;
    try {
      do {
        this.again = false;
        for (const capture of await this.store.captures()) if (capture.refused === null) reached = (await this.send(capture)) && reached;
      } while (this.again && reached);
    } catch (error) {
      console.warn('Sound could not be sent and is tried again', error);
      reached = false;
    } finally {
      this.sending = false;
    }
    this.reachable = reached;
    if (!reached) this.timer = setTimeout(() => void this.kick(), RETRY_MS);
    this.onChange();
  }

  /** @returns false where the server was not reached */
  private async send(capture: UnsentCapture): Promise<boolean> {
    const { id, trialId, draft } = capture;
    if (!this.begun.has(id)) {
      const began = await this.server.begin(trialId, draft);
      if (!('ok' in began)) return this.settle(capture, began);
      this.begun.set(id, began.ok.pieces);
    }
    let next = this.begun.get(id) ?? 0;
    for (let piece = await this.store.pieceFrom(id, next); piece; piece = await this.store.pieceFrom(id, next)) {
      const put = await this.server.put(trialId, id, piece.number, piece.bytes);
      if (!('ok' in put)) {
        // What the server has of it is asked anew.
        this.begun.delete(id);
        return this.settle(capture, put);
      }
      next = piece.number + 1;
      this.begun.set(id, next);
      await this.store.forgetBefore(id, next);
      this.onChange();
    }
    // Known from before its pieces were gone through: what has ended had all of them in the store. What ends later is told of again.
    const { pieces, binned } = capture;
    if (pieces === null) return true;
    const finished = await this.server.finish(trialId, id, binned);
    if (!('ok' in finished)) return this.settle(capture, finished);
    await this.store.forget(id);
    this.begun.delete(id);
    return true;
  }

  private async settle(capture: UnsentCapture, answer: { away: true } | { closed: true } | { refused: string }): Promise<boolean> {
    if ('away' in answer) return false;
    if ('refused' in answer) {
      await this.store.keepCapture({ ...capture, refused: answer.refused });
      return true;
    }
    await this.goOnAsNextPart(capture);
    return true;
  }

  /** The server closed the recording, since nothing came for long: what is left becomes a part of its own. */
  private async goOnAsNextPart(capture: UnsentCapture): Promise<void> {
    const id = newId();
    const first = await this.store.pieceFrom(capture.id, 0);
    if (!first) return this.store.forget(capture.id);
    const from = first.number;
    // From here on pieces are kept under the new identity, while those before are moved there.
    this.moved.set(capture.id, { id, from });
    await this.store.moveOn(capture.id, id, from);
    this.again = true;
  }
}
