import type { MessagePort } from 'node:worker_threads';
import { type Measured, type MeasureJob, measurePath } from './measurePath.ts';

const PROGRESS_EVERY_MS = 150;

/** Entry of every thread of the command line. */
export default function work({ progress, ...job }: MeasureJob & { progress: MessagePort }): Measured {
  let told = 0;
  return measurePath(job, (share) => {
    const now = Date.now();
    if (now - told < PROGRESS_EVERY_MS) return;
    told = now;
    progress.postMessage(share);
  });
}
