import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { FileRow } from '@marvet/core/contract/recordings';
import { newId } from '@marvet/core/domain/identity';
import { type Job, MOST_ATTEMPTS, PRIORITY } from '@marvet/core/domain/job';
import { spoken } from '@marvet/core/testing/signals';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { closeServices, openServices, resumeWork } from '../start.ts';
import { type OpenedStore, openStore } from '../store/store.ts';
import { openHarness, plainWav, readyTrial } from '../testing/harness.ts';
import { openEvents } from './events.ts';
import { JobCancelled, JobFailure, type JobHandler, openRunner } from './runner.ts';

let folder: string;
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'marvet-jobs-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

describe('work that was stopped', () => {
  it('a clean stop leaves files queued, and the next start measures them', async () => {
    const harness = await openHarness();
    const { trial, at } = await readyTrial(harness);
    for (let index = 0; index < 4; index++)
      await harness.upload(trial.id, `S00${index}.wav`, plainWav(...Array.from({ length: 8 }, (_, channel) => spoken(-26, -60, index * 10 + channel))));
    const dataFolder = harness.services.blobs.pathOf('aa'.repeat(32)).replace(/\/blobs\/.*/, '');
    await closeServices(harness.services);
    const again = await openServices(dataFolder);
    const states = (await again.store.files.find()).map((file) => [file.state, file.failure]);
    expect(states.every(([state, failure]) => failure === null && state !== 'failed')).toBe(true);
    expect(states.some(([state]) => state !== 'done')).toBe(true);
    await resumeWork(again);
    await again.work.runner.idle();
    expect((await again.store.files.find()).map((file) => file.state)).toEqual(['done', 'done', 'done', 'done']);
    await closeServices(again);
    await rm(dataFolder, { recursive: true, force: true });
    expect(at).toContain(trial.id);
  });

  it('a worker that dies is replaced: its file is tried again, then failed with a reason, and the others go on', async () => {
    const entry = join(folder, 'dying.mjs');
    const real = new URL('./worker.mjs', import.meta.url).href;
    // Dies on every file that is called deadly; the path of a file is its hash, so the length of the audio tells it.
    await writeFile(
      entry,
      `import { statSync } from 'node:fs';\nconst { default: work } = await import(${JSON.stringify(real)});\nexport default (given) => (given.task.path && statSync(given.task.path).size < 200000 ? process.exit(7) : work(given));\n`,
    );
    const harness = await openHarness(pathToFileURL(entry));
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'deadly.wav', plainWav(spoken(-26, -60, 1).subarray(0, 48_000)));
    await harness.upload(trial.id, 'good.wav', plainWav(spoken(-26, -60, 2)));
    await harness.services.work.runner.idle();
    const files = (await harness.call<FileRow[]>('GET', `${at}/files`)).body;
    const byName = Object.fromEntries(files.map((file) => [file.name, file]));
    expect(byName['good.wav']).toMatchObject({ state: 'done', failure: null });
    expect(byName['deadly.wav']).toMatchObject({ state: 'failed', failure: expect.stringContaining(`tried ${MOST_ATTEMPTS} times`) });
    await harness.close();
  });
});

describe('the runner', () => {
  let store: OpenedStore;
  beforeEach(async () => {
    store = await openStore(folder);
  });
  afterEach(() => store.close());
  const job = (subjectId = newId(), priority = PRIORITY.bulk) => ({ kind: 'measure' as const, trialId: null, subjectId, key: subjectId, priority });
  const handlers = (run: JobHandler['run']) => ({
    measure: { run, resumes: true },
    against: { run, resumes: true },
    backup: { run, resumes: true },
    pair: { run, resumes: false },
    cut: { run, resumes: false },
    clip: { run, resumes: false },
    tone: { run, resumes: false },
    plan: { run, resumes: false },
    places: { run, resumes: false },
    levels: { run, resumes: false },
    doubt: { run, resumes: false },
    allocation: { run, resumes: false },
    effects: { run, resumes: false },
  });

  it('does what a person waits for before bulk work, though that was there first', async () => {
    const done: string[] = [];
    let open: () => void = () => undefined;
    const gate = new Promise<void>((resolve) => {
      open = resolve;
    });
    const runner = openRunner(
      store,
      handlers(async ({ subjectId }: Job) => {
        await gate;
        done.push(subjectId);
      }),
      1,
    );
    const bulk = Array.from({ length: 4 }, () => newId());
    await runner.add(bulk.map((id) => job(id)));
    const wanted = newId();
    const waiting = runner.waitFor({ ...job(wanted), kind: 'pair', priority: PRIORITY.waitedFor });
    open();
    await waiting;
    await runner.idle();
    expect(done.indexOf(wanted)).toBeLessThanOrEqual(1);
    expect(done).toHaveLength(5);
  });

  it('tries what broke again, but not what its input rules out', async () => {
    const tries = new Map<string, number>();
    const [flaky, wrong] = [newId(), newId()];
    const runner = openRunner(
      store,
      handlers(async ({ subjectId }) => {
        const count = (tries.get(subjectId) ?? 0) + 1;
        tries.set(subjectId, count);
        if (subjectId === wrong) throw new JobFailure('This is no audio');
        if (count < 3) throw new Error('a thread died');
      }),
      2,
    );
    await runner.add([job(flaky), job(wrong)]);
    await runner.idle();
    expect([tries.get(flaky), tries.get(wrong)]).toEqual([3, 1]);
    const rows = await store.jobs.find();
    expect(rows.find((row) => row.subjectId === flaky)).toMatchObject({ state: 'done', failure: null });
    expect(rows.find((row) => row.subjectId === wrong)).toMatchObject({ state: 'failed', failure: 'This is no audio' });
  });

  it('who waits for a job that is cancelled is told so, however it ended, and how far it was is written down', async () => {
    let began: () => void = () => undefined;
    const begun = new Promise<void>((resolve) => {
      began = resolve;
    });
    const runner = openRunner(
      store,
      handlers(async (_job, signal, onProgress) => {
        await new Promise((_resolve, reject) => {
          signal.addEventListener('abort', () => reject(new Error('a thread was ended')));
          const told = setInterval(() => onProgress(0.4), 100);
          signal.addEventListener('abort', () => clearInterval(told));
          began();
        });
      }),
      1,
    );
    const wanted = newId();
    const waiting = expect(runner.waitFor({ ...job(wanted), kind: 'pair' })).rejects.toBeInstanceOf(JobCancelled);
    await begun;
    await vi.waitUntil(async () => (await store.jobs.findOneBy({ subjectId: wanted }))?.progress === 0.4, { timeout: 20_000 });
    await runner.cancel({ kind: 'pair', subjectId: wanted });
    await waiting;
    expect(await store.jobs.findOneBy({ subjectId: wanted })).toMatchObject({ state: 'cancelled', failure: 'It was cancelled' });
  });

  it('cancels what waits and what runs, and takes a failed one up again', async () => {
    let broken = true;
    const runner = openRunner(
      store,
      handlers(async (_job, signal) => {
        if (!broken) return;
        await new Promise((_resolve, reject) => signal.addEventListener('abort', () => reject(new Error('stopped'))));
      }),
      1,
    );
    const [running, waiting] = [newId(), newId()];
    await runner.add([job(running), job(waiting)]);
    expect(await runner.cancel({ kind: 'measure', subjectId: waiting })).toBe(true);
    expect(await runner.cancel({ kind: 'measure', subjectId: running })).toBe(true);
    await runner.idle();
    const rows = await store.jobs.find();
    expect(rows.map((row) => row.state)).toEqual(['cancelled', 'cancelled']);
    broken = false;
    expect(await runner.retry(rows[0]!.id)).toBe(true);
    await runner.idle();
    expect((await store.jobs.findOneByOrFail({ id: rows[0]!.id })).state).toBe('done');
  });
});

describe('live events', () => {
  it('a page that was cut off hears what it missed, and asks for everything when that cannot be said', () => {
    const events = openEvents();
    const heard: string[] = [];
    const stop = events.listen('t', ({ id }) => heard.push(id));
    events.tell('t', { type: 'file', fileId: 'a' });
    stop();
    events.tell('t', { type: 'records', tags: ['Plan'], page: null });
    events.tell('t', { type: 'progress', fileId: 'a', share: 0.5 });
    expect(events.since('t', heard[0]!).map(({ event }) => event.type)).toEqual(['records']);
    expect(events.since('t', 'another-start-3').map(({ event }) => event.type)).toEqual(['all']);
    for (let index = 0; index < 300; index++) events.tell('t', { type: 'file', fileId: `${index}` });
    expect(events.since('t', heard[0]!).map(({ event }) => event.type)).toEqual(['all']);
  });
});
