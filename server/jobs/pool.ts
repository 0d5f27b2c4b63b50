import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import type { MeasuredFile } from '@marvet/core/measure/report';
import type { BuiltPlan } from '@marvet/core/plan/buildPlan';
import { Piscina } from 'piscina';
import type { ClipsTask, MeasureTask, PairTask, PlanTask } from './tasks.ts';

/** Worker threads, one a core, for all that would hold the server up. */
export interface WorkerPool {
  measure(task: Omit<MeasureTask, 'kind' | 'progress'>, onProgress: (share: number) => void, signal: AbortSignal): Promise<MeasuredFile>;
  pair(task: Omit<PairTask, 'kind'>): Promise<ComparedPair>;
  clips(task: Omit<ClipsTask, 'kind'>): Promise<Uint8Array[]>;
  plan(task: Omit<PlanTask, 'kind'>): Promise<BuiltPlan>;
  close(): Promise<void>;
}

export function openPool(): WorkerPool {
  const pool = new Piscina({
    filename: new URL('./worker.mjs', import.meta.url).href,
    maxThreads: availableParallelism(),
    minThreads: 0,
    idleTimeout: 30_000,
  });
  return {
    async measure(task, onProgress, signal) {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', onProgress);
      try {
        const run = { ...task, kind: 'measure', progress: port2 } satisfies MeasureTask;
        return (await pool.run(run, { transferList: [port2], signal })) as MeasuredFile;
      } finally {
        port1.close();
      }
    },
    async pair(task) {
      return (await pool.run({ ...task, kind: 'pair' } satisfies PairTask)) as ComparedPair;
    },
    async clips(task) {
      return (await pool.run({ ...task, kind: 'clips' } satisfies ClipsTask)) as Uint8Array[];
    },
    async plan(task) {
      return (await pool.run({ ...task, kind: 'plan' } satisfies PlanTask)) as BuiltPlan;
    },
    close: () => pool.destroy(),
  };
}
