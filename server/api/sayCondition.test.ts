import type { SaidOfTakes } from '@marvet/core/contract/sayCondition';
import { NOT_KNOWN, UNKNOWN_CONDITION } from '@marvet/core/domain/factor';
import { newId } from '@marvet/core/domain/identity';
import type { Take } from '@marvet/core/domain/take';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

let harness: Harness;
let at: string;
let chains: readonly [string, string];
beforeAll(async () => {
  harness = await openHarness();
});
beforeEach(async () => {
  ({ at, chains } = await readyTrial(harness));
  // As recordings that came without a plan leave them: done, and nothing of them known.
  await harness.services.store.write((tables) => tables.takes.update({ trialId: at.split('/')[2] as string }, { status: 'done', condition: UNKNOWN_CONDITION }));
});
afterAll(() => harness.close());

const takes = async () => (await harness.call<Take[]>('GET', `${at}/takes`)).body;
const say = (body: object) => harness.call<SaidOfTakes & { error?: { message: string } }>('POST', `${at}/conditions`, { candidateId: null, ...body });

it('distance is said of one candidate, in all takes where it is not known, and taken back', async () => {
  const takeIds = (await takes()).map(({ id }) => id);
  const [first] = takeIds as [string];
  await say({ takeIds: [first], kind: 'distance', levelId: '10', candidateId: chains[1] });
  const { status, body } = await say({ takeIds, kind: 'distance', levelId: '1', candidateId: chains[1], onlyUnknown: true });
  expect([status, body.takeIds]).toEqual([200, takeIds.filter((id) => id !== first)]);
  const levels = async () => (await takes()).map(({ setups, condition }) => setups.map((setup) => setup.levels.distance ?? condition.distance));
  expect((await levels()).every(([own, other], index) => own === NOT_KNOWN && other === (index === 0 ? '10' : '1'))).toBe(true);
  await say({ takeIds, kind: 'distance', levelId: NOT_KNOWN, candidateId: chains[1] });
  expect((await takes()).every(({ condition }) => condition.distance === NOT_KNOWN)).toBe(true);
});

it('a level that the plan does not have is refused', async () => {
  const [take] = await takes();
  expect((await say({ takeIds: [take!.id], kind: 'distance', levelId: '77' })).status).toBe(422);
  expect((await takes())[0]!.condition).toEqual(UNKNOWN_CONDITION);
});

it('what was logged in the field has its condition from the plan, and is left alone', async () => {
  const [take] = await takes();
  await harness.call('POST', `${at}/log`, { lines: [{ id: newId(), takeId: take!.id, kind: 'note', text: 'x', atMs: 5 }] });
  const refused = await say({ takeIds: [take!.id], kind: 'distance', levelId: '1' });
  expect([refused.status, refused.body.error?.message]).toEqual([409, expect.stringContaining('logged in the field')]);
  const { body } = await say({ takeIds: (await takes()).map(({ id }) => id), kind: 'distance', levelId: '1', onlyUnknown: true });
  expect(body.takeIds).not.toContain(take!.id);
});
