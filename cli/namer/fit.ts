import { writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { LIKELY_TARGETS } from '@marvet/core/measure/events/standoutKinds';
import type { Forest } from '@marvet/core/measure/events/trees';
import { Piscina } from 'piscina';
import { recordingsFolder } from '../accuracy/real/packages.ts';
import { TRAINING_GROUPS, type TrainingJob, type TrainingTake } from './trainingTake.ts';

/** Takes of each group. */
const REAL_TAKES = Number(process.env.TAKES ?? 24);
const SIMULATED_TAKES = Math.ceil(REAL_TAKES / 2);
/** In one of so many nobody speaks. */
const SILENT_EACH = 6;
/** Groups whose sounds differ most from each other. */
const MANY_SOUNDS: readonly string[] = ['knocks', 'rubbing', 'things'];
const MODEL = fileURLToPath(new URL('../../core/measure/events/forests.json', import.meta.url));

/** Renders takes with the talkers and things of the tuning half, grows trees from them, and writes them for the namer. */
async function fit(): Promise<void> {
  const folder = recordingsFolder();
  if (folder === null) throw new Error('Trees are grown from recordings, and there are none here.');
  const pool = new Piscina({ filename: new URL('./worker.mjs', import.meta.url).href, maxThreads: availableParallelism() });
  const jobs: TrainingJob[] = [
    ...TRAINING_GROUPS.real.flatMap((group) =>
      Array.from(
        { length: MANY_SOUNDS.includes(group) ? 2 * REAL_TAKES : REAL_TAKES },
        (_, index): TrainingJob => ({ seed: `fit ${index}`, of: 'real', group, folder, anybodySpeaks: index % SILENT_EACH > 0 }),
      ),
    ),
    ...TRAINING_GROUPS.simulated.flatMap((group) =>
      Array.from({ length: SIMULATED_TAKES }, (_, index): TrainingJob => ({ seed: `tuning ${index}`, of: 'simulated', group, folder })),
    ),
  ];
  let done = 0;
  const takes = await Promise.all(
    jobs.map(async (job) => {
      const take = (await pool.run(job, { name: 'take' })) as TrainingTake;
      process.stderr.write(`\r${++done} of ${jobs.length} takes`);
      return take;
    }),
  );
  process.stderr.write('\nGrowing trees\n');
  const forests = await Promise.all(LIKELY_TARGETS.map(async (target) => [target, (await pool.run({ target, takes }, { name: 'grow' })) as Forest] as const));
  await pool.destroy();
  writeFileSync(MODEL, `${JSON.stringify(Object.fromEntries(forests))}\n`);
}

await fit();
