import type { MessagePort } from 'node:worker_threads';
import { type Measured, type MeasureJob, measureTold } from './measurePath.ts';

/** Entry of every thread of the command line. */
export default function work({ progress, ...job }: MeasureJob & { progress: MessagePort }): Promise<Measured> {
  return measureTold(job, (share) => progress.postMessage(share));
}
