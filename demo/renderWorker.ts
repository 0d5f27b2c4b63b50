import { parentPort, workerData } from 'node:worker_threads';
import { renderDemoTake } from './render.ts';

/** Renders the takes that it is handed, and says so after each. */
const { folder, indices } = workerData as { folder: string; indices: number[] };
for (const index of indices) {
  renderDemoTake(index, folder);
  parentPort?.postMessage(index);
}
