import { newId } from '@marvet/core/domain/identity';
import { lineOnClock } from '@marvet/core/domain/lineClock';
import type { LogLine } from '@marvet/core/domain/logLine';
import type { LineStore, WaitingLine } from './lineStore.ts';

/** A line before it has its identity and time. */
export type NewLine = LogLine extends infer Line ? (Line extends LogLine ? Omit<Line, 'id' | 'atMs'> : never) : never;

/** A line that the server would not take, and why; it waits to be mended or dropped. */
export interface RefusedLine {
  line: LogLine;
  why: string;
}

/** What became of lines that were sent: not reached, or which of them were refused. */
export type Sent = { reached: false } | { reached: true; refused: { id: string | null; why: string }[]; clockBehindMs: number };

/** By how much this device's clock is behind the server's, kept over visits. */
export interface KeptClock {
  behindMs(): number;
  keep(behindMs: number): void;
}

/** What a sender needs: to hand lines over, and to fetch the takes anew before lines are let go. */
export interface LogTarget {
  /** @param clock what this device's own clock says now, what was added to it when the lines were written, and by how much it is known to be behind */
  send(lines: LogLine[], clock: { sentAtMs: number; addedMs: number; knownMs: number }): Promise<Sent>;
  /** Settles once the takes on the page hold what was sent; rejects where they could not be fetched. */
  refresh(): Promise<void>;
}

const RETRY_MS = 2500;
const BATCH = 200;
/** A clock that is put back by more was wrong by a day or more: its new time counts. */
const LONGEST_BACK_MS = 3_600_000;

/**
 * The log of one trial in this browser. A line is written here first and only then shown; it is sent
 * when the server can be reached, again and again until it is acknowledged. The server counts each
 * once, by its id. A line that it refuses is set aside, and the others go on.
 */
export class FieldLog {
  private waiting: WaitingLine[] = [];
  private listeners = new Set<() => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private sending = false;
  private target: LogTarget | null = null;
  private order = Date.now();
  /** Moment of the newest line that was written here, by this device's own clock. */
  private newestMs = 0;
  reachable = true;
  private lines: readonly LogLine[] = [];
  private aside: readonly RefusedLine[] = [];

  constructor(
    private readonly trialId: string,
    private readonly store: LineStore,
    private readonly clock: KeptClock,
  ) {}

  /** By how much this device's clock is behind the server's, as far as the server has said. */
  get clockBehindMs(): number {
    return this.clock.behindMs();
  }

  /** Takes up what an earlier visit left, and begins to send. Returns how to stop. */
  start(target: LogTarget): () => void {
    this.target = target;
    void this.store.waiting(this.trialId).then((left) => {
      for (const { line, addedMs } of left) this.newestMs = Math.max(this.newestMs, line.atMs - addedMs);
      const known = new Set(this.waiting.map((each) => each.id));
      this.set([...left.filter((each) => !known.has(each.id)), ...this.waiting]);
      void this.flush();
    });
    const online = () => void this.flush();
    window.addEventListener('online', online);
    return () => {
      if (this.target === target) this.target = null;
      clearTimeout(this.timer);
      window.removeEventListener('online', online);
    };
  }

  /** Writes a line down, then shows it, then sends it. Rejects when the browser cannot keep it. */
  async write(line: NewLine): Promise<void> {
    const whole = { ...line, id: newId(), atMs: this.nowMs() } as LogLine;
    const waiting: WaitingLine = { id: whole.id, trialId: this.trialId, order: ++this.order, line: whole, refused: null, addedMs: this.clockBehindMs };
    await this.store.write(waiting);
    this.set([...this.waiting, waiting]);
    void this.flush();
  }

  /** Now, by the server's clock as far as it is known, and after every line before: a clock that is put back a little does not turn the order of the lines round. */
  private nowMs(): number {
    const nowMs = Date.now();
    const backMs = this.newestMs - nowMs;
    this.newestMs = backMs >= 0 && backMs < LONGEST_BACK_MS ? this.newestMs + 1 : nowMs;
    return this.newestMs + this.clockBehindMs;
  }

  /** A line that waits, by the server's clock as it is known now. */
  private onClock({ line, addedMs }: WaitingLine): LogLine {
    return lineOnClock(line, this.clockBehindMs - addedMs);
  }

  /** Sends a refused line once more, as it was mended. */
  async mend(line: LogLine): Promise<void> {
    const mended = this.waiting.map((each) => (each.id === line.id ? { ...each, line, refused: null } : each));
    const own = mended.find((each) => each.id === line.id);
    if (!own) return;
    await this.store.write(own);
    this.set(mended);
    void this.flush();
  }

  /** Lets a refused line go for good. */
  async drop(id: string): Promise<void> {
    await this.store.forget([id]);
    this.set(this.waiting.filter((each) => each.id !== id));
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Lines not yet acknowledged, without those that were refused; the same array until it changes. */
  pending = (): readonly LogLine[] => this.lines;

  /** Lines that the server would not take; the same array until it changes. */
  refused = (): readonly RefusedLine[] => this.aside;

  private set(waiting: WaitingLine[]): void {
    this.waiting = waiting;
    this.lines = waiting.filter((each) => each.refused === null).map((each) => this.onClock(each));
    this.aside = waiting.flatMap((each) => (each.refused === null ? [] : [{ line: each.line, why: each.refused }]));
    for (const listener of this.listeners) listener();
  }

  private async flush(): Promise<void> {
    const { target } = this;
    const open = this.waiting.filter((each) => each.refused === null);
    const [first] = open;
    if (this.sending || !target || !first) return;
    // Lines that were written by one clock go together, as they were written: the server puts them right.
    const others = open.findIndex(({ addedMs }) => addedMs !== first.addedMs);
    const batch = open.slice(0, Math.min(BATCH, others < 0 ? open.length : others));
    this.sending = true;
    clearTimeout(this.timer);
    let reached = false;
    try {
      const clock = { sentAtMs: Date.now(), addedMs: first.addedMs, knownMs: this.clockBehindMs };
      const sent = await target.send(
        batch.map((each) => each.line),
        clock,
      );
      reached = sent.reached;
      if (sent.reached && sent.clockBehindMs !== this.clockBehindMs) this.clock.keep(sent.clockBehindMs);
      if (sent.reached) await this.settle(batch, sent.refused, target);
    } catch (error) {
      // The view was left while a line was on its way: it is sent again, and counts once.
      console.warn('Lines of the field log could not be sent and are tried again', error);
      reached = false;
    } finally {
      this.sending = false;
    }
    this.reachable = reached;
    if (reached) void this.flush();
    else {
      this.set([...this.waiting]);
      this.timer = setTimeout(() => void this.flush(), RETRY_MS);
    }
  }

  private async settle(batch: readonly WaitingLine[], refused: readonly { id: string | null; why: string }[], target: LogTarget): Promise<void> {
    const why = new Map(refused.map((each) => [each.id, each.why]));
    const aside = batch.filter((each) => why.has(each.id)).map((each) => ({ ...each, refused: why.get(each.id) as string }));
    for (const each of aside) await this.store.write(each);
    const taken = new Set(batch.filter((each) => !why.has(each.id)).map((each) => each.id));
    if (taken.size > 0) {
      // Whoever has left the view needs no fresh takes; the next visit asks for them.
      if (this.target === target) await target.refresh();
      await this.store.forget([...taken]);
    }
    this.set(this.waiting.filter((each) => !taken.has(each.id)).map((each) => aside.find((other) => other.id === each.id) ?? each));
  }
}
