import { readdir } from 'node:fs/promises';
import type { FileRow, RecordingDetail, RecordingRow } from '@marvet/core/contract/recordings';
import type { Criterion, StoredCriterion } from '@marvet/core/domain/criterion';
import { newId } from '@marvet/core/domain/identity';
import type { Plan } from '@marvet/core/domain/plan';
import type { Listener, Round } from '@marvet/core/domain/round';
import type { Take } from '@marvet/core/domain/take';
import type { Trial } from '@marvet/core/domain/trial';
import { spoken } from '@marvet/core/testing/signals';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial, recorderWav } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await openHarness();
});
afterAll(() => harness.close());

type Told<Current = unknown> = { error: { code: string; message: string; current?: Current } };
const get = async <Result>(path: string) => (await harness.call<Result>('GET', path)).body;

describe('writes of several at once', () => {
  it('an item that was answered is there, though a request beside it failed and was rolled back', async () => {
    let release: () => void = () => undefined;
    const held = new Promise<void>((resolve) => {
      release = resolve;
    });
    const failing = harness.services.store.write(async (tables) => {
      await tables.items.insert({ ...(await tables.items.find())[0], id: newId() } as never).catch(() => undefined);
      await held;
      throw new Error('rolled back');
    });
    const answered = harness.call<{ id: string }>('POST', '/items', { kind: 'cable', name: 'Ferry line' });
    release();
    await expect(failing).rejects.toThrow('rolled back');
    const { status, body } = await answered;
    expect(status).toBe(201);
    expect((await get<{ id: string }[]>('/items')).map((item) => item.id)).toContain(body.id);
  });
});

describe('making slates again', () => {
  const untick = (plan: Plan, kind: string, keep: string) => ({
    factors: plan.factors.map((factor) => (factor.kind === kind ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id === keep })) } : factor)),
  });

  it('keeps what has a note, a line or a file; the rest is in the bin; no number is given twice', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.change(`${at}/plan`, untickAll(await get<Plan>(`${at}/plan`)));
    await harness.call('POST', `${at}/plan/commit`);
    const takes = await get<Take[]>(`${at}/takes`);
    expect(takes.map((take) => take.slate)).toEqual([1, 2, 3]);
    await harness.call('POST', `${at}/log`, { lines: [{ id: newId(), takeId: takes[1]!.id, atMs: 1, kind: 'note', text: 'gulls' }] });
    await harness.upload(trial.id, 'S003_T01.wav', plainWav(spoken(-26, -60, 3)));
    const plan = await get<Plan>(`${at}/plan`);
    await harness.change(`${at}/plan`, untick(plan, 'distance', 'none'));
    await harness.change(`${at}/plan`, {
      factors: [
        ...untick(plan, 'distance', '').factors.map((factor) =>
          factor.kind === 'distance' ? { ...factor, levels: [{ id: '77', label: '77 m', value: 77, ticked: true }] } : factor,
        ),
      ],
    });
    const result = (await harness.call<{ stayed: number; dropped: number }>('POST', `${at}/plan/commit`)).body;
    expect(result).toMatchObject({ dropped: 1, stayed: 2 });
    const after = await get<Take[]>(`${at}/takes`);
    expect(after.map((take) => [take.slate, take.note]).sort()).toEqual([
      [2, 'gulls'],
      [3, ''],
      [4, ''],
    ]);
    expect((await get<FileRow[]>(`${at}/files`))[0]?.takeId).toBe(takes[2]!.id);
    expect((await get<{ kind: string; name: string }[]>(`${at}/bin`)).map((row) => row.name)).toContain('Take 01');
  });

  function untickAll(plan: Plan) {
    return { factors: plan.factors.map((factor) => (factor.kind === 'distance' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: true })) } : factor)) };
  }

  it('an edit that is made while slates are worked out is not undone', async () => {
    const { at } = await readyTrial(harness);
    for (let round = 0; round < 4; round++) {
      const name = `Control ${round}`;
      const plan = await get<Plan>(`${at}/plan`);
      await Promise.all([harness.call('POST', `${at}/plan/commit`), harness.call('PUT', `${at}/plan`, { ...plan, controls: [...plan.controls, { name, value: 'x' }] })]);
      const now = await get<Plan>(`${at}/plan`);
      // Either it was taken, and stays; or it was refused as overtaken, and nothing of it was half done.
      expect(now.version).toBeGreaterThan(plan.version);
      expect(now.controls.length === plan.controls.length + 1 || now.committedAtMs !== plan.committedAtMs).toBe(true);
    }
  });
});

describe('two pages on one trial', () => {
  it('the one that is behind overwrites nothing, and is shown the record as it is', async () => {
    const { at } = await readyTrial(harness);
    const plan = await get<Plan>(`${at}/plan`);
    expect((await harness.call('PUT', `${at}/plan`, { ...plan, controls: [{ name: 'Talker', value: 'Ferrier' }] })).status).toBe(200);
    const stale = await harness.call<Told<Plan>>('PUT', `${at}/plan`, { ...plan, repeats: 3 });
    expect(stale).toMatchObject({ status: 409, body: { error: { code: 'changed', current: { controls: [{ name: 'Talker' }], repeats: 1 } } } });
    expect(await get<Plan>(`${at}/plan`)).toMatchObject({ controls: [{ name: 'Talker' }], repeats: 1 });
  });

  it.each(['criteria', 'chains', 'stations', 'scripts'])('the same of %s', async (path) => {
    const { at } = await readyTrial(harness);
    if (path === 'criteria') await harness.call('POST', `${at}/criteria`, { name: 'Tone', kind: 'listened', weight: 1, best: 10, worst: 0 });
    const [row] = await get<{ id: string; version: number; name: string }[]>(`${at}/${path}`);
    expect((await harness.call('PUT', `${at}/${path}/${row!.id}`, { ...row, name: 'first' })).status).toBe(200);
    expect((await harness.call<Told<Criterion>>('PUT', `${at}/${path}/${row!.id}`, { ...row, name: 'second' })).body.error.current).toMatchObject({ name: 'first' });
    expect((await get<StoredCriterion[]>(`${at}/${path}`)).find((each) => each.id === row!.id)?.name).toBe('first');
  });

  it('and of the trial itself; without a version nothing is changed', async () => {
    const { at } = await readyTrial(harness);
    const { version } = await get<Trial>(at);
    await harness.call('PATCH', at, { use: 'one lead', version });
    expect((await harness.call<Told>('PATCH', at, { use: 'two leads', version })).status).toBe(409);
    expect((await harness.call<Told>('PATCH', at, { use: 'three leads' })).status).toBe(422);
    expect((await get<Trial>(at)).use).toBe('one lead');
  });
});

describe('files while they are measured', () => {
  const long = () => plainWav(...Array.from({ length: 10 }, (_, index) => spoken(-26, -70, 50 + index)));

  it('room tone that is marked meanwhile is applied', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'long.wav', long());
    const [row] = await get<RecordingRow[]>(`${at}/recordings`);
    expect((await harness.call('PUT', `${at}/recordings/${row!.id}/room-tone`, { roomTone: [0.1, 0.4] })).status).toBe(202);
    await harness.services.work.runner.idle();
    expect((await get<RecordingDetail>(`${at}/recordings/${row!.id}`)).report?.activity.pause).toEqual([[0.1, 0.4]]);
  });

  it('one that is deleted meanwhile and brought back is measured, not failed', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'long.wav', long());
    const [file] = await get<FileRow[]>(`${at}/files`);
    await harness.call('DELETE', `${at}/files/${file!.id}`);
    await harness.call('POST', `${at}/bin/restore`, { kind: 'file', id: file!.id });
    await harness.services.work.runner.idle();
    expect((await get<FileRow[]>(`${at}/files`))[0]).toMatchObject({ state: 'done', failure: null });
  });
});

/** Bytes on the disk that no record speaks of. */
async function leftOver(bytes: Uint8Array): Promise<string> {
  const staged = await harness.services.blobs.stage(
    (async function* () {
      yield bytes;
    })(),
  );
  return (await staged.keep()).sha256;
}

describe('bytes that nothing refers to', () => {
  it('are counted first, and go when that is said; those of the bin stay', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'kept.wav', plainWav(spoken(-26, -60, 91)));
    const [file] = await get<FileRow[]>(`${at}/files`);
    await harness.call('DELETE', `${at}/files/${file!.id}`);
    const sha256 = await leftOver(new TextEncoder().encode('left over'));
    expect(await get('/storage')).toEqual({ count: 1, bytes: 9 });
    expect((await harness.call('POST', '/storage/collect')).body).toEqual({ count: 1, bytes: 9 });
    expect(await get('/storage')).toEqual({ count: 0, bytes: 0 });
    expect(harness.services.blobs.has(sha256)).toBe(false);
    expect(harness.services.blobs.has(file!.sha256)).toBe(true);
  });

  it('a file that comes in while loose bytes are cleared away keeps its own, though they lay there loose before', async () => {
    const { store, blobs } = harness.services;
    const { trial, at } = await readyTrial(harness);
    const bytes = plainWav(spoken(-26, -60, 92));
    const sha256 = await leftOver(bytes);
    let release: () => void = () => undefined;
    const held = store.write(() => new Promise<void>((resolve) => (release = resolve)));
    const writes = vi.spyOn(store, 'write');
    const collected = harness.call('POST', '/storage/collect');
    await vi.waitFor(() => expect(writes).toHaveBeenCalledTimes(1));
    const uploaded = harness.upload(trial.id, 'again.wav', bytes);
    await vi.waitFor(() => expect(writes).toHaveBeenCalledTimes(2));
    release();
    await Promise.all([held, collected, uploaded]);
    writes.mockRestore();
    expect(blobs.has(sha256)).toBe(true);
    await harness.services.work.runner.idle();
    expect((await get<FileRow[]>(`${at}/files`))[0]).toMatchObject({ sha256, state: 'done' });
  });

  it('a refused file leaves none', async () => {
    const { trial } = await readyTrial(harness);
    const before = (await readdir(harness.services.blobs.pathOf('00'.repeat(32)).replace(/\/00\/.*$/, ''))).length;
    expect((await harness.upload(trial.id, 'no.wav', new Uint8Array(5000))).status).toBe(422);
    expect(await get('/storage')).toMatchObject({ count: 0 });
    expect((await readdir(harness.services.blobs.pathOf('00'.repeat(32)).replace(/\/00\/.*$/, ''))).length).toBe(before);
  });
});

describe('blind listening of several', () => {
  it('no scores and no identities before every listener of the round is done', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'S001.wav', recorderWav([spoken(-26, -70, 1), spoken(-30, -60, 7)], '1', '1', ['QU', 'LO']));
    await harness.services.work.runner.idle();
    const criterion = (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0 })).body;
    const ids = (await get<RecordingRow[]>(`${at}/recordings`)).map((row) => row.id);
    const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'R', recordingIds: ids, criterionIds: [criterion.id] })).body;
    const seat = async (name: string) => (await harness.call<Listener>('POST', `${at}/rounds/${round.id}/listeners`, { name, listenedOn: 'buds' })).body.id;
    const [first, second] = [await seat('Orla'), await seat('Tam')];
    const score = async (id: string) => {
      for (const letter of ['A', 'B']) await harness.call('PUT', `/listen/${id}/ratings`, { letter, criterionId: criterion.id, points: 5, reason: 'secret reason' });
      await harness.call('POST', `/listen/${id}/finish`);
    };
    await score(first);
    const between = await harness.call<Round[]>('GET', `${at}/rounds`);
    expect(between.text).not.toContain('secret reason');
    expect(between.body[0]!.listeners.map((listener) => listener.letters)).toEqual([null, null]);
    await score(second);
    expect((await get<Round[]>(`${at}/rounds`))[0]!.listeners.every((listener) => listener.letters !== null && listener.ratings.length === 2)).toBe(true);
  });
});
