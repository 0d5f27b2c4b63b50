import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import { DEFAULT_MEASURE_OPTIONS } from '@marvet/core/measure/report.types';
import { type MeasureArguments, readArguments, USAGE, UsageError } from './arguments.ts';
import { withFileSource } from './fileSource.ts';
import { type Measured, type MeasureJob, measureTold, trackOf } from './measurePath.ts';
import { openSoundFile } from './soundFile.ts';
import { tableOf } from './table.ts';

const EXIT_UNMEASURED = 1;
const EXIT_USAGE = 2;

async function checkReference({ reference }: MeasureArguments): Promise<void> {
  if (!reference) return;
  try {
    const { wavPath, tidy } = await openSoundFile(reference.file);
    try {
      withFileSource(wavPath, (source) => trackOf(source, reference.channel));
    } finally {
      tidy();
    }
  } catch (error) {
    throw new UsageError(`--reference ${reference.file}: ${error instanceof Error ? error.message : String(error)}`);
  }
}

/** Tells on standard error how far it is; `done` ends the line. */
function progressOf(files: number) {
  const shares = Array.from({ length: files }, () => 0);
  return {
    tell(file: number, share: number) {
      shares[file] = share;
      process.stderr.write(`\rmeasuring: ${Math.floor((100 * shares.reduce((sum, each) => sum + each, 0)) / files)} %`);
    },
    done: () => void process.stderr.write('\n'),
  };
}

/** Measures all files, as many at a time as there are cores; a single one right here, since a thread would only have to start. */
async function measureAll(asked: MeasureArguments): Promise<Measured[]> {
  const options = { ...DEFAULT_MEASURE_OPTIONS, targetLufs: asked.targetLufs, dualMono: asked.dualMono, roomTone: asked.roomTone };
  const jobs = asked.files.map((path): MeasureJob => ({ path, options, reference: asked.reference }));
  const progress = progressOf(jobs.length);
  const [only, ...others] = jobs;
  const measured = only && others.length === 0 ? [await measureTold(only, (share) => progress.tell(0, share))] : await measureInThreads(jobs, progress.tell);
  progress.done();
  return measured;
}

async function measureInThreads(jobs: readonly MeasureJob[], tell: (file: number, share: number) => void): Promise<Measured[]> {
  const { Piscina } = await import('piscina');
  const pool = new Piscina({ filename: new URL('./measureWorker.mjs', import.meta.url).href, maxThreads: Math.min(availableParallelism(), jobs.length) });
  const measured = await Promise.all(
    jobs.map(async (job, file) => {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', (share: number) => tell(file, share));
      try {
        return (await pool.run({ ...job, progress: port2 }, { transferList: [port2] })) as Measured;
      } finally {
        port1.close();
        tell(file, 1);
      }
    }),
  );
  await pool.destroy();
  return measured;
}

try {
  const asked = readArguments(process.argv.slice(2));
  await checkReference(asked);
  const measured = await measureAll(asked);
  process.stdout.write(asked.json ? `${JSON.stringify(measured, null, 1)}\n` : `${measured.map(tableOf).join('\n')}`);
  for (const each of measured) if ('error' in each) process.stderr.write(`${each.file}: ${each.error.message}\n`);
  process.exitCode = measured.some((each) => 'error' in each) ? EXIT_UNMEASURED : 0;
} catch (error) {
  if (!(error instanceof UsageError)) throw error;
  process.stderr.write(`${error.message}\n\n${USAGE}\n`);
  process.exitCode = EXIT_USAGE;
}
