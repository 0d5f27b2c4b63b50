import type { BlindRound, Listener, Round } from '@marvet/core/domain/round';
import { whiteNoise } from '@marvet/core/testing/signals';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial, recorderWav } from '../testing/harness.ts';

let harness: Harness;
let at: string;
let chains: readonly string[];
let criterionId: string;
let recordingIds: string[];
beforeAll(async () => {
  harness = await openHarness();
  const ready = await readyTrial(harness);
  ({ at, chains } = ready);
  await harness.upload(ready.trial.id, 'S001.wav', recorderWav([whiteNoise(-30, 3, 1), whiteNoise(-34, 3, 2)], '1', '1', ['QU', 'LO']));
  await harness.services.work.runner.idle();
  recordingIds = (await harness.call<{ id: string }[]>('GET', `${at}/recordings`)).body.map(({ id }) => id);
  criterionId = (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0 })).body.id;
});
afterAll(() => harness.close());

async function seated(draft: object = {}): Promise<string> {
  const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'R', recordingIds, criterionIds: [criterionId], ...draft })).body;
  return (await harness.call<Listener>('POST', `${at}/rounds/${round.id}/listeners`, { name: 'Orla', listenedOn: 'buds' })).body.id;
}
const met = (id: string) => harness.call<BlindRound>('GET', `/listen/${id}`);
const score = (id: string, letter: string, points = 5, on = criterionId) => harness.call('PUT', `/listen/${id}/ratings`, { letter, criterionId: on, points, reason: '' });
const close = (id: string) => harness.call('POST', `/listen/${id}/close`);
const guess = (id: string, candidateIds: Record<string, string>) => harness.call('PUT', `/listen/${id}/guess`, { candidateIds });

describe('guessing which is which', () => {
  it('names the candidates only once all scores are in and closed; then no score changes, and the guess is shown at the end', async () => {
    const id = await seated();
    const [one, other] = chains as [string, string];
    expect((await guess(id, { A: one, B: other })).status).toBe(409);
    await score(id, 'A');
    expect(await close(id)).toMatchObject({ status: 422, body: { error: { message: expect.stringContaining('1 of 2 scores') } } });
    await score(id, 'B');
    const before = await met(id);
    expect(before.body).toMatchObject({ guessable: true, guess: null });
    for (const name of ['Quoin', 'Lodestar', one, other]) expect(before.text).not.toContain(name);
    expect((await close(id)).status).toBe(204);
    // By name: their order tells nothing.
    expect((await met(id)).body.guess).toEqual([
      { id: other, name: 'Lodestar' },
      { id: one, name: 'Quoin' },
    ]);
    expect(await score(id, 'A', 9)).toMatchObject({ status: 409, body: { error: { code: 'closed' } } });
    const refused: Record<string, string>[] = [{ A: one }, { A: one, B: one }, { A: one, B: criterionId }, { A: one, C: other }];
    for (const wrong of refused) expect((await guess(id, wrong)).status).toBe(422);
    expect((await guess(id, { A: one, B: other })).status).toBe(204);
    expect((await guess(id, { A: other, B: one })).status).toBe(204);
    const shown = async () => (await harness.call<Round[]>('GET', `${at}/rounds`)).body.flatMap(({ listeners }) => listeners).find((each) => each.id === id);
    expect(await shown()).toMatchObject({ guess: null, scored: [2, 2] });
    expect((await harness.call('POST', `/listen/${id}/finish`)).status).toBe(204);
    expect(await shown()).toMatchObject({ guess: { A: other, B: one } });
    expect((await guess(id, { A: one, B: other })).status).toBe(409);
  });

  it('does not give away before the scores are closed that checks are hidden, and says then that there is nothing to guess', async () => {
    const hidden = await seated({ checks: ['again'] });
    expect((await met(hidden)).body).toMatchObject({ guessable: true, guess: null });
    for (const letter of ['A', 'B', 'C']) await score(hidden, letter);
    expect((await close(hidden)).status).toBe(204);
    expect((await met(hidden)).body.guess).toEqual([]);
    expect(await guess(hidden, { A: chains[0] as string, B: chains[1] as string })).toMatchObject({ status: 409, body: { error: { code: 'not-guessable' } } });
    expect((await harness.call('POST', `/listen/${hidden}/finish`)).status).toBe(204);
  });

  it('is not asked for where there are no points', async () => {
    const compared = await seated({ kind: 'same', comparisons: 5, criterionIds: [] });
    expect((await met(compared)).body.guessable).toBe(false);
    expect((await close(compared)).status).toBe(409);
  });
});

describe('a round that is closed by hand', () => {
  it('keeps identities and scores to itself until then, also from the verdict, and takes nothing after', async () => {
    // Judged on a criterion of its own, so that no score of another round outweighs these.
    const own = (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name: 'Own', kind: 'listened', weight: 1, best: 10, worst: 0 })).body.id;
    const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'By hand', recordingIds, criterionIds: [own], opens: 'closed' })).body;
    const seat = async (name: string) => (await harness.call<Listener>('POST', `${at}/rounds/${round.id}/listeners`, { name, listenedOn: 'buds' })).body.id;
    const shown = async () => (await harness.call<Round[]>('GET', `${at}/rounds`)).body.find((each) => each.id === round.id) as Round;
    const verdict = async () => (await harness.call('GET', `${at}/verdict`)).text;
    await harness.call('POST', `${at}/verdict/open`);
    const before = await verdict();
    const done = await seat('Orla');
    for (const letter of ['A', 'B']) await score(done, letter, letter === 'A' ? 9 : 1, own);
    expect((await harness.call('POST', `/listen/${done}/finish`)).status).toBe(204);
    // Each listener is done, and still it is closed.
    expect((await shown()).listeners).toMatchObject([{ letters: null, ratings: [], scored: [2, 2] }]);
    expect(await verdict()).toBe(before);
    const late = await seat('Tam');
    await score(late, 'A', 5, own);
    const shut = () => harness.call('POST', `${at}/rounds/${round.id}/close`);
    expect((await shut()).status).toBe(204);
    const { closedAtMs, listeners } = await shown();
    expect(closedAtMs).not.toBeNull();
    expect(listeners.map(({ letters, ratings }) => [letters === null, ratings.length])).toEqual([
      [false, 2],
      [true, 0],
    ]);
    expect(await verdict()).not.toBe(before);
    expect((await met(late)).body.closed).toBe(true);
    for (const refused of [await score(late, 'B', 5, own), await close(late), await harness.call('POST', `/listen/${late}/finish`)])
      expect(refused).toMatchObject({ status: 409, body: { error: { code: 'closed' } } });
    expect((await harness.call('POST', `${at}/rounds/${round.id}/listeners`, { name: 'Wren', listenedOn: 'buds' })).status).toBe(409);
    // Closed twice it stays as it was.
    await shut();
    expect((await shown()).closedAtMs).toBe(closedAtMs);
  });

  it('is another than one that opens by itself', async () => {
    const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'By itself', recordingIds, criterionIds: [criterionId] })).body;
    expect(await harness.call('POST', `${at}/rounds/${round.id}/close`)).toMatchObject({ status: 409, body: { error: { code: 'not-by-hand' } } });
  });
});
