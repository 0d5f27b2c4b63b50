import { newId } from '@marvet/core/domain/identity';
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
export type Sent = { reached: false } | { reached: true; refused: { id: string | null; why: string }[] };

/** What a sender needs: to hand lines over, and to fetch the takes anew before lines are let go. */
export interface LogTarget {
  send(lines: LogLine[]): Promise<Sent>;
  /** Settles once the takes on the page hold what was sent; rejects where they could not be fetched. */
  refresh(): Promise<void>;
}

const RETRY_MS = 2500;
const BATCH = 200;

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
  reachable = true;
  private lines: readonly LogLine[] = [];
  private aside: readonly RefusedLine[] = [];

  constructor(
    private readonly trialId: string,
    private readonly store: LineStore,
  ) {}

  /** Takes up what an earlier visit left, and begins to send. Returns how to stop. */
  start(target: LogTarget): () => void {
    this.target = target;
    void this.store.waiting(this.trialId).then((left) => {
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
    const whole = { ...line, id: newId(), atMs: Date.now() } as LogLine;
    const waiting: WaitingLine = { id: whole.id, trialId: this.trialId, order: ++this.order, line: whole, refused: null };
    await this.store.write(waiting);
    this.set([...this.waiting, waiting]);
    void this.flush();
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
    this.lines = waiting.filter((each) => each.refused === null).map((each) => each.line);
    this.aside = waiting.flatMap((each) => (each.refused === null ? [] : [{ line: each.line, why: each.refused }]));
    for (const listener of this.listeners) listener();
  }

  private async flush(): Promise<void> {
    const { target } = this;
    const batch = this.waiting.filter((each) => each.refused === null).slice(0, BATCH);
    if (this.sending || !target || batch.length === 0) return;
    this.sending = true;
    clearTimeout(this.timer);
    let reached = false;
    try {
      const sent = await target.send(batch.map((each) => each.line));
      reached = sent.reached;
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
