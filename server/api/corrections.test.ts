import type { RecordingDetail } from '@marvet/core/contract/recordings';
import type { Correction, MarkedEvent } from '@marvet/core/domain/correction';
import { newId } from '@marvet/core/domain/identity';
import { voiced } from '@marvet/core/testing/voiced';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial, recorderWav } from '../testing/harness.ts';

let harness: Harness;
let at: string;
let recording: string;
beforeAll(async () => {
  harness = await openHarness();
  const { trial, at: path } = await readyTrial(harness);
  at = path;
  await harness.upload(trial.id, 'S001.wav', recorderWav([voiced(6, -60), voiced(6, -58)], '1', '1', ['QU', 'LO']));
  await harness.services.work.runner.idle();
  [{ id: recording }] = (await harness.call<[{ id: string }]>('GET', `${at}/recordings`)).body;
});
afterAll(() => harness.close());

const detail = async () => (await harness.call<RecordingDetail>('GET', `${at}/recordings/${recording}`)).body;
const correct = async (id: string, change: Partial<Correction> & { seen?: Correction | null }) => {
  const answer = await harness.call<{ error: { code: string; message: string; fields?: object; current?: Correction } }>('PUT', `${at}/recordings/${recording}/corrections/${id}`, {
    was: null,
    now: null,
    seen: null,
    ...change,
  });
  await harness.services.work.runner.idle();
  return answer;
};
const takeBack = async (id: string) => {
  await harness.call('DELETE', `${at}/recordings/${recording}/corrections/${id}`);
  await harness.services.work.runner.idle();
};
const gust: MarkedEvent = { kind: 'wind', startS: 2, endS: 2.5 };

describe('events corrected by hand', () => {
  it('are kept, counted in every figure, and gone again when they are taken back', async () => {
    const before = await detail();
    const id = newId();
    expect((await correct(id, { now: gust })).status).toBe(202);
    const after = await detail();
    expect(after.corrections).toEqual([{ id, was: null, now: gust }]);
    expect(after.report!.events).toContainEqual({ ...gust, severityDb: expect.any(Number), correctionId: id });
    expect(after.figures!['events.wind.perMinute']).toBeCloseTo(10, 1);
    expect(after.figures!['character.windShare']).toBeGreaterThan(before.figures!['character.windShare'] ?? 0);
    await takeBack(id);
    expect((await detail()).figures).toEqual(before.figures);
    expect((await detail()).corrections).toEqual([]);
  });

  it('outlast another measuring, and leave the other channel alone', async () => {
    const id = newId();
    await correct(id, { now: gust });
    const { fileId } = await detail();
    await harness.call('POST', `${at}/files/${fileId}/measure`);
    await harness.services.work.runner.idle();
    expect((await detail()).report!.events.filter((event) => event.correctionId === id)).toHaveLength(1);
    const [, other] = (await harness.call<{ id: string }[]>('GET', `${at}/recordings`)).body;
    expect((await harness.call<RecordingDetail>('GET', `${at}/recordings/${other!.id}`)).body.report!.events.filter(({ kind }) => kind === 'wind')).toEqual([]);
    await takeBack(id);
  });

  it('are one when they are sent twice; a page that saw them as they were before is told', async () => {
    const id = newId();
    await correct(id, { now: gust });
    expect((await correct(id, { now: gust })).status).toBe(202);
    const first = { id, was: null, now: gust };
    const moved = { ...gust, endS: 2.8 };
    expect((await correct(id, { now: moved, seen: first })).status).toBe(202);
    const late = await correct(id, { now: { ...gust, kind: 'rustle' }, seen: first });
    expect(late).toMatchObject({ status: 409, body: { error: { code: 'changed', current: { now: moved } } } });
    expect((await detail()).corrections).toEqual([{ id, was: null, now: moved }]);
    await takeBack(id);
  });

  it('of one found event there is one: the second page that corrects it is told', async () => {
    const [one, two] = [newId(), newId()];
    await correct(one, { was: gust });
    expect((await correct(two, { was: gust, now: { ...gust, kind: 'rustle' } })).status).toBe(409);
    expect((await detail()).corrections.map(({ id }) => id)).toEqual([one]);
    await takeBack(one);
  });

  it('two at once are both kept', async () => {
    const ids = [newId(), newId()];
    await Promise.all(ids.map((id, index) => correct(id, { now: { ...gust, startS: 1 + index, endS: 1.4 + index } })));
    expect((await detail()).corrections.map(({ id }) => id).sort()).toEqual([...ids].sort());
    for (const id of ids) await takeBack(id);
  });

  it.each<[string, object, string]>([
    ['that end before they start', { now: { ...gust, endS: 1 } }, 'An event ends after it starts'],
    ['after the end of the recording', { now: { ...gust, endS: 60 } }, 'The recording ends at 6.00 s'],
    ['of no kind', { now: { ...gust, kind: 'noise' } }, 'Choose what kind of event it is'],
    ['that mean nothing', {}, 'Say which event is meant'],
  ])('%s are refused with what to do', async (_, change, words) => {
    const answer = await correct(newId(), change);
    expect(answer.status).toBe(422);
    expect(answer.body.error.message).toContain(words);
  });

  it('are taken away as CSV with all that was found', async () => {
    const [one, none] = [newId(), newId()];
    await correct(one, { now: gust });
    await correct(none, { was: { kind: 'click', startS: 4, endS: 4.01 } });
    const { status, text, headers } = await harness.call('GET', `${at}/recordings/events.csv?recording=${recording}`);
    expect(status).toBe(200);
    expect(headers.get('content-disposition')).toContain('Jetty events.csv');
    const lines = text.trim().split('\r\n');
    expect(lines).toContainEqual(expect.stringMatching(/^01,Quoin,S001.wav,1,wind,2,2.5,-?[\d.]+,hand$/));
    expect(lines).toContain('01,Quoin,S001.wav,1,click,4,4.01,,hand: not one');
    expect((await harness.call('GET', `${at}/recordings/events.csv`)).text.length).toBeGreaterThanOrEqual(text.length);
    for (const id of [one, none]) await takeBack(id);
  });
});
