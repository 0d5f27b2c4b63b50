import { newId } from '@marvet/core/domain/identity';
import { type Job, type JobKind, MOST_ATTEMPTS, PRIORITY } from '@marvet/core/domain/job';
import type { JobRow } from '../store/records.ts';
import type { Store } from '../store/store.ts';
import { In } from '../store/table.ts';

/** A failure that trying again would not mend: the reason is told as it is. */
export class JobFailure extends Error {}

/** Somebody did not want to wait for it any longer. */
export class JobCancelled extends JobFailure {
  constructor() {
    super('It was cancelled');
  }
}

/** How one kind of job is done. */
export interface JobHandler {
  run(job: Job, signal: AbortSignal, onProgress: (share: number) => void): Promise<unknown>;
  /** Told once a job has ended for good without a result. */
  ended?(job: Job, state: 'failed' | 'cancelled', failure: string): Promise<void>;
  /** Whether it is taken up again after a restart; work that somebody waited for is not. */
  resumes: boolean;
}

export type JobRequest = Pick<Job, 'kind' | 'trialId' | 'subjectId' | 'key'> & { priority?: number };

/** Does jobs from the table, what a person waits for first. */
export interface JobRunner {
  /** Writes jobs down and takes them up; one of the same kind and subject that was waiting gives way. */
  add(requests: readonly JobRequest[]): Promise<void>;
  /** Does a job at once and waits for its result. */
  waitFor(request: JobRequest): Promise<unknown>;
  /** Stops jobs of a subject, or one by its id. Resolves when it is written down. */
  cancel(which: { id: string } | { kind: JobKind; subjectId: string }): Promise<boolean>;
  /** Takes up again what failed or was cancelled. */
  retry(id: string): Promise<boolean>;
  /** Takes up what was queued or under way when the server last stopped. */
  resume(): Promise<void>;
  /** Settles when nothing is queued or under way. */
  idle(): Promise<void>;
  /** Starts nothing more, and leaves what is unfinished queued for the next start. */
  stop(): Promise<void>;
}

interface Running {
  job: Job;
  abort: AbortController;
  done: Promise<void>;
}

/** Progress is written down now and then, so that a page that comes later sees it. */
const PROGRESS_EVERY_MS = 2000;
const ENDED_KEPT = 500;

/** @param atOnce bulk jobs at once; one more place is kept free for what a person waits for */
export function openRunner(store: Store, handlers: Record<JobKind, JobHandler>, atOnce: number): JobRunner {
  const queue: Job[] = [];
  const running = new Map<string, Running>();
  const waiters = new Map<string, { resolve(value: unknown): void; reject(error: unknown): void }>();
  let stopped = false;
  const idlers: (() => void)[] = [];

  const change = (id: string, patch: Partial<JobRow>) => store.write((tables) => tables.jobs.update({ id }, patch));

  function takeUp(jobs: readonly Job[]): void {
    queue.push(...jobs);
    queue.sort((a, b) => b.priority - a.priority || a.createdAtMs - b.createdAtMs);
    next();
  }

  function next(): void {
    while (!stopped && queue[0] && running.size < (queue[0].priority >= PRIORITY.waitedFor ? atOnce + 1 : atOnce)) {
      const job = queue.shift() as Job;
      const abort = new AbortController();
      const entry: Running = { job, abort, done: Promise.resolve() };
      running.set(job.id, entry);
      entry.done = execute(job, abort)
        .catch((error: unknown) => console.error(`Job ${job.kind} of ${job.subjectId} could not be written down:`, error))
        .finally(() => {
          running.delete(job.id);
          next();
        });
    }
    if (queue.length === 0 && running.size === 0) for (const settle of idlers.splice(0)) settle();
  }

  async function execute(job: Job, abort: AbortController): Promise<void> {
    const { run, ended } = handlers[job.kind];
    let told = Date.now();
    const onProgress = (share: number) => {
      if (Date.now() - told < PROGRESS_EVERY_MS) return;
      told = Date.now();
      void change(job.id, { progress: share }).catch((error: unknown) => console.error('Progress could not be written down:', error));
    };
    await change(job.id, { state: 'running', attempts: ++job.attempts });
    const waiter = waiters.get(job.id);
    try {
      const result = await run(job, abort.signal, onProgress);
      await change(job.id, { state: 'done', progress: 1, failure: null, endedAtMs: Date.now() });
      waiter?.resolve(result);
    } catch (error) {
      // At a stop nothing has failed: the job waits for the next start.
      if (stopped) return void waiter?.reject(new JobFailure('Marvet was stopped'));
      const reason = abort.signal.aborted ? new JobCancelled() : error;
      const failure = reason instanceof Error ? reason.message : String(reason);
      const known = reason instanceof JobFailure;
      if (!known && job.attempts < MOST_ATTEMPTS) {
        console.error(`Job ${job.kind} of ${job.subjectId}: ${failure}; it is tried again`);
        await change(job.id, { state: 'queued', failure });
        queue.unshift(job);
        return;
      }
      const state = abort.signal.aborted ? 'cancelled' : 'failed';
      const text = known ? failure : `${failure}; tried ${job.attempts} times`;
      await change(job.id, { state, failure: text, endedAtMs: Date.now() });
      await ended?.(job, state, text);
      waiter?.reject(known ? reason : new JobFailure(text));
    } finally {
      // One that is tried again is still waited for.
      if (!queue.includes(job)) waiters.delete(job.id);
    }
  }

  const rowOf = ({ priority = PRIORITY.bulk, ...request }: JobRequest): Job => ({
    ...request,
    id: newId(),
    priority,
    state: 'queued',
    attempts: 0,
    progress: 0,
    failure: null,
    createdAtMs: Date.now(),
    endedAtMs: null,
  });

  /** @param tell whether those whose work it was are told; not where the same work is asked for anew */
  async function unqueue(found: readonly Job[], tell: boolean): Promise<void> {
    for (const job of found) queue.splice(queue.indexOf(job), 1);
    if (found.length > 0) await store.write((tables) => tables.jobs.update({ id: In(found.map((job) => job.id)) }, { state: 'cancelled', endedAtMs: Date.now() }));
    for (const job of found) {
      waiters.get(job.id)?.reject(new JobCancelled());
      waiters.delete(job.id);
      if (tell) await handlers[job.kind].ended?.(job, 'cancelled', new JobCancelled().message);
    }
  }

  return {
    async add(requests) {
      const subjects = new Set(requests.map((request) => `${request.kind} ${request.subjectId}`));
      await unqueue(
        queue.filter((job) => subjects.has(`${job.kind} ${job.subjectId}`)),
        false,
      );
      const rows = requests.map(rowOf);
      await store.write(async (tables) => {
        for (let start = 0; start < rows.length; start += 50) await tables.jobs.insert(rows.slice(start, start + 50));
      });
      takeUp(rows);
    },
    async waitFor(request) {
      const row = rowOf({ ...request, priority: request.priority ?? PRIORITY.waitedFor });
      await store.write((tables) => tables.jobs.insert(row));
      return new Promise((resolve, reject) => {
        waiters.set(row.id, { resolve, reject });
        takeUp([row]);
      });
    },
    async cancel(which) {
      const meant = (job: Job) => ('id' in which ? job.id === which.id : job.kind === which.kind && job.subjectId === which.subjectId);
      const waiting = queue.filter(meant);
      await unqueue(waiting, true);
      const under = [...running.values()].filter(({ job }) => meant(job));
      for (const { abort } of under) abort.abort();
      await Promise.all(under.map(({ done }) => done));
      return waiting.length + under.length > 0;
    },
    async retry(id) {
      const job = await store.jobs.findOneBy({ id, state: In(['failed', 'cancelled']) });
      if (!job || !handlers[job.kind].resumes) return false;
      const again = { ...job, state: 'queued' as const, attempts: 0, failure: null, endedAtMs: null };
      await change(id, { state: 'queued', attempts: 0, failure: null, endedAtMs: null });
      takeUp([again]);
      return true;
    },
    async resume() {
      const lasting = (Object.keys(handlers) as JobKind[]).filter((kind) => handlers[kind].resumes);
      const left = await store.write(async (tables) => {
        const fleeting = (Object.keys(handlers) as JobKind[]).filter((kind) => !handlers[kind].resumes);
        await tables.jobs.delete({ kind: In(fleeting) });
        await tables.query(`DELETE FROM "job" WHERE "state" IN ('done', 'cancelled') AND "id" NOT IN (SELECT "id" FROM "job" ORDER BY "createdAtMs" DESC LIMIT ?)`, [ENDED_KEPT]);
        const found = await tables.jobs.find({ where: { kind: In(lasting), state: In(['queued', 'running']) }, order: { createdAtMs: 'ASC' } });
        // A stop is no failed attempt.
        await tables.jobs.update({ kind: In(lasting), state: In(['queued', 'running']) }, { state: 'queued', attempts: 0 });
        return found;
      });
      const known = new Set([...queue, ...[...running.values()].map(({ job }) => job)].map((job) => job.id));
      takeUp(left.filter((job) => !known.has(job.id)).map((job) => ({ ...job, state: 'queued', attempts: 0 })));
    },
    idle() {
      if (queue.length === 0 && running.size === 0) return Promise.resolve();
      return new Promise((resolve) => idlers.push(resolve));
    },
    async stop() {
      stopped = true;
      for (const job of queue.splice(0)) waiters.get(job.id)?.reject(new JobFailure('Marvet was stopped'));
      for (const { abort } of running.values()) abort.abort();
      await Promise.all([...running.values()].map(({ done }) => done));
      for (const settle of idlers.splice(0)) settle();
    },
  };
}
