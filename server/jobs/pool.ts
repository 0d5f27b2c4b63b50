import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { JobFailure } from './runner.ts';
import type { Answer, AnyTask, ResultOf, ToldBy } from './tasks.ts';

/** Worker threads for all that would hold the server up. */
export interface WorkerPool {
  run<Task extends AnyTask>(task: Task, signal: AbortSignal, onTold?: (told: ToldBy<Task>) => void): Promise<ResultOf<Task>>;
  close(): Promise<void>;
}

/** Bulk jobs that run at once; one more may run that a person waits for. */
export const BULK_AT_ONCE = availableParallelism();
/** Threads beside those of jobs: for sound that is being recorded, and for sound that is being listened to. */
const AT_HAND = 2;

/** @param entry the module that the threads run; tests put one in its place that dies */
export function openPool(entry: URL = new URL('./worker.mjs', import.meta.url)): WorkerPool {
  const pool = new Piscina({ filename: entry.href, maxThreads: BULK_AT_ONCE + 1 + AT_HAND, minThreads: 0, idleTimeout: 30_000 });
  // A thread that dies is replaced, and its task is refused; that the thread died is no more than that.
  pool.on('error', (error: unknown) => console.error('A worker thread ended:', error));
  return {
    async run(task, signal, onTold) {
      const { port1, port2 } = new MessageChannel();
      if (onTold) port1.on('message', onTold);
      try {
        const answer = (await pool.run({ task, progress: port2 }, { transferList: [port2], signal })) as Answer;
        // What the work itself says of its input is told as it is; only a thread that dies is worth another try.
        if (!answer.ok) throw new JobFailure(answer.message);
        return answer.result as never;
      } finally {
        port1.close();
      }
    },
    close: () => pool.destroy(),
  };
}
