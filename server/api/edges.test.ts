import { newId } from '@marvet/core/domain/identity';
import type { AudioFile } from '@marvet/core/domain/recording';
import type { Listener, Round } from '@marvet/core/domain/round';
import { sine, spoken } from '@marvet/core/testing/signals';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial, recorderWav } from '../testing/harness.ts';
import { heardClips } from '../testing/heardClips.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await openHarness();
});
afterAll(() => harness.close());

type Told = { error: { code: string; message: string; fields?: Record<string, string> } };
const strange = newId();

describe('what is not there is told as such', () => {
  it.each([
    ['GET', `/trials/${strange}`],
    ['PATCH', `/trials/${strange}`],
    ['POST', `/trials/${strange}/copy`],
    ['DELETE', `/trials/${strange}/criteria/${strange}`],
    ['DELETE', `/trials/${strange}/files/${strange}`],
    ['DELETE', `/trials/${strange}/takes/${strange}`],
    ['DELETE', `/trials/${strange}/rounds/${strange}`],
    ['GET', `/trials/${strange}/recordings/${strange}`],
    ['GET', `/trials/${strange}/recordings/${strange}/audio`],
    ['GET', `/trials/${strange}/verdict`],
    ['GET', `/trials/${strange}/plan/run-sheet.csv`],
    ['GET', `/listen/${strange}`],
    ['GET', `/listen/${strange}/pieces/0`],
    ['POST', `/listen/${strange}/finish`],
    ['DELETE', `/items/${strange}`],
    ['GET', '/trials/not-an-id'],
  ])('%s %s', async (method, path) => {
    const answer = await harness.call<Told>(method, path, method === 'PATCH' ? { version: 1 } : undefined);
    expect([answer.status, answer.body.error.code]).toEqual([404, 'not-found']);
  });

  it('an upload to a trial that is not there is refused', async () => {
    expect((await harness.upload(strange, 'a.wav', plainWav(spoken(-26, -60, 1)))).status).toBe(404);
  });
});

describe('what is sent wrongly is named by its field', () => {
  it.each([
    ['items', { kind: 'kite', name: 'x' }, 'kind'],
    ['items', { kind: 'microphone', name: 'x', sensitivityMvPerPa: 0 }, 'sensitivityMvPerPa'],
    ['items', { kind: 'microphone', name: 'x', currency: 'euro' }, 'currency'],
  ])('%s %j', async (path, body, field) => {
    const answer = await harness.call<Told>('POST', `/${path}`, body);
    expect(answer.status).toBe(422);
    expect(Object.keys(answer.body.error.fields ?? {})).toEqual([field]);
  });

  it.each([
    ['chains', { name: 'x', tape: { kind: 0, letters: 'toolong' } }, 'tape.letters'],
    ['chains', { name: 'x', tape: { kind: 0, letters: 'AB' }, links: [{ itemId: strange, settings: { gainDb: 200 } }] }, 'links.0.settings.gainDb'],
    ['stations', { name: 'x', hazards: ['shark'] }, 'hazards.0'],
    ['scripts', { name: 'x', lengthS: 0 }, 'lengthS'],
  ])('%s %j', async (path, body, field) => {
    const { at } = await readyTrial(harness);
    const answer = await harness.call<Told>('POST', `${at}/${path}`, body);
    expect(answer.status).toBe(422);
    expect(Object.keys(answer.body.error.fields ?? {})).toEqual([field]);
  });

  it('a plan that is refused leaves the plan as it was', async () => {
    const { at } = await readyTrial(harness);
    const before = (await harness.call<object>('GET', `${at}/plan`)).body;
    expect((await harness.call('PUT', `${at}/plan`, { ...before, overheadS: -1 })).status).toBe(422);
    expect((await harness.call('GET', `${at}/plan`)).body).toEqual(before);
  });
});

describe('listening rounds', () => {
  async function measured() {
    const { trial, at, chains } = await readyTrial(harness);
    await harness.upload(trial.id, 'S001.wav', recorderWav([spoken(-26, -60, 1), spoken(-32, -50, 5)], '1', '1', ['QU', 'LO']));
    await harness.services.work.runner.idle();
    const ids = (await harness.call<{ id: string }[]>('GET', `${at}/recordings`)).body.map((row) => row.id);
    const criterion = (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0 })).body.id;
    return { trial, at, chains, ids, criterion };
  }

  it('need two recordings, a listened criterion of this trial, and a loudness', async () => {
    const { trial, at, ids, criterion } = await measured();
    const make = (recordingIds: string[], criterionIds: string[]) => harness.call<Told>('POST', `${at}/rounds`, { title: 'R', recordingIds, criterionIds });
    expect((await make(ids.slice(0, 1), [criterion])).body.error.fields).toHaveProperty('recordingIds');
    expect((await make(ids, [strange])).body.error.fields).toHaveProperty('criterionIds');
    expect((await make([ids[0]!, strange], [criterion])).body.error.code).toBe('not-measured');
    await harness.upload(trial.id, 'quiet.wav', plainWav(sine(1000, -90, 2)));
    await harness.services.work.runner.idle();
    const quiet = (await harness.call<{ id: string; fileName: string }[]>('GET', `${at}/recordings`)).body.find((row) => row.fileName === 'quiet.wav');
    expect((await make([ids[0]!, quiet!.id], [criterion])).body.error.code).toBe('not-measured');
  });

  it('clips of different files are made one length too', async () => {
    const { trial, at, ids, criterion } = await measured();
    await harness.upload(trial.id, 'longer.wav', plainWav(Float64Array.from([...spoken(-24, -60, 30), ...spoken(-24, -60, 40)])));
    await harness.services.work.runner.idle();
    const longer = (await harness.call<{ id: string; fileName: string }[]>('GET', `${at}/recordings`)).body.find((row) => row.fileName === 'longer.wav');
    const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'R', recordingIds: [ids[0], longer!.id], criterionIds: [criterion] })).body;
    const { id } = (await harness.call<Listener>('POST', `${at}/rounds/${round.id}/listeners`, { name: 'Orla', listenedOn: 'buds' })).body;
    const { clips } = await heardClips((address) => harness.raw('GET', address), `/listen/${id}/pieces`);
    const [frames, other] = clips.map(([samples]) => samples!.length);
    expect(frames).toBe(other);
    // Past the end there is nothing.
    expect((await harness.call('GET', `/listen/${id}/pieces/${Math.ceil(frames! / 96_000)}`)).status).toBe(404);
  });

  it('scores outside the scale, of other clips or criteria are refused', async () => {
    const { at, ids, criterion } = await measured();
    const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'R', recordingIds: ids, criterionIds: [criterion] })).body;
    const { id } = (await harness.call<Listener>('POST', `${at}/rounds/${round.id}/listeners`, { name: 'Tam', listenedOn: 'buds' })).body;
    const rate = (rating: object) => harness.call<Told>('PUT', `/listen/${id}/ratings`, { letter: 'A', criterionId: criterion, points: 5, reason: '', ...rating });
    expect((await rate({ points: 11 })).body.error.fields).toHaveProperty('points');
    expect((await rate({ points: 2.5 })).body.error.fields).toHaveProperty('points');
    expect((await rate({ letter: 'C' })).status).toBe(404);
    expect((await rate({ criterionId: strange })).status).toBe(404);
    expect((await rate({})).status).toBe(200);
  });

  it('of a deleted listener do not count, and count again when brought back', async () => {
    const { at, ids, criterion } = await measured();
    const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'R', recordingIds: ids, criterionIds: [criterion] })).body;
    const { id } = (await harness.call<Listener>('POST', `${at}/rounds/${round.id}/listeners`, { name: 'Tam', listenedOn: 'buds' })).body;
    for (const letter of ['A', 'B']) await harness.call('PUT', `/listen/${id}/ratings`, { letter, criterionId: criterion, points: 6, reason: '' });
    await harness.call('POST', `/listen/${id}/finish`);
    const missing = async () => (await harness.call<{ missing: { criterionIds: string[] }[] }>('GET', `${at}/verdict`)).body.missing.map((each) => each.criterionIds.length);
    expect(await missing()).toEqual([0, 0]);
    await harness.call('DELETE', `${at}/rounds/${round.id}/listeners/${id}`);
    expect(await missing()).toEqual([1, 1]);
    await harness.call('POST', `/restore/listeners/${id}`);
    expect(await missing()).toEqual([0, 0]);
  });
});

describe('items and ranges', () => {
  it('an item is binned and brought back', async () => {
    const { id } = (await harness.call<{ id: string }>('POST', '/items', { kind: 'cable', name: 'Long cable' })).body;
    await harness.call('DELETE', `/items/${id}`);
    expect((await harness.call<{ id: string }[]>('GET', '/items')).body.some((item) => item.id === id)).toBe(false);
    expect((await harness.call<{ id: string }[]>('GET', '/restore/items')).body.some((item) => item.id === id)).toBe(true);
    await harness.call('POST', `/restore/items/${id}`);
    expect((await harness.call<{ id: string }[]>('GET', '/items')).body.some((item) => item.id === id)).toBe(true);
  });

  it('a range past the end is refused, an open one runs to the end', async () => {
    const { trial, at } = await readyTrial(harness);
    const bytes = plainWav(spoken(-26, -60, 77));
    await harness.upload(trial.id, 'a.wav', bytes);
    const [file] = (await harness.call<AudioFile[]>('GET', `${at}/files`)).body;
    const range = (value: string) => harness.call('GET', `${at}/files/${file!.id}/audio`, undefined, { range: value });
    expect((await range(`bytes=${bytes.byteLength}-`)).status).toBe(416);
    expect((await range(`bytes=${bytes.byteLength - 10}-`)).headers.get('content-length')).toBe('10');
  });
});
