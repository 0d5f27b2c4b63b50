import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { WavLayout } from '@marvet/core/audio/wavFormat';
import { type Bundle, type BundledTrial, bundleSchema } from '@marvet/core/formats/bundle';
import { matchedClips } from '../api/roundCuts.ts';
import type { Services } from '../api/services.ts';
import { takeIn } from '../api/takeIn.ts';
import type { Tables } from '../store/store.ts';
import { In } from '../store/table.ts';

/** What has begun to be brought in is not given up. */
const NEVER = new AbortController().signal;

/** How far an import is. */
export type ImportProgress = (step: 'files' | 'measuring', done: number, of: number) => void;

/**
 * Brings a bundle in as what it is: records, audio, figures, then listening rounds, which need the
 * figures. Every step looks at what is there already, so an import that was cut off goes on where it
 * stopped and one that was finished does nothing.
 * @param folder holds `bundle.json` and the audio files
 */
export async function importBundle(services: Services, folder: string, onProgress: ImportProgress): Promise<void> {
  const bundle = bundleSchema.parse(JSON.parse(await readFile(join(folder, 'bundle.json'), 'utf8')));
  const { store } = services;
  await store.write((tables) => importItems(tables, bundle));
  const fresh: BundledTrial[] = [];
  for (const trial of bundle.trials) {
    const isNew = await store.write(async (tables) => {
      if (await tables.trials.existsBy({ id: trial.id })) return false;
      await importRecords(tables, trial);
      return true;
    });
    if (isNew) fresh.push(trial);
  }
  const open: BundledTrial[] = [];
  for (const trial of bundle.trials) {
    const rounds = await store.rounds.countBy({ trialId: trial.id });
    if (fresh.includes(trial) || rounds < trial.rounds.length) open.push(trial);
  }
  await importAudio(services, folder, open, onProgress);
  for (const trial of open) await importRounds(services, trial);
}

async function importItems(tables: Tables, bundle: Bundle): Promise<void> {
  for (const item of bundle.items) {
    if (!(await tables.items.existsBy({ id: item.id }))) await tables.items.insert({ ...item, version: 1, binnedAtMs: null });
  }
}

async function importRecords(tables: Tables, trial: BundledTrial): Promise<void> {
  const {
    expectations,
    preflight,
    criteria,
    chains,
    stations,
    placements,
    rigs,
    frames,
    wearers,
    sights,
    devices,
    readings,
    scripts,
    plan,
    marks,
    takes,
    files: _files,
    rounds: _rounds,
    moments: _moments,
    ...own
  } = trial;
  const trialId = trial.id;
  await tables.trials.insert({ ...own, version: 1, binnedAtMs: null });
  const ofTrial = <Row extends object>(rows: readonly Row[]) => rows.map((row) => ({ ...row, trialId }));
  const owned = <Row extends object>(rows: readonly Row[]) => ofTrial(rows).map((row) => ({ ...row, version: 1, binnedAtMs: null }));
  await tables.expectations.insert(ofTrial(expectations));
  await tables.preflight.insert(ofTrial(preflight));
  await tables.criteria.insert(owned(criteria));
  await tables.chains.insert(owned(chains));
  await tables.stations.insert(owned(stations));
  await tables.placements.insert(owned(placements));
  await tables.rigs.insert(owned(rigs));
  await tables.frames.insert(owned(frames));
  await tables.wearers.insert(owned(wearers));
  await tables.sights.insert(owned(sights));
  await tables.devices.insert(owned(devices));
  for (let start = 0; start < readings.length; start += 100) await tables.readings.insert(ofTrial(readings.slice(start, start + 100)));
  await tables.scripts.insert(owned(scripts));
  await tables.plans.insert({ ...plan, trialId, version: 1 });
  await tables.marks.insert(ofTrial(marks));
  await tables.takes.insert(ofTrial(takes).map((take) => ({ ...take, binnedAtMs: null })));
}

async function importAudio({ store, blobs, work, livePool }: Services, folder: string, trials: readonly BundledTrial[], onProgress: ImportProgress): Promise<void> {
  const all = trials.flatMap((trial) => trial.files.map((file) => ({ trialId: trial.id, file })));
  let done = 0;
  for (const { trialId, file } of all) {
    if (!(await store.files.existsBy({ id: file.id }))) {
      const staged = await blobs.stage(createReadStream(join(folder, file.name), { highWaterMark: 1 << 20 }));
      const taken = await takeIn({ blobs, pool: livePool }, staged, file.name, NEVER);
      await store.write(async (tables) => insertFile(tables, trialId, file, await taken.keep(), taken.layout));
      await taken.tidy();
    }
    onProgress('files', ++done, all.length);
  }
  const trialIds = trials.map((trial) => trial.id);
  const left = await store.files.find({ select: { id: true }, where: { trialId: In(trialIds), state: In(['queued', 'measuring']) } });
  await work.measuring.request(left.map((file) => file.id));
  const total = all.length;
  const timer = setInterval(async () => onProgress('measuring', total - (await store.files.countBy([{ state: 'queued' }, { state: 'measuring' }])), total), 500);
  await work.runner.idle();
  clearInterval(timer);
  if (total > 0) onProgress('measuring', total, total);
}

async function insertFile(
  tables: Tables,
  trialId: string,
  { recordings, ...file }: BundledTrial['files'][number],
  blob: { sha256: string; sizeBytes: number; originalSha256: string | null },
  { format, warnings }: WavLayout,
): Promise<void> {
  await tables.files.insert({
    ...file,
    ...blob,
    trialId,
    uploadedAtMs: Date.now(),
    format,
    state: 'queued',
    failure: null,
    methodVersion: null,
    warnings,
    programme: null,
    binnedAtMs: null,
  });
  await tables.recordings.insert(
    recordings.map((recording) => ({
      ...recording,
      trialId,
      fileId: file.id,
      figures: null,
      shown: null,
      report: null,
      series: null,
      second: null,
      stereo: null,
      backup: null,
      against: null,
    })),
  );
}

async function importRounds(services: Services, trial: BundledTrial): Promise<void> {
  const { store } = services;
  await store.write(async (tables) => {
    for (const moment of trial.moments) if (!(await tables.moments.existsBy({ id: moment.id }))) await tables.moments.insert({ ...moment, trialId: trial.id, binnedAtMs: null });
  });
  for (const { listeners, ...round } of trial.rounds) {
    if (await store.rounds.existsBy({ id: round.id })) continue;
    const matched = await matchedClips(services, trial.id, round);
    await store.write(async (tables) => {
      await tables.rounds.insert({ ...round, ...matched, trialId: trial.id, binnedAtMs: null });
      for (const { ratings, choices, ...listener } of listeners) {
        await tables.listeners.insert({ ...listener, roundId: round.id, binnedAtMs: null });
        if (ratings.length > 0) await tables.ratings.insert(ratings.map((rating) => ({ ...rating, listenerId: listener.id })));
        if (choices.length > 0) await tables.choices.insert(choices.map((choice) => ({ ...choice, listenerId: listener.id })));
      }
    });
  }
}
