import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial } from '../testing/harness.ts';
import { keptVerdicts } from './keptVerdicts.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await openHarness();
});
afterAll(() => harness.close());

/** How often a verdict is worked out while something is done. */
async function workedOut(work: () => Promise<unknown>): Promise<number> {
  const spy = vi.spyOn(harness.services.store.criteria, 'find');
  await work();
  const { length } = spy.mock.calls;
  spy.mockRestore();
  return length;
}

describe('verdicts that are ready before anyone asks', () => {
  it('of an empty store there are none, and that is no error', async () => {
    expect(await workedOut(() => keptVerdicts(harness.services.store).warm())).toBe(0);
  });

  it('the trial that was recorded in last is ready; one in the bin is left alone', async () => {
    const { store } = harness.services;
    const { trial } = await readyTrial(harness);
    await harness.upload(trial.id, 'S001.wav', plainWav(new Float64Array(4800)));
    await harness.services.work.runner.idle();
    const row = await store.trials.findOneByOrFail({ id: trial.id });
    const kept = keptVerdicts(store);
    expect(await workedOut(() => kept.warm())).toBe(1);
    expect(await workedOut(() => kept.of(row))).toBe(0);

    await harness.change(`/trials/${trial.id}`, { question: 'Which one now?' });
    expect(await workedOut(() => kept.of(row))).toBe(1);

    await harness.call('DELETE', `/trials/${trial.id}`);
    expect(await workedOut(() => keptVerdicts(store).warm())).toBe(0);
  });
});
