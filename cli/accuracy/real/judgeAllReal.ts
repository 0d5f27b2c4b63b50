import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import type { JudgedReal } from './judgeReal.ts';
import { REAL_GROUPS, type RealGroup } from './realTake.ts';
import type { Half } from './talkers.ts';

/**
 * Renders and measures takes of every group with recorded talkers.
 * @param takes how many of each group, by half
 */
export async function judgeAllReal(folder: string, takes: Record<Half, number>, groups: readonly RealGroup[] = REAL_GROUPS): Promise<JudgedReal[]> {
  const pool = new Piscina({ filename: new URL('./realWorker.mjs', import.meta.url).href, maxThreads: availableParallelism() });
  const jobs = (['tuning', 'held'] as const).flatMap((half) =>
    groups.flatMap((group) => Array.from({ length: takes[half] }, (_, index) => ({ seed: `real ${index}`, group, half, folder }))),
  );
  let done = 0;
  const judged = await Promise.all(
    jobs.map(async (job) => {
      const one = (await pool.run(job)) as JudgedReal;
      process.stderr.write(`\r${++done} of ${jobs.length} takes of recorded talkers judged`);
      return one;
    }),
  );
  process.stderr.write('\n');
  await pool.destroy();
  return judged;
}
