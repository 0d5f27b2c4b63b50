import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import { CAUSES, type JudgedCause } from './causes.ts';
import type { JudgedReal } from './judgeReal.ts';
import { REAL_GROUPS, type RealGroup } from './realTake.ts';
import type { Half } from './talkers.ts';

/** All takes with recorded talkers: those that something was laid over, and those that something was done to. */
export interface RealProof {
  takes: JudgedReal[];
  causes: JudgedCause[];
}

/**
 * Renders and measures takes of every group and every cause with recorded talkers.
 * @param takes how many of each, by half
 */
export async function judgeAllReal(folder: string, takes: Record<Half, number>, groups: readonly RealGroup[] = REAL_GROUPS): Promise<RealProof> {
  const pool = new Piscina({ filename: new URL('./realWorker.mjs', import.meta.url).href, maxThreads: availableParallelism() });
  const seeds = (['tuning', 'held'] as const).flatMap((half) => Array.from({ length: takes[half] }, (_, index) => ({ seed: `real ${index}`, half, folder })));
  const all = seeds.length * (groups.length + CAUSES.length);
  let done = 0;
  const run = async <Judged>(name: string, job: object): Promise<Judged> => {
    const judged = (await pool.run(job, { name })) as Judged;
    process.stderr.write(`\r${++done} of ${all} takes of recorded talkers judged`);
    return judged;
  };
  const [judged, causes] = await Promise.all([
    Promise.all(groups.flatMap((group) => seeds.map((seed) => run<JudgedReal>('take', { ...seed, group })))),
    Promise.all(CAUSES.flatMap((cause) => seeds.map((seed) => run<JudgedCause>('cause', { ...seed, cause })))),
  ]);
  process.stderr.write('\n');
  await pool.destroy();
  return { takes: judged, causes };
}
