import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { type Bundle, type BundledTrial, bundleSchema } from '@marvet/core/formats/bundle';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { levelMatch } from '@marvet/core/listen/levelMatch';
import { newFile } from '../api/files.ts';
import type { Services } from '../api/services.ts';
import { withFileSource } from '../audio/fileSource.ts';
import type { Tables } from '../store/store.ts';

/** How far an import is. */
export type ImportProgress = (step: 'files' | 'measuring', done: number, of: number) => void;

/**
 * Brings a bundle in: records, audio, figures, then listening rounds, which need the figures. Every
 * step looks at what is there already, so an import that was cut off goes on where it stopped and one
 * that was finished does nothing.
 * @param folder holds `bundle.json` and the audio files
 */
export async function importBundle(services: Services, folder: string, onProgress: ImportProgress): Promise<void> {
  const bundle = bundleSchema.parse(JSON.parse(await readFile(join(folder, 'bundle.json'), 'utf8')));
  const { store } = services;
  await store.transaction((tables) => importItems(tables, bundle));
  const fresh: BundledTrial[] = [];
  for (const trial of bundle.trials) {
    if (await store.trials.existsBy({ id: trial.id })) continue;
    await store.transaction((tables) => importRecords(tables, trial));
    fresh.push(trial);
  }
  const open: BundledTrial[] = [];
  for (const trial of bundle.trials) {
    const rounds = await store.rounds.findBy({ trialId: trial.id });
    if (fresh.includes(trial) || rounds.length < trial.rounds.length) open.push(trial);
  }
  await importAudio(services, folder, open, onProgress);
  for (const trial of open) await store.transaction((tables) => importRounds(tables, trial));
}

async function importItems(tables: Tables, bundle: Bundle): Promise<void> {
  for (const item of bundle.items) {
    if (!(await tables.items.existsBy({ id: item.id }))) await tables.items.insert({ ...item, binnedAtMs: null });
  }
}

async function importRecords(tables: Tables, trial: BundledTrial): Promise<void> {
  const { id, name, question, use, place, roles, budget, comparisons, createdAtMs, verdictOpenedAtMs } = trial;
  await tables.trials.insert({
    id,
    name,
    question,
    use,
    place,
    createdAtMs,
    verdictOpenedAtMs,
    sample: true,
    binnedAtMs: null,
    roles,
    budget,
    comparisons,
  });
  const owned = <Row extends object>(rows: readonly Row[]) => rows.map((row) => ({ ...row, trialId: id, binnedAtMs: null }));
  await tables.expectations.insert(trial.expectations.map((each) => ({ ...each, trialId: id })));
  await tables.preflight.insert(trial.preflight.map((each) => ({ ...each, trialId: id })));
  await tables.criteria.insert(owned(trial.criteria));
  await tables.chains.insert(owned(trial.chains));
  await tables.stations.insert(owned(trial.stations));
  await tables.scripts.insert(owned(trial.scripts));
  await tables.plans.insert({ ...trial.plan, trialId: id, committedAtMs: trial.takes.length > 0 ? createdAtMs : null });
  await tables.marks.insert(trial.marks.map((mark) => ({ ...mark, trialId: id })));
  await tables.takes.insert(owned(trial.takes));
}

async function importAudio({ store, blobs, measuring }: Services, folder: string, trials: readonly BundledTrial[], onProgress: ImportProgress): Promise<void> {
  const names = trials.flatMap((trial) => trial.files.map((file) => ({ trialId: trial.id, name: file.name })));
  let done = 0;
  for (const { trialId, name } of names) {
    if (!(await store.files.existsBy({ trialId, name }))) {
      const blob = await blobs.write(createReadStream(join(folder, name), { highWaterMark: 1 << 20 }));
      const layout = withFileSource(blobs.pathOf(blob.sha256), readWavHeader);
      measuring.add(await store.transaction((tables) => newFile(tables, { trialId, name, ...blob }, layout)));
    }
    onProgress('files', ++done, names.length);
  }
  await measuring.resume();
  const total = names.length;
  const timer = setInterval(async () => onProgress('measuring', total - (await store.files.countBy([{ state: 'queued' }, { state: 'measuring' }])), total), 500);
  await measuring.idle();
  clearInterval(timer);
  if (total > 0) onProgress('measuring', total, total);
}

async function importRounds(tables: Tables, trial: BundledTrial): Promise<void> {
  for (const { recordings: heard, listeners, ...round } of trial.rounds) {
    if (await tables.rounds.existsBy({ id: round.id })) continue;
    const recordings = await Promise.all(
      heard.map(async ({ fileName, candidateId }) => {
        const file = await tables.files.findOneByOrFail({ trialId: trial.id, name: fileName });
        return tables.recordings.findOneByOrFail({ fileId: file.id, candidateId });
      }),
    );
    const clips = recordings.map(({ report }) => {
      if (report?.loudness.integratedLufs == null || report.levels.truePeakDbtp == null) throw new Error('A recording of the bundle could not be measured');
      return { integratedLufs: report.loudness.integratedLufs, truePeakDbtp: report.levels.truePeakDbtp };
    });
    const match = levelMatch(clips, round.targetLufs, round.ceilingDbtp);
    const createdAtMs = trial.createdAtMs;
    await tables.rounds.insert({
      ...round,
      trialId: trial.id,
      sample: true,
      createdAtMs,
      binnedAtMs: null,
      recordingIds: recordings.map((recording) => recording.id),
      matchedLufs: match.matchedLufs,
      gainsDb: match.gainsDb,
    });
    for (const { ratings, ...listener } of listeners) {
      await tables.listeners.insert({ ...listener, roundId: round.id, sample: true, createdAtMs, finishedAtMs: createdAtMs, binnedAtMs: null });
      await tables.ratings.insert(ratings.map(({ place, ...rating }) => ({ ...rating, listenerId: listener.id, letter: BLIND_LETTERS[listener.order.indexOf(place)] as string })));
    }
  }
}
