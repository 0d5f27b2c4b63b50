import type { Chain } from '@marvet/core/domain/chain';
import type { Criterion } from '@marvet/core/domain/criterion';
import { newId } from '@marvet/core/domain/identity';
import type { Item } from '@marvet/core/domain/item';
import type { Photo } from '@marvet/core/domain/photo';
import type { Plan } from '@marvet/core/domain/plan';
import type { PreflightTick } from '@marvet/core/domain/preflight';
import type { Script } from '@marvet/core/domain/script';
import { STARTING_POINTS } from '@marvet/core/domain/startingPoint';
import type { Station } from '@marvet/core/domain/station';
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
const get = async <Result>(path: string) => (await harness.call<Result>('GET', path)).body;
const freshTrial = async () => (await harness.call<Trial>('POST', '/trials', { name: 'Kitchen table' })).body;

describe('a starting point', () => {
  const point = STARTING_POINTS.find((each) => each.id === 'hidden lavalier');

  it('sets criteria, scripts, factors and controls, and fills in the question', async () => {
    const { id } = await freshTrial();
    expect((await harness.call('POST', `/trials/${id}/starting-point`, { id: point!.id })).status).toBe(204);
    expect((await get<Criterion[]>(`/trials/${id}/criteria`)).map((criterion) => [criterion.name, criterion.weight])).toEqual(
      point!.criteria.map((criterion) => [criterion.name, criterion.weight]),
    );
    expect((await get<Script[]>(`/trials/${id}/scripts`)).map((script) => script.name)).toEqual(
      expect.arrayContaining(['Neutral', ...point!.scripts.map((script) => script.name)]),
    );
    const plan = await get<Plan>(`/trials/${id}/plan`);
    expect(
      plan.factors
        .find((factor) => factor.kind === 'placement')
        ?.levels.filter((level) => level.ticked)
        .map((level) => level.label),
    ).toEqual(['breastbone', 'collar']);
    expect(await get<Trial>(`/trials/${id}`)).toMatchObject({ question: point!.question, use: point!.use });
  });

  it('puts the criteria that were there into the bin, and can be taken twice', async () => {
    const { id } = await freshTrial();
    await harness.call('POST', `/trials/${id}/criteria`, { name: 'Mine', kind: 'listened', weight: 1, best: 10, worst: 0 });
    for (let time = 0; time < 2; time++) await harness.call('POST', `/trials/${id}/starting-point`, { id: 'recorder' });
    expect(await get<Criterion[]>(`/trials/${id}/criteria`)).toHaveLength(5);
    expect((await get<{ name: string }[]>(`/trials/${id}/bin`)).map((row) => row.name)).toContain('Mine');
    const names = (await get<Script[]>(`/trials/${id}/scripts`)).map((script) => script.name);
    expect(new Set(names).size).toBe(names.length);
  });

  it('is refused once there are takes, and when there is no such one', async () => {
    const { at } = await readyTrial(harness);
    expect((await harness.call<Told>('POST', `${at}/starting-point`, { id: 'recorder' })).body.error.code).toBe('has-takes');
    expect((await harness.call<Told>('POST', `${at}/starting-point`, { id: 'nothing' })).body.error.fields).toHaveProperty('id');
  });
});

describe('expectations', () => {
  it('are sealed by each person for themselves, and changed by that person until a take is recorded', async () => {
    const { at, chains } = await readyTrial(harness);
    for (const [person, candidateId] of [
      ['Orla', chains[0]],
      ['Tam', chains[1]],
      ['Orla', chains[1]],
    ]) {
      expect((await harness.call('PUT', `${at}/expectation`, { person, candidateId, reason: 'ears' })).status).toBe(200);
    }
    expect((await get<Trial>(at)).expectations.map(({ person, revealed }) => [person, revealed])).toEqual(
      expect.arrayContaining([
        ['Orla', null],
        ['Tam', null],
      ]),
    );
    const [take] = await get<Take[]>(`${at}/takes`);
    const line = (kind: string, second: number) => ({ id: newId(), atMs: 1_000_000 + second * 1000, takeId: take!.id, kind, ...(kind === 'start' ? { controls: [] } : {}) });
    await harness.call('POST', `${at}/log`, { lines: [line('start', 0), line('stop', 9)] });
    expect((await harness.call('PUT', `${at}/expectation`, { person: 'Orla', candidateId: chains[0], reason: '' })).status).toBe(409);
    expect((await harness.call('PUT', `${at}/expectation`, { person: 'Late', candidateId: chains[0], reason: '' })).status).toBe(200);
    await harness.call('POST', `${at}/verdict/open`);
    expect((await harness.call('PUT', `${at}/expectation`, { person: 'Later', candidateId: chains[0], reason: '' })).status).toBe(409);
    expect((await get<Trial>(at)).expectations.find((each) => each.person === 'Orla')?.revealed?.candidateId).toBe(chains[1]);
  });
});

describe('the library', () => {
  it('goes out and comes in as CSV, replacing what has the same kind and name', async () => {
    await harness.call('POST', '/items', { kind: 'microphone', name: 'Reed', price: 100, sensitivityMvPerPa: 8 });
    const out = await harness.call('GET', '/items/library.csv');
    expect(out.headers.get('content-type')).toContain('text/csv');
    expect(out.text.split('\r\n')[0]).toContain('kind,name,price');
    const result = await harness.call('POST', '/items/import', {
      items: [
        { kind: 'microphone', name: 'Reed', price: 120 },
        { kind: 'cable', name: 'Reed' },
      ],
    });
    expect(result.body).toMatchObject({ added: 1, replaced: [{ draft: { name: 'Reed', price: 100, sensitivityMvPerPa: 8 } }] });
    const reeds = (await get<Item[]>('/items')).filter((item) => item.name === 'Reed');
    expect(reeds.map((item) => [item.kind, item.price])).toEqual(
      expect.arrayContaining([
        ['microphone', 120],
        ['cable', null],
      ]),
    );
    const { added: _added, ...done } = result.body as { added: number };
    const json = (await harness.call('GET', '/items/library.json')).text;
    expect((await harness.call('POST', '/items/import/undo', done)).status).toBe(204);
    expect((await get<Item[]>('/items')).filter((item) => item.name === 'Reed').map((item) => [item.kind, item.price, item.sensitivityMvPerPa])).toEqual([['microphone', 100, 8]]);
    expect(JSON.parse(json)).toContainEqual(expect.objectContaining({ name: 'Reed', price: 120 }));
  });

  it('takes all of a list or nothing, and names the row', async () => {
    const before = (await get<Item[]>('/items')).length;
    const told = await harness.call<Told>('POST', '/items/import', {
      items: [
        { kind: 'microphone', name: 'Good' },
        { kind: 'microphone', name: 'Bad', price: -1 },
      ],
    });
    expect(told).toMatchObject({ status: 422, body: { error: { fields: { 'items.1.price': 'A price is 0 to 1,000,000' } } } });
    expect(await get<Item[]>('/items')).toHaveLength(before);
  });
});

describe('photographs', () => {
  const JPEG = Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]);
  const send = async (query: string, bytes: Uint8Array) => {
    const response = await harness.raw('POST', `/photos?${query}`, bytes);
    return { status: response.status, body: (await response.json()) as Photo & Told };
  };

  it('are kept with their record, shown, binned and brought back', async () => {
    const item = (await harness.call<Item>('POST', '/items', { kind: 'camera', name: 'Box' })).body;
    const { status, body: photo } = await send(`ownerKind=item&ownerId=${item.id}&caption=clip`, JPEG);
    expect([status, photo.type, photo.caption]).toEqual([201, 'image/jpeg', 'clip']);
    const shown = await harness.raw('GET', `/photos/${photo.id}`);
    expect(shown.headers.get('content-type')).toBe('image/jpeg');
    expect(new Uint8Array(await shown.arrayBuffer())).toEqual(JPEG);
    await harness.call('DELETE', `/photos/${photo.id}`);
    expect(await get<Photo[]>('/photos?ownerKind=item')).toEqual([{ ...photo, binnedAtMs: expect.any(Number) }]);
    await harness.call('POST', `/photos/${photo.id}/restore`);
    expect(await get<Photo[]>('/photos?ownerKind=item')).toEqual([photo]);
  });

  it.each([
    ['a page that calls itself a picture', 'item', new TextEncoder().encode('<script>alert(1)</script>'), 422, 'not-image'],
    ['a picture of nothing', 'station', JPEG, 404, 'not-found'],
    ['a picture that was not made smaller', 'item', new Uint8Array(2_000_000 + 200_000).fill(0).map((_, at) => JPEG[at] ?? 0), 413, 'too-large'],
  ])('%s is refused', async (_what, ownerKind, bytes, status, code) => {
    const item = (await harness.call<Item>('POST', '/items', { kind: 'camera', name: 'Box' })).body;
    const told = await send(`ownerKind=${ownerKind}&ownerId=${item.id}`, bytes);
    expect([told.status, told.body.error.code]).toEqual([status, code]);
  });
});

describe('pre-flight', () => {
  it('keeps who ticked what, and forgets what was unticked', async () => {
    const { id } = await freshTrial();
    const put = async (keys: string[], ticked: boolean, person = 'Orla') => (await harness.call<PreflightTick[]>('PUT', `/trials/${id}/preflight`, { keys, ticked, person })).body;
    expect((await put(['a:power', 'a:clock'], true)).map((tick) => [tick.key, tick.person])).toEqual(
      expect.arrayContaining([
        ['a:power', 'Orla'],
        ['a:clock', 'Orla'],
      ]),
    );
    expect((await put(['a:power'], false)).map((tick) => tick.key)).toEqual(['a:clock']);
    expect((await put(['a:clock'], true, 'Tam'))[0]?.person).toBe('Tam');
    expect((await harness.call<Told>('PUT', `/trials/${id}/preflight`, { keys: [], ticked: true, person: 'x' })).status).toBe(422);
  });
});

describe('a plan with a design', () => {
  const changed = async (at: string, change: Partial<Plan>) => {
    const plan = await get<Plan>(`${at}/plan`);
    return (await harness.call<Plan>('PUT', `${at}/plan`, { ...plan, ...change })).body;
  };

  it('records repeats under slates of their own, apart where candidates disturb each other, and locked takes in their place', async () => {
    const { at, chains } = await readyTrial(harness);
    const plan = await get<Plan>(`${at}/plan`);
    await changed(at, { repeats: 2, togetherLimits: { ...plan.togetherLimits, apart: [[chains[0]!, chains[1]!]] } });
    const result = (await harness.call<{ takes: number }>('POST', `${at}/plan/commit`)).body;
    const takes = await get<Take[]>(`${at}/takes`);
    expect(result.takes).toBe(takes.length);
    expect(takes.every((take) => take.setups.length === 1)).toBe(true);
    expect(new Set(takes.map((take) => take.slate)).size).toBe(takes.length);
    const last = takes.at(-1)!;
    const key = `${[last.condition.station, last.condition.windscreen, last.condition.distance, last.condition.script].join('|')}|${last.setups.map((setup) => setup.candidateId).join()}`;
    await changed(at, { order: { counterbalanced: false, blockedBy: 'none', pinned: [{ key, position: 0 }] } });
    await harness.call('POST', `${at}/plan/commit`);
    expect((await get<Take[]>(`${at}/takes`))[0]).toMatchObject({ condition: last.condition, setups: [{ candidateId: last.setups[0]!.candidateId }] });
  });

  it('has a calendar and clock times once the day has a start', async () => {
    const { at } = await readyTrial(harness);
    expect((await harness.call<Told>('GET', `${at}/plan/day.ics`)).body.error.code).toBe('no-start');
    const plan = await get<Plan>(`${at}/plan`);
    await changed(at, { day: { ...plan.day, startsAtMs: Date.UTC(2026, 2, 20, 9) } });
    const calendar = await harness.call('GET', `${at}/plan/day.ics`);
    expect(calendar.headers.get('content-type')).toContain('text/calendar');
    expect(calendar.text).toContain('DTSTART:20260320T090000Z');
    expect(calendar.text).toContain('SUMMARY:Jetty: jetty');
    const sheet = (await harness.call('GET', `${at}/plan/run-sheet.csv`)).text.split('\r\n');
    expect(sheet[0]).toMatch(/^slate,starts,station/);
    expect(sheet[1]).toMatch(/^01,\d\d:\d\d,jetty/);
  });

  it('copied with its trial speaks of the copy’s own records', async () => {
    const { at, chains } = await readyTrial(harness);
    const [station] = await get<Station[]>(`${at}/stations`);
    const [first] = await get<Chain[]>(`${at}/chains`);
    await harness.call('POST', `${at}/chains`, { ...first, name: 'Split', split: { chainId: first!.id, links: 1 }, tape: { kind: 4, letters: 'SP' } });
    await harness.call('POST', `${at}/criteria`, { name: 'There', kind: 'listened', weight: 1, best: 10, worst: 0, where: { station: [station!.id] } });
    const plan = await get<Plan>(`${at}/plan`);
    await changed(at, {
      rules: [{ id: newId(), kind: 'station', levelIds: [station!.id], withKind: 'candidate', withLevelIds: [chains[1]!] }],
      design: { ...plan.design, base: { station: station!.id, distance: '1' } },
    });
    const copy = (await harness.call<Trial>('POST', `${at}/copy`)).body;
    const [copied] = await get<Station[]>(`/trials/${copy.id}/stations`);
    const own = await get<Chain[]>(`/trials/${copy.id}/chains`);
    const copyPlan = await get<Plan>(`/trials/${copy.id}/plan`);
    expect(copied!.id).not.toBe(station!.id);
    expect(copyPlan.rules[0]).toMatchObject({ levelIds: [copied!.id], withLevelIds: [own.find((chain) => chain.name === 'Lodestar')!.id] });
    expect(copyPlan.design.base).toEqual({ station: copied!.id, distance: '1' });
    expect((await get<Criterion[]>(`/trials/${copy.id}/criteria`)).at(-1)?.where).toEqual({ station: [copied!.id] });
    expect(own.find((chain) => chain.split)?.split?.chainId).toBe(own.find((chain) => chain.name === first!.name)?.id);
  });

  it('of too many cells is not begun', async () => {
    const { at } = await readyTrial(harness);
    const plan = await get<Plan>(`${at}/plan`);
    const many = Array.from({ length: 60 }, (_, index) => ({ id: `l${index}`, label: `l${index}`, value: null, ticked: true }));
    const factors = [
      ...plan.factors.map((factor) => (['distance', 'windscreen'].includes(factor.kind) ? { ...factor, levels: many } : factor)),
      { kind: 'other' as const, name: 'Other', unit: '', levels: many },
    ];
    await changed(at, { factors });
    expect((await harness.call<Told>('POST', `${at}/plan/commit`)).body.error.message).toMatch(/432,?000 cells are more than/);
  });
});
