import type { RankDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import { newId } from '@marvet/core/domain/identity';
import type { Plan } from '@marvet/core/domain/plan';
import type { Take } from '@marvet/core/domain/take';
import { spoken } from '@marvet/core/testing/signals';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial, recorderWav } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await openHarness();
});
afterAll(() => harness.close());

const loud = spoken(-26, -70, 1);
const noisy = spoken(-38, -52, 20);

describe('the verdict', () => {
  it('is computed from audio, ears and marks; spoiled takes take no part', async () => {
    const { trial, at, chains } = await readyTrial(harness);
    const criteria = [
      { name: 'Voice over noise', kind: 'measured', measureId: 'noise.snrDb', weight: 3, best: 50, worst: 0 },
      { name: 'Locks', kind: 'inspected', weight: 1, best: 10, worst: 0, dealbreaker: { side: 'below', limit: 3 } },
    ];
    const [, locks] = [
      await harness.call<{ id: string }>('POST', `${at}/criteria`, criteria[0]),
      await harness.call<{ id: string }>('POST', `${at}/criteria`, { ...criteria[1], position: 1 }),
    ];
    await harness.upload(trial.id, 'S001.wav', recorderWav([loud, noisy], '1', '1', ['QU', 'LO']));
    await harness.services.work.runner.idle();
    expect((await harness.call('GET', `${at}/verdict`)).body).toMatchObject({
      open: false,
      rows: null,
      missing: [{ criterionIds: [locks.body.id] }, { criterionIds: [locks.body.id] }],
    });
    expect((await harness.call('GET', `${at}/verdict/verdict.csv`)).status).toBe(409);
    for (const sealed of ['doubt', 'effects', 'allocation', 'limits', 'raw', 'events']) expect((await harness.call('GET', `${at}/verdict/${sealed}`)).status).toBe(409);
    await harness.call('PUT', `${at}/marks`, { chainId: chains[0], criterionId: locks.body.id, points: 2, remark: 'fell out' });
    await harness.call('PUT', `${at}/marks`, { chainId: chains[1], criterionId: locks.body.id, points: 9, remark: '' });
    // What a sealed trial found is kept from every other one, too.
    expect((await harness.call('GET', '/found')).body).toEqual([]);
    await harness.call('POST', `${at}/verdict/open`);
    expect((await harness.call('GET', '/found')).body).toMatchObject([
      { trialId: trial.id, candidateId: chains[1], rank: 1, of: 2, takes: 1 },
      { trialId: trial.id, candidateId: chains[0], rank: null, ruledOut: ['Locks'] },
    ]);
    const rows = (await harness.call<{ rows: { candidate: { id: string; price: number }; rank: number | null; cells: { value: number }[] }[] }>('GET', `${at}/verdict`)).body.rows;
    expect(rows.map((row) => [row.candidate.id, row.rank, row.candidate.price])).toEqual([
      [chains[1], 1, 100],
      [chains[0], null, 100],
    ]);
    expect(rows[1]!.cells[0]!.value).toBeGreaterThan(40);
    // One take and a mark: nothing can be drawn anew, and that is said; the one that is ruled out is never first.
    const doubt = (await harness.call<RankDoubt>('GET', `${at}/verdict/doubt?weights=tenth`)).body;
    expect(doubt).toMatchObject({ weights: 'tenth', draws: 2000, fixed: [expect.any(String), locks.body.id], deciding: [] });
    expect(doubt.places.map(({ candidateId, best }) => [candidateId, best])).toEqual([
      [chains[0], 0],
      [chains[1], 1],
    ]);
    expect((await harness.call('GET', `${at}/verdict/doubt?weights=guessed`)).status).toBe(422);
    // One take says nothing of what made a difference.
    expect((await harness.call('GET', `${at}/verdict/effects`)).body).toEqual([]);
    expect((await harness.call('GET', `${at}/verdict/verdict.csv`)).text).toContain('Lodestar,1,Locks,9,points');
    const [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    await harness.call('POST', `${at}/log`, { lines: [{ id: newId(), takeId: take!.id, atMs: 1, kind: 'flag', flag: 'spoiled' }] });
    const after = (await harness.call<{ missing: { criterionIds: string[] }[] }>('GET', `${at}/verdict`)).body;
    expect(after.missing.every((each) => each.criterionIds.length === 1)).toBe(true);
  });

  it('judges a criterion where and as it says: at one distance, or by the worst of all', async () => {
    const { trial, at } = await readyTrial(harness);
    const plan = (await harness.call<Plan>('GET', `${at}/plan`)).body;
    const factors = plan.factors.map((factor) =>
      factor.kind === 'distance' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id !== '40' })) } : factor,
    );
    await harness.call('PUT', `${at}/plan`, { ...plan, factors });
    await harness.call('POST', `${at}/plan/commit`);
    const takes = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    expect(takes.map((take) => take.condition.distance)).toEqual(['1', '10']);
    const criterion = (name: string, rest: object, position: number) =>
      harness.call('POST', `${at}/criteria`, { name, kind: 'measured', measureId: 'noise.snrDb', weight: 1, best: 50, worst: 0, position, ...rest });
    await criterion('near', { where: { distance: ['1'] } }, 0);
    await criterion('far', { where: { distance: ['10'] } }, 1);
    await criterion('worst', { aggregation: 'worst' }, 2);
    await criterion('nowhere', { where: { windscreen: ['fur'] } }, 3);
    // The voice stands far over the noise at 1 m, and close above it at 10 m, for both candidates.
    await harness.upload(trial.id, 'S001.wav', recorderWav([loud, loud], '1', '1', ['QU', 'LO']));
    await harness.upload(trial.id, 'S002.wav', recorderWav([noisy, noisy], '2', '1', ['QU', 'LO']));
    await harness.services.work.runner.idle();
    await harness.call('POST', `${at}/verdict/open`);
    const { rows, criteria } = (
      await harness.call<{ rows: { cells: { value: number | null }[]; missing: string[] }[]; criteria: { id: string; name: string }[] }>('GET', `${at}/verdict`)
    ).body;
    for (const row of rows) {
      const [near, far, worst, nowhere] = row.cells.map((cell) => cell.value);
      expect(near).toBeGreaterThan((far as number) + 10);
      expect(worst).toBe(far);
      expect(nowhere).toBeNull();
      expect(row.missing).toEqual([criteria.find((each) => each.name === 'nowhere')!.id]);
    }
  });
});
