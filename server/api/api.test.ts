import { newId } from '@marvet/core/domain/identity';
import type { Take } from '@marvet/core/domain/take';
import type { Trial } from '@marvet/core/domain/trial';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await openHarness();
});
afterAll(() => harness.close());

type Told = { error: { code: string; message: string; fields?: Record<string, string> } };

describe('the door', () => {
  it('says that it is well', async () => {
    expect(await harness.call('GET', '/health')).toMatchObject({ status: 200, body: { status: 'ok', version: 'test' } });
  });

  it.each([
    ['another host', { host: 'evil.example' }, 403, 'wrong-host'],
    ['another origin', { origin: 'http://evil.example' }, 403, 'wrong-origin'],
    ['a form from elsewhere', { 'sec-fetch-site': 'cross-site' }, 403, 'wrong-origin'],
    ['something that is not JSON', { 'content-type': 'text/plain' }, 415, 'not-json'],
  ])('refuses %s', async (_what, headers, status, code) => {
    const answer = await harness.call<Told>('POST', '/trials', { name: 'x' }, headers);
    expect([answer.status, answer.body.error.code]).toEqual([status, code]);
  });

  it('refuses broken JSON, unknown addresses and bodies that are too large', async () => {
    expect((await harness.call<Told>('POST', '/trials', '{"name":')).body.error.code).toBe('not-json');
    expect((await harness.call<Told>('GET', '/nothing')).status).toBe(404);
    expect((await harness.call<Told>('POST', '/trials', JSON.stringify({ name: 'x'.repeat(3 << 20) }))).body.error.code).toBe('too-large');
  });

  it('allows no foreign script', async () => {
    const policy = (await harness.call('GET', '/health')).headers.get('content-security-policy') ?? '';
    expect(policy).toContain("script-src 'self'");
    expect(policy).not.toContain('unsafe');
  });
});

describe('trials', () => {
  it('are made, changed, copied without takes, binned and brought back', async () => {
    const { trial, at } = await readyTrial(harness);
    expect((await harness.change<Trial>(at, { use: 'one lead' })).body).toMatchObject({ use: 'one lead', question: 'Which one?' });
    const copy = (await harness.call<Trial>('POST', `${at}/copy`)).body;
    expect(copy).toMatchObject({ name: 'Jetty (copy)', progress: { candidates: 2, planned: 0 } });
    const plan = (await harness.call<{ factors: { kind: string; levels: { label: string }[] }[] }>('GET', `/trials/${copy.id}/plan`)).body;
    expect(plan.factors.find((factor) => factor.kind === 'candidate')?.levels.map((level) => level.label)).toEqual(['Quoin', 'Lodestar']);
    await harness.call('DELETE', at);
    expect((await harness.call<Trial>('GET', at)).body.binnedAtMs).not.toBeNull();
    await harness.call('POST', `${at}/restore`);
    expect((await harness.call<Trial>('GET', `/trials/${trial.id}`)).body.binnedAtMs).toBeNull();
  });

  it('name the field, the reason and keep what was there', async () => {
    const { at } = await readyTrial(harness);
    const answer = await harness.change<Told>(at, { name: '  ' });
    expect(answer).toMatchObject({ status: 422, body: { error: { code: 'invalid', fields: { name: 'Give it a name' } } } });
    expect((await harness.call<Trial>('GET', at)).body.name).toBe('Jetty');
  });

  it('keep the expectation sealed until the verdict is opened', async () => {
    const { at, chains } = await readyTrial(harness);
    const sealed = await harness.call('PUT', `${at}/expectation`, { person: 'Orla', candidateId: chains[1], reason: 'it is dear' });
    expect(sealed.text).not.toContain(chains[1]);
    expect((await harness.call('GET', at)).text).not.toContain('it is dear');
    expect((await harness.call('GET', '/trials')).text).not.toContain('it is dear');
    const opened = await harness.call<Trial>('POST', `${at}/verdict/open`);
    expect(opened.body.expectations).toMatchObject([{ person: 'Orla', revealed: { candidateId: chains[1], reason: 'it is dear' } }]);
    expect((await harness.call<Told>('PUT', `${at}/expectation`, { person: 'Orla', candidateId: chains[0], reason: '' })).status).toBe(409);
  });
});

describe('records of a trial', () => {
  it.each([
    ['criteria', 'criterion', { name: 'Tone', kind: 'listened', weight: 1, best: 10, worst: 0 }, { weight: 5 }],
    ['stations', 'station', { name: 'slipway', hazards: ['water'] }, { indoors: true }],
    ['scripts', 'script', { name: 'Whisper', lengthS: 6 }, { talker: 'Ferrier' }],
    ['placements', 'placement', { name: 'collar', belowChinM: 0.06 }, { distanceM: 0.14 }],
    ['rigs', 'rig', { name: 'under wool', clothLayers: 2 }, { clothLossDb: 5 }],
    ['chains', 'chain', { name: 'Boom', tape: { kind: 2, letters: 'BM' } }, { remark: 'short' }],
  ])('%s: made, changed, binned, brought back', async (path, kind, draft, change) => {
    const { at } = await readyTrial(harness);
    const made = (await harness.call<{ id: string }>('POST', `${at}/${path}`, draft)).body;
    expect((await harness.change(`${at}/${path}/${made.id}`, change)).body).toMatchObject(change);
    await harness.call('DELETE', `${at}/${path}/${made.id}`);
    const ids = async () => (await harness.call<{ id: string }[]>('GET', `${at}/${path}`)).body.map((row) => row.id);
    expect(await ids()).not.toContain(made.id);
    expect((await harness.call('GET', `${at}/bin`)).body).toMatchObject([{ kind, id: made.id, name: draft.name }]);
    await harness.call('POST', `${at}/bin/restore`, { kind, id: made.id });
    expect(await ids()).toContain(made.id);
  });

  it('a change that is refused leaves the record as it was', async () => {
    const { at } = await readyTrial(harness);
    const draft = { name: 'Tone', kind: 'listened', weight: 1, best: 10, worst: 0 };
    const { id } = (await harness.call<{ id: string }>('POST', `${at}/criteria`, draft)).body;
    expect((await harness.change<Told>(`${at}/criteria/${id}`, { worst: 10 })).body.error.fields).toHaveProperty('worst');
    expect((await harness.call('GET', `${at}/criteria`)).body).toMatchObject([draft]);
  });

  it('of another trial are out of reach', async () => {
    const { chains } = await readyTrial(harness);
    const other = await readyTrial(harness);
    expect((await harness.call('DELETE', `${other.at}/chains/${chains[0]}`)).status).toBe(404);
  });
});

describe('placements and rigs of the library', () => {
  it.each([
    ['placements', { name: 'collar', belowChinM: 0.06, distanceM: 0.14 }],
    ['rigs', { name: 'under wool', clothLayers: 2, clothLossDb: 5 }],
  ])('%s: kept once for all trials, removed, brought back', async (path, draft) => {
    const { at } = await readyTrial(harness);
    const library = `/library/${path}`;
    const names = async () => (await harness.call<{ name: string }[]>('GET', library)).body.map((row) => row.name);
    const kept = (await harness.call<{ id: string }>('POST', library, draft)).body;
    expect(kept).toMatchObject({ ...draft, trialId: null });
    const second = await harness.call<Told>('POST', library, { ...draft, name: draft.name.toUpperCase() });
    expect(second.status).toBe(409);
    expect(second.body.error.message).toContain('already');
    expect((await harness.call('GET', `${at}/${path}`)).body).toEqual([]);
    expect((await harness.call('DELETE', `${at}/${path}/${kept.id}`)).status).toBe(404);
    expect((await harness.call('DELETE', `${library}/${kept.id}`)).status).toBe(204);
    expect(await names()).toEqual([]);
    expect((await harness.call('POST', `${library}/${kept.id}/restore`)).status).toBe(204);
    expect(await names()).toEqual([draft.name]);
    await harness.call('DELETE', `${library}/${kept.id}`);
  });

  it('a record of a trial is none of the library', async () => {
    const { at } = await readyTrial(harness);
    const own = (await harness.call<{ id: string }>('POST', `${at}/rigs`, { name: 'on skin' })).body;
    expect((await harness.call('DELETE', `/library/rigs/${own.id}`)).status).toBe(404);
    expect((await harness.call('POST', `/library/rigs/${own.id}/restore`)).status).toBe(404);
  });
});

describe('plan and field log', () => {
  it('a plan without levels says what is missing', async () => {
    const trial = (await harness.call<Trial>('POST', '/trials', { name: 'Bare' })).body;
    expect((await harness.call<Told>('POST', `/trials/${trial.id}/plan/commit`)).body.error.message).toContain('tick at least one station');
  });

  it('a take is the sum of its lines, each counted once, however often they are sent', async () => {
    const { at } = await readyTrial(harness);
    const [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    const again = newId();
    const line = (kind: string, atMs: number, rest = {}) => ({ id: newId(), takeId: take!.id, atMs, kind, ...rest });
    const lines = [line('start', 1000), line('flag', 2000, { flag: 'wind' }), line('stop', 9000), line('redo', 9500, { newTakeId: again })];
    for (const batch of [lines.slice(0, 2), lines, lines]) expect((await harness.call('POST', `${at}/log`, { lines: batch })).status).toBe(200);
    const takes = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    expect(takes).toMatchObject([
      { status: 'done', pass: 1, startedAtMs: 1000, stoppedAtMs: 9000, flags: [{ flag: 'wind' }] },
      { id: again, status: 'planned', pass: 2, flags: [] },
    ]);
    expect((await harness.call('GET', `${at}/log`)).body).toHaveLength(4);
  });

  it('a line for a take that is gone is kept and named', async () => {
    const { at } = await readyTrial(harness);
    const stray = { id: newId(), takeId: newId(), atMs: 5, kind: 'stop' };
    expect((await harness.call('POST', `${at}/log`, { lines: [stray] })).body).toEqual({ accepted: [stray.id], unknown: [stray.id], refused: [], clockBehindMs: 0 });
    expect((await harness.call('GET', `${at}/log`)).body).toEqual([stray]);
  });

  it('a bad line is refused with its reason, and holds nothing else up', async () => {
    const { at } = await readyTrial(harness);
    const [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    const good = { id: newId(), takeId: take!.id, atMs: 1, kind: 'stop' };
    const bad = { id: newId(), takeId: take!.id, atMs: 2, kind: 'conditions', windMs: 99, noiseDba: null };
    expect((await harness.call('POST', `${at}/log`, { lines: [bad, good] })).body).toEqual({
      accepted: [good.id],
      unknown: [],
      refused: [{ id: bad.id, why: 'Wind is 0 to 60 m/s' }],
      clockBehindMs: 0,
    });
    expect((await harness.call('GET', `${at}/log`)).body).toEqual([good]);
  });

  it('a changed plan keeps what was recorded', async () => {
    const { at } = await readyTrial(harness);
    const [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    await harness.call('POST', `${at}/log`, { lines: [{ id: newId(), takeId: take!.id, atMs: 1, kind: 'stop' }] });
    const plan = (await harness.call<{ factors: { kind: string; levels: { id: string; ticked: boolean }[] }[] }>('GET', `${at}/plan`)).body;
    const factors = plan.factors.map((factor) =>
      factor.kind === 'distance' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id !== '1' })) } : factor,
    );
    await harness.call('PUT', `${at}/plan`, { ...plan, factors });
    expect((await harness.call('POST', `${at}/plan/commit`)).body).toMatchObject({ takes: 3, added: 2, kept: 1, dropped: 0 });
    expect((await harness.call<Take[]>('GET', `${at}/takes`)).body.map((each) => [each.slate, each.status])).toEqual([
      [2, 'planned'],
      [3, 'planned'],
      [1, 'done'],
    ]);
  });

  it('the run sheet is CSV with the words of the plan', async () => {
    const { at } = await readyTrial(harness);
    const sheet = await harness.call('GET', `${at}/plan/run-sheet.csv`);
    expect(sheet.headers.get('content-disposition')).toContain('Jetty run sheet.csv');
    expect(sheet.text.split('\r\n')[1]).toMatch(/^01,jetty,1 m,bare,Neutral,QU LO,/);
  });
});
