import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join, resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import { type Bundle, bundleSchema } from '@marvet/core/formats/bundle';
import { COSTUME } from './costume.ts';
import { HIRE_SHELF } from './hireShelf.ts';
import { ITEMS } from './items.ts';
import { LANDING } from './landing.ts';
import { REED_WALK } from './reedWalk.ts';
import { DEMO_PARTS } from './render.ts';
import { SALTREACH } from './saltreach.ts';
import { WHEELHOUSE } from './wheelhouse.ts';

/**
 * Makes the demo's bundle in the folder given as the first argument: renders what is missing on all
 * cores, then writes `bundle.json`, whose presence says that all of it is there.
 */
async function make(folder: string): Promise<void> {
  mkdirSync(folder, { recursive: true });
  const total = DEMO_PARTS;
  const workers = availableParallelism();
  let done = 0;
  await Promise.all(
    Array.from({ length: workers }, (_, part) => {
      const indices = Array.from({ length: total }, (_, index) => index).filter((index) => index % workers === part);
      const worker = new Worker(new URL('./renderWorker.mjs', import.meta.url), { workerData: { folder, indices } });
      worker.on('message', () => {
        done++;
        if (done % 5 === 0 || done === total) console.log(`Demo: rendered ${done} of ${total} parts`);
      });
      return new Promise<void>((resolveWorker, reject) => {
        worker.on('error', reject);
        worker.on('exit', (code) => (code === 0 ? resolveWorker() : reject(new Error(`Rendering stopped with code ${code}`))));
      });
    }),
  );
  const bundle: Bundle = bundleSchema.parse({ marvetBundle: 2, items: ITEMS, trials: [SALTREACH, WHEELHOUSE, COSTUME, HIRE_SHELF, REED_WALK, LANDING] });
  writeFileSync(join(folder, 'bundle.json.part'), JSON.stringify(bundle));
  renameSync(join(folder, 'bundle.json.part'), join(folder, 'bundle.json'));
}

await make(resolve(process.argv[2] ?? 'data/demo'));
