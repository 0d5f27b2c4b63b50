import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import { DEFAULT_MEASURE_OPTIONS } from '@marvet/core/measure/report.types';
import { Piscina } from 'piscina';
import { type MeasureArguments, readArguments, USAGE, UsageError } from './arguments.ts';
import { withFileSource } from './fileSource.ts';
import { type Measured, type MeasureJob, trackOf } from './measurePath.ts';
import { tableOf } from './table.ts';

const EXIT_UNMEASURED = 1;
const EXIT_USAGE = 2;

function checkReference({ reference }: MeasureArguments): void {
  if (!reference) return;
  try {
    withFileSource(reference.file, (source) => trackOf(source, reference.channel));
  } catch (error) {
    throw new UsageError(`--reference ${reference.file}: ${error instanceof Error ? error.message : String(error)}`);
  }
}

/** Measures all files, as many at a time as there are cores, and tells on standard error how far it is. */
async function measureAll(asked: MeasureArguments): Promise<Measured[]> {
  const options = { ...DEFAULT_MEASURE_OPTIONS, targetLufs: asked.targetLufs, dualMono: asked.dualMono, roomTone: asked.roomTone };
  const pool = new Piscina({ filename: new URL('./measureWorker.mjs', import.meta.url).href, maxThreads: Math.min(availableParallelism(), asked.files.length) });
  const shares = asked.files.map(() => 0);
  const tell = () => process.stderr.write(`\rmeasuring: ${Math.floor((100 * shares.reduce((sum, share) => sum + share, 0)) / shares.length)} %`);
  const measured = await Promise.all(
    asked.files.map(async (path, index) => {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', (share: number) => {
        shares[index] = share;
        tell();
      });
      try {
        const job = { path, options, reference: asked.reference, progress: port2 } satisfies MeasureJob & { progress: unknown };
        return (await pool.run(job, { transferList: [port2] })) as Measured;
      } finally {
        port1.close();
        shares[index] = 1;
        tell();
      }
    }),
  );
  process.stderr.write('\n');
  await pool.destroy();
  return measured;
}

try {
  const asked = readArguments(process.argv.slice(2));
  checkReference(asked);
  const measured = await measureAll(asked);
  process.stdout.write(asked.json ? `${JSON.stringify(measured, null, 1)}\n` : `${measured.map(tableOf).join('\n')}`);
  for (const each of measured) if ('error' in each) process.stderr.write(`${each.file}: ${each.error.message}\n`);
  process.exitCode = measured.some((each) => 'error' in each) ? EXIT_UNMEASURED : 0;
} catch (error) {
  if (!(error instanceof UsageError)) throw error;
  process.stderr.write(`${error.message}\n\n${USAGE}\n`);
  process.exitCode = EXIT_USAGE;
}
