import { newId } from '@marvet/core/domain/identity';
import type { LogLine } from '@marvet/core/domain/logLine';
import { forgetLines, type WaitingLine, waitingLines, writeLine } from './lineStore.ts';

/** A line before it has its identity and time. */
export type NewLine = LogLine extends infer Line ? (Line extends LogLine ? Omit<Line, 'id' | 'atMs'> : never) : never;

/** What a sender needs: to hand lines over, and to fetch the takes anew before lines are let go. */
export interface LogTarget {
  /** Settles once the server has the lines; false when it cannot be reached. */
  send(lines: LogLine[]): Promise<boolean>;
  /** Settles once the takes on the page hold what was sent. */
  refresh(): Promise<void>;
}

const RETRY_MS = 2500;
const BATCH = 200;

/**
 * The log of one trial in this browser. A line is written here first and only then shown; it is sent
 * when the server can be reached, again and again until it is acknowledged. The server counts each
 * once, by its id.
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

  constructor(private readonly trialId: string) {}

  /** Takes up what an earlier visit left, and begins to send. Returns how to stop. */
  start(target: LogTarget): () => void {
    this.target = target;
    void waitingLines(this.trialId).then((left) => {
      const known = new Set(this.waiting.map((each) => each.id));
      this.set([...left.filter((each) => !known.has(each.id)), ...this.waiting]);
      void this.flush();
    });
    const online = () => void this.flush();
    window.addEventListener('online', online);
    return () => {
      this.target = null;
      clearTimeout(this.timer);
      window.removeEventListener('online', online);
    };
  }

  /** Writes a line down, then shows it, then sends it. Rejects when the browser cannot keep it. */
  async write(line: NewLine): Promise<void> {
    const whole = { ...line, id: newId(), atMs: Date.now() } as LogLine;
    const waiting = { id: whole.id, trialId: this.trialId, order: ++this.order, line: whole };
    await writeLine(waiting);
    this.set([...this.waiting, waiting]);
    void this.flush();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Lines not yet acknowledged; the same array until it changes. */
  pending = (): readonly LogLine[] => this.lines;

  private set(waiting: WaitingLine[]): void {
    this.waiting = waiting;
    this.lines = waiting.map((each) => each.line);
    for (const listener of this.listeners) listener();
  }

  private async flush(): Promise<void> {
    const { target } = this;
    if (this.sending || !target || this.waiting.length === 0) return;
    this.sending = true;
    clearTimeout(this.timer);
    const batch = this.waiting.slice(0, BATCH);
    const reached = await target.send(batch.map((each) => each.line));
    this.reachable = reached;
    if (reached) {
      await target.refresh();
      await forgetLines(batch.map((each) => each.id));
      const sent = new Set(batch.map((each) => each.id));
      this.sending = false;
      this.set(this.waiting.filter((each) => !sent.has(each.id)));
      void this.flush();
    } else {
      this.sending = false;
      this.set([...this.waiting]);
      this.timer = setTimeout(() => void this.flush(), RETRY_MS);
    }
  }
}

const logs = new Map<string, FieldLog>();

/** The log of a trial; one a page, so that every view sees the same lines. */
export function fieldLogOf(trialId: string): FieldLog {
  const log = logs.get(trialId) ?? new FieldLog(trialId);
  logs.set(trialId, log);
  return log;
}
