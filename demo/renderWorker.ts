import { parentPort, workerData } from 'node:worker_threads';
import { renderDemoPart } from './render.ts';

/** Renders the files that it is handed, and says so after each. */
const { folder, indices } = workerData as { folder: string; indices: number[] };
for (const index of indices) {
  await renderDemoPart(index, folder);
  parentPort?.postMessage(index);
}
