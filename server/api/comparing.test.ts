import type { BlindRound, Listener, Round, RoundKind } from '@marvet/core/domain/round';
import { toldOutcome } from '@marvet/core/listen/paired/outcome';
import { mixed, whiteNoise } from '@marvet/core/testing/signals';
import { voiced } from '@marvet/core/testing/voiced';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial, recorderWav } from '../testing/harness.ts';
import { heardClips } from '../testing/heardClips.ts';

let harness: Harness;
let at: string;
let chains: readonly string[];
let recordingIds: string[];
let criterionIds: string[];
beforeAll(async () => {
  harness = await openHarness();
  let trialId: string;
  ({
    at,
    chains,
    trial: { id: trialId },
  } = await readyTrial(harness));
  const voice = voiced(6);
  await harness.upload(
    trialId,
    'S001_Secretname.wav',
    recorderWav(
      [mixed(voice, whiteNoise(-70, 6, 1)), mixed(voice, whiteNoise(-52, 6, 2))].map((each) => each.subarray(0, voice.length)),
      '1',
      '1',
      ['QU', 'LO'],
    ),
  );
  await harness.services.work.runner.idle();
  recordingIds = (await harness.call<{ id: string }[]>('GET', `${at}/recordings`)).body.map(({ id }) => id);
  const criterion = async (name: string) => (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name, kind: 'listened', weight: 1, best: 10, worst: 0 })).body.id;
  criterionIds = [await criterion('Clear'), await criterion('Like a person')];
});
afterAll(() => harness.close());

async function begun(kind: RoundKind, comparisons: number | null, on: string[] = []): Promise<{ round: Round; id: string }> {
  const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: kind, kind, comparisons, recordingIds, criterionIds: on })).body;
  const { id } = (await harness.call<Listener>('POST', `${at}/rounds/${round.id}/listeners`, { name: 'Orla', listenedOn: 'buds' })).body;
  return { round, id };
}
const met = async (id: string) => (await harness.call<BlindRound>('GET', `/listen/${id}`)).body;
const answer = (id: string, number: number, letter: string, on: (string | null)[] = [null]) =>
  harness.call('PUT', `/listen/${id}/comparisons/${number}`, { picks: on.map((criterionId) => ({ criterionId, letter })) });
const finish = (id: string) => harness.call('POST', `/listen/${id}/finish`);
const shown = async (round: Round) => (await harness.call<Round[]>('GET', `${at}/rounds`)).body.find((each) => each.id === round.id) as Round;

const listening = (path: string) => heardClips((address) => harness.raw('GET', address), path);

async function heard(id: string, number: number) {
  const { clips, ...rest } = await listening(`/listen/${id}/comparisons/${number}/pieces`);
  return { ...rest, clips: clips.map(([samples]) => samples as Float64Array) };
}

/** How far two clips are apart, as instruments see it and ears may not. */
const apart = (a: Float64Array, b: Float64Array) => Math.sqrt(a.reduce((sum, value, index) => sum + (value - (b[index] as number)) ** 2, 0) / a.length);

describe('is X A or B', () => {
  it('one who hears it all is told apart; nothing tells before the end', async () => {
    const { round, id } = await begun('same', 8);
    const secrets = [...recordingIds, ...chains, 'QU', 'LO', 'Quoin', 'Lodestar', 'Secretname'];
    const sounds: Awaited<ReturnType<typeof heard>>[] = [];
    for (let number = 0; number < 8; number++) {
      const told = await harness.call<BlindRound>('GET', `/listen/${id}`);
      expect(told.body).toMatchObject({ kind: 'same', comparisons: 8, next: { number, letters: ['A', 'B', 'C'] }, ratings: [] });
      for (const secret of secrets) expect(told.text).not.toContain(secret);
      const sound = await heard(id, number);
      sounds.push(sound);
      const [a, b, x] = sound.clips as [Float64Array, Float64Array, Float64Array];
      const letter = apart(x, a) < apart(x, b) ? 'A' : 'B';
      // The same recording is never the same bytes.
      expect(Math.min(apart(x, a), apart(x, b))).toBeGreaterThan(0);
      expect(Math.min(apart(x, a), apart(x, b))).toBeLessThan(3e-7);
      expect((await answer(id, number, letter)).status).toBe(204);
      expect((await shown(round)).listeners).toMatchObject([{ compared: [number + 1, 8], choices: [], letters: null }]);
    }
    expect(new Set(sounds.map(({ bytes, headers }) => `${bytes} ${headers}`)).size).toBe(1);
    for (const secret of secrets) expect(sounds[0]!.headers).not.toContain(secret);
    expect((await met(id)).next).toBeNull();
    expect((await finish(id)).status).toBe(204);
    const [listener] = (await shown(round)).listeners as [Listener];
    expect(listener.choices).toHaveLength(8);
    for (const { recordingIds: ids } of listener.choices) expect(recordingIds).toEqual(expect.arrayContaining(ids));
    expect(toldOutcome('same', [listener]).all).toMatchObject({ right: 8, tries: 8, apart: true });
  }, 60_000);

  it('is answered in its order, once, with A or B', async () => {
    const { id } = await begun('same', 2);
    expect(await answer(id, 1, 'A')).toMatchObject({ status: 409, body: { error: { code: 'not-next' } } });
    expect(await answer(id, 0, 'C')).toMatchObject({ status: 422, body: { error: { message: 'Choose one of A, B' } } });
    expect(await answer(id, 0, 'A', [criterionIds[0] as string])).toMatchObject({ status: 422 });
    expect((await answer(id, 0, 'A')).status).toBe(204);
    // Sent again, as where the answer was lost on its way, it is one; it cannot be another.
    expect((await answer(id, 0, 'A')).status).toBe(204);
    expect(await answer(id, 0, 'B')).toMatchObject({ status: 409, body: { error: { code: 'answered' } } });
    expect(await finish(id)).toMatchObject({ status: 422, body: { error: { message: expect.stringContaining('1 of 2 comparisons') } } });
    await answer(id, 1, 'B');
    expect((await answer(id, 2, 'B')).status).toBe(409);
    expect((await finish(id)).status).toBe(204);
    expect((await answer(id, 1, 'A')).status).toBe(409);
  });

  it('answered twice at once it has one answer, and the other is told so', async () => {
    const { id } = await begun('same', 3);
    const answers = await Promise.all([answer(id, 0, 'A'), answer(id, 0, 'B'), answer(id, 1, 'A')]);
    expect(answers.map(({ status }) => status).sort()).toContain(409);
    const kept = await harness.services.store.choices.findBy({ listenerId: id });
    expect(kept.filter(({ number }) => number === 0)).toHaveLength(1);
    expect((await met(id)).next?.number).toBe(kept.length);
  });

  it('what was answered is not heard again, nor what is yet to come, nor a clip by itself', async () => {
    const { id } = await begun('same', 3);
    await answer(id, 0, 'A');
    for (const path of ['comparisons/0/pieces/0', 'comparisons/2/pieces/0', 'comparisons/3/pieces/0', 'comparisons/1/pieces/999', 'pieces/0'])
      expect((await harness.call('GET', `/listen/${id}/${path}`)).status, path).toBe(404);
    expect((await harness.call('GET', `/listen/${id}/comparisons/x/pieces/0`)).status).toBe(422);
    expect((await harness.call('GET', `/listen/${id}/comparisons/1/pieces/x`)).status).toBe(422);
    expect((await harness.call('PUT', `/listen/${id}/ratings`, { letter: 'A', criterionId: criterionIds[0], points: 3, reason: '' })).status).toBe(404);
  });
});

describe('which is the odd one', () => {
  it('without a given number it goes on until the listener ends it', async () => {
    const { round, id } = await begun('odd', null);
    expect((await finish(id)).status).toBe(422);
    for (let number = 0; number < 6; number++) {
      expect(await met(id)).toMatchObject({ comparisons: null, next: { number } });
      const { clips } = await heard(id, number);
      const alike = [
        [0, 1],
        [0, 2],
        [1, 2],
      ].map(([a, b]) => apart(clips[a!]!, clips[b!]!));
      await answer(id, number, ['C', 'B', 'A'][alike.indexOf(Math.min(...alike))] as string);
    }
    expect((await finish(id)).status).toBe(204);
    expect(toldOutcome('odd', (await shown(round)).listeners).all).toMatchObject({ right: 6, tries: 6, apart: true });
  }, 60_000);
});

describe('which is better', () => {
  it('is answered on each criterion', async () => {
    const { round, id } = await begun('better', 2, criterionIds);
    expect(await answer(id, 0, 'A', criterionIds.slice(0, 1))).toMatchObject({ status: 422, body: { error: { message: 'Choose one of A, B on each criterion' } } });
    expect((await heard(id, 0)).clips).toHaveLength(2);
    for (const number of [0, 1]) expect((await answer(id, number, 'A', criterionIds)).status).toBe(204);
    await finish(id);
    const [listener] = (await shown(round)).listeners as [Listener];
    // Each way round once: always the first heard is a choice for either once.
    expect(listener.choices.map(({ recordingIds: [first] }) => first).sort()).toEqual([...recordingIds].sort());
  });
});

describe('a round that is compared', () => {
  it.each([
    ['two recordings are told apart at a time', { kind: 'same', recordingIds: 3 }, 'recordingIds'],
    ['of many recordings there are too many pairs', { kind: 'better', recordingIds: 7 }, 'recordingIds'],
    ['nor more comparisons than ears can do', { kind: 'better', recordingIds: 5, comparisons: 20 }, 'comparisons'],
    ['what is better needs something that it is better in', { kind: 'better', recordingIds: 2, criterionIds: [] }, 'criterionIds'],
    ['nor no comparison at all', { kind: 'odd', recordingIds: 2, comparisons: 0 }, 'comparisons'],
  ])('%s', async (_, { recordingIds: count, ...draft }, field) => {
    const ids = Array.from({ length: count }, (_each, index) => `00000000-0000-4000-8000-00000000000${index}`);
    const { status, body } = await harness.call<{ error: { fields: Record<string, string> } }>('POST', `${at}/rounds`, { title: 'x', criterionIds, recordingIds: ids, ...draft });
    expect(status).toBe(422);
    expect(Object.keys(body.error.fields)).toEqual([field]);
  });
});

describe('checks that are hidden among clips', () => {
  it('look like any other clip until the end, and count in nothing', async () => {
    const body = { title: 'Hidden', recordingIds, criterionIds: criterionIds.slice(0, 1), checks: ['again', 'worse'] };
    const round = (await harness.call<Round>('POST', `${at}/rounds`, body)).body;
    expect(JSON.stringify(round)).not.toContain('checkOf');
    const { id } = (await harness.call<Listener>('POST', `${at}/rounds/${round.id}/listeners`, { name: 'Orla', listenedOn: 'buds' })).body;
    const told = await harness.call<BlindRound>('GET', `/listen/${id}`);
    expect(told.body.letters).toEqual(['A', 'B', 'C', 'D']);
    for (const secret of ['again', 'worse', 'check']) expect(told.text).not.toContain(secret);
    const { clips } = await listening(`/listen/${id}/pieces`);
    expect(clips).toHaveLength(4);
    // The same recording under two letters is not the same bytes.
    expect(new Set(clips.map(([samples]) => Buffer.from(samples!.buffer).toString('base64'))).size).toBe(4);
    for (const [points, letter] of told.body.letters.entries()) {
      await harness.call('PUT', `/listen/${id}/ratings`, { letter, criterionId: criterionIds[0], points, reason: '' });
      if (letter !== 'D') expect((await finish(id)).status).toBe(422);
    }
    expect((await finish(id)).status).toBe(204);
    const [listener] = (await shown(round)).listeners as [Listener];
    expect(Object.values(listener.checks).sort()).toEqual(['again', 'worse']);
    expect(Object.keys(listener.letters!)).toEqual(['A', 'B', 'C', 'D']);
    for (const recordingId of Object.values(listener.letters!)) expect(recordingIds).toContain(recordingId);
    const row = await harness.services.store.listeners.findOneByOrFail({ id });
    const counted = listener.ratings.filter(({ letter }) => (row.order['ABCD'.indexOf(letter)] as number) < recordingIds.length);
    expect(counted.map(({ letter }) => letter).sort()).toEqual(['A', 'B', 'C', 'D'].filter((letter) => !listener.checks[letter]));
  });

  it('are refused twice, where there are no points, and beyond what ears keep apart', async () => {
    const make = (draft: object) => harness.call<{ error: { fields: Record<string, string> } }>('POST', `${at}/rounds`, { title: 'x', recordingIds, criterionIds, ...draft });
    expect(Object.keys((await make({ checks: ['again', 'again'] })).body.error.fields)).toEqual(['checks']);
    expect(Object.keys((await make({ checks: ['worse'], kind: 'better' })).body.error.fields)).toEqual(['checks']);
    const many = Array.from({ length: 11 }, (_, index) => `00000000-0000-4000-8000-0000000000${10 + index}`);
    expect(Object.keys((await make({ checks: ['again', 'worse'], recordingIds: many })).body.error.fields)).toEqual(['recordingIds']);
  });
});
