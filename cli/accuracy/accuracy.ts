import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { judgeCalls } from './calls.ts';
import type { Judged } from './judge.ts';
import { judgeAllReal } from './real/judgeAllReal.ts';
import { recordingsFolder } from './real/packages.ts';
import { accuracyText } from './report.ts';
import { GROUPS, type Group } from './specs.ts';
import { speedAgainstNative } from './speed.ts';

/** Takes a group: rendered from seeds that were looked at while thresholds were set, and from seeds that never were. */
const HELD_TAKES = Number(process.env.TAKES ?? 20);
const TUNING_TAKES = Math.min(4, HELD_TAKES);

const pool = new Piscina({ filename: new URL('./judgeWorker.mjs', import.meta.url).href, maxThreads: availableParallelism() });
let done = 0;
async function judgeAll(kind: 'tuning' | 'unseen', takes: number): Promise<Judged[]> {
  const jobs = GROUPS.flatMap((group) => Array.from({ length: takes }, (_, index) => ({ seed: `${kind} ${index}`, group })));
  return Promise.all(
    jobs.map(async (job: { seed: string; group: Group }) => {
      const judged = (await pool.run(job)) as Judged;
      process.stderr.write(`\r${++done} of ${GROUPS.length * (TUNING_TAKES + HELD_TAKES)} takes judged`);
      return judged;
    }),
  );
}

const recordings = recordingsFolder();
const real = recordings === null ? null : await judgeAllReal(recordings, { tuning: Math.ceil(HELD_TAKES * 0.3), held: Math.ceil(HELD_TAKES / 2) });
const held = await judgeAll('unseen', HELD_TAKES);
const tuning = await judgeAll('tuning', TUNING_TAKES);
await pool.destroy();
process.stderr.write('\n');
const folder = mkdtempSync(join(tmpdir(), 'marvet-accuracy-'));
const native = spawnSync('ffmpeg', ['-version']).status === 0 ? speedAgainstNative(folder, recordings) : null;
rmSync(folder, { recursive: true, force: true });
const path = fileURLToPath(new URL('../../docs/accuracy.md', import.meta.url));
const text = accuracyText(held, tuning, real, native, judgeCalls(process.env.TAKES ? 50 : 400));
// A quick look is for looking at: the document rests on the whole.
if (process.env.TAKES) console.log(text);
else {
  writeFileSync(path, text);
  console.log(`written: ${path}`);
}
