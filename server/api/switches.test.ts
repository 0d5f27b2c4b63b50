import type { RecordingDetail, RecordingRow } from '@marvet/core/contract/recordings';
import { newId } from '@marvet/core/domain/identity';
import { thrown } from '@marvet/core/domain/switches';
import type { Take } from '@marvet/core/domain/take';
import { concat, mixed, whiteNoise } from '@marvet/core/testing/signals';
import { voiced } from '@marvet/core/testing/voiced';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial } from '../testing/harness.ts';

const PART_S = 12;
const START_MS = 1_764_230_000_000;

let harness: Harness;
let at: string;
let trialId: string;
let take: Take;
beforeEach(async () => {
  harness = await openHarness();
  ({
    at,
    trial: { id: trialId },
  } = await readyTrial(harness));
  [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body as [Take];
});
afterEach(() => harness.close());

const log = (atMs: number, more: object) => harness.call('POST', `${at}/log`, { lines: [{ id: newId(), takeId: take.id, atMs, ...more }] });
const takeNow = async () => (await harness.call<Take[]>('GET', `${at}/takes`)).body.find(({ id }) => id === take.id) as Take;
const recordings = async () => (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;
const detailOf = async (setupId: string): Promise<RecordingDetail> => {
  const own = (await recordings()).find((row) => row.setupId === setupId);
  return (await harness.call<RecordingDetail>('GET', `${at}/recordings/${own!.id}`)).body;
};
const idle = () => harness.services.work.runner.idle();
/** Words over loud noise, then the same words over little: noise reduction was switched on in between. */
const sound = () => concat(mixed(voiced(PART_S, -60), whiteNoise(-42, PART_S, 3)), mixed(voiced(PART_S, -60), whiteNoise(-66, PART_S, 4)));

async function switchAt(offsetS: number): Promise<{ before: string; after: string }> {
  const first = (await takeNow()).setups[0]!;
  const after = newId();
  await log(START_MS + offsetS * 1000, { kind: 'switch', changed: 'processing', setups: [{ id: after, fromId: first.id, ...thrown(undefined, 'nr', true) }] });
  return { before: first.id, after };
}

describe('something switched while a take ran', () => {
  it('makes two setups of it: cut, measured apart, and compared fairly', async () => {
    await log(START_MS, { kind: 'start' });
    const { before, after } = await switchAt(PART_S);
    await log(START_MS + 2 * PART_S * 1000, { kind: 'stop' });
    await harness.upload(trialId, 'S001_T01 QU.wav', plainWav(sound()));
    await idle();
    const [first, second] = [await detailOf(before), await detailOf(after)];
    expect([first.startS, first.endS, second.startS, second.endS, second.cutBy]).toEqual([null, PART_S, PART_S, null, 'press']);
    expect(first.report!.noise.floorDbfs).toBeGreaterThan(-45);
    expect(second.report!.noise.floorDbfs).toBeLessThan(-55);
    // Times of a stretch count from where it begins.
    expect(second.judged!.span[1]).toBeLessThan(PART_S + 0.1);
    expect(second.series!.rmsDbfs.length).toBe(first.series!.rmsDbfs.length);
    const [one, other] = (await takeNow()).setups.filter(({ id }) => id === before || id === after);
    expect([one!.levels.processing, other!.levels.processing]).toEqual(['sw:nr0', 'sw:nr1']);
    const mono = await harness.raw('GET', `${at}/recordings/${second.id}/audio`);
    expect(Number(mono.headers.get('content-length'))).toBe(44 + 3 * PART_S * 48_000);
  });

  it('cuts what was there before its line came, moves by hand, and is one again when it is taken back', async () => {
    await harness.upload(trialId, 'S001_T01 QU.wav', plainWav(sound()));
    await log(START_MS, { kind: 'start' });
    await log(START_MS + 2 * PART_S * 1000, { kind: 'stop' });
    await idle();
    expect(await recordings()).toHaveLength(1);
    const { before, after } = await switchAt(PART_S - 2);
    await idle();
    expect((await detailOf(after)).startS).toBe(PART_S - 2);
    const late = await detailOf(after);
    expect((await harness.call('PUT', `${at}/recordings/${late.id}/cut`, { startS: 99 })).status).toBe(422);
    expect((await harness.call('PUT', `${at}/recordings/${(await detailOf(before)).id}/cut`, { startS: 3 })).status).toBe(422);
    expect((await harness.call('PUT', `${at}/recordings/${late.id}/cut`, { startS: PART_S })).status).toBe(202);
    await idle();
    expect([(await detailOf(before)).endS, (await detailOf(after)).startS, (await detailOf(after)).cutBy]).toEqual([PART_S, PART_S, 'hand']);
    expect((await detailOf(after)).report!.noise.floorDbfs).toBeLessThan(-55);
    await log(START_MS + 60_000, { kind: 'unswitch', setupIds: [after] });
    await idle();
    const [only, ...others] = await recordings();
    expect(others).toEqual([]);
    expect(only).toMatchObject({ setupId: before, takeId: take.id, state: 'done' });
    expect((await detailOf(before)).endS).toBeNull();
  });

  it('what was marked before goes with its stretch, is told in times of the file, and comes back when it is one again', async () => {
    await log(START_MS, { kind: 'start' });
    await log(START_MS + 2 * PART_S * 1000, { kind: 'stop' });
    await harness.upload(trialId, 'S001_T01 QU.wav', plainWav(sound()));
    await idle();
    const [only] = await recordings();
    const id = newId();
    const now = { kind: 'click', startS: PART_S + 3, endS: PART_S + 3.2 };
    await harness.call('PUT', `${at}/recordings/${only!.id}/corrections/${id}`, { was: null, now, seen: null });
    await harness.call('PUT', `${at}/recordings/${only!.id}/performance`, { performance: [1, PART_S - 1] });
    const { before, after } = await switchAt(PART_S);
    await idle();
    const [first, second] = [await detailOf(before), await detailOf(after)];
    expect([first.corrections, first.performance, second.performance]).toEqual([[], [1, PART_S - 1], null]);
    expect(second.corrections).toEqual([{ id, was: null, now: { kind: 'click', startS: 3, endS: expect.closeTo(3.2, 6) } }]);
    expect((await harness.call('GET', `${at}/recordings/events.csv`)).text).toMatch(new RegExp(`,${PART_S + 3},${PART_S + 3.2},`));
    await log(START_MS + 60_000, { kind: 'unswitch', setupIds: [after] });
    await idle();
    const joined = await detailOf(before);
    expect(joined.corrections).toEqual([{ id, was: null, now: { ...now, endS: expect.closeTo(now.endS, 6) } }]);
    expect(joined.performance).toEqual([1, PART_S - 1]);
  });

  it('is heard only in its own stretch, also by a blind listener', async () => {
    await log(START_MS, { kind: 'start' });
    const { before, after } = await switchAt(PART_S);
    await log(START_MS + 2 * PART_S * 1000, { kind: 'stop' });
    await harness.upload(trialId, 'S001_T01 QU.wav', plainWav(sound()));
    await idle();
    const ids = [await detailOf(before), await detailOf(after)].map(({ id }) => id);
    const pair = await harness.call<{ pair: { latencyMs: number | null } }>('GET', `${at}/recordings/${ids[1]}/pair/${ids[0]}`);
    // The same words, twelve seconds apart in the file, and at the same place in each stretch.
    expect(Math.abs(pair.body.pair.latencyMs ?? 1e9)).toBeLessThan(5);
  });
});
