import { newId } from '@marvet/core/domain/identity';
import { thrown } from '@marvet/core/domain/switches';
import type { Take } from '@marvet/core/domain/take';
import type { RangeRow } from '@marvet/core/radio/rangeWindows';
import { mixed, whiteNoise } from '@marvet/core/testing/signals';
import { voiced } from '@marvet/core/testing/voiced';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial } from '../testing/harness.ts';

const RATE_HZ = 48_000;
const LENGTH_S = 30;

let harness: Harness;
beforeEach(async () => {
  harness = await openHarness();
});
afterEach(() => harness.close());

const ranges = async (at: string) => (await harness.call<{ rows: RangeRow[] }>('GET', `${at}/range`)).body.rows;

describe('how far links held', () => {
  it('is told from break-ups that were measured in the sound, of candidates that go by radio', async () => {
    const { trial, at, chains } = await readyTrial(harness);
    const transmitter = (await harness.call<{ id: string }>('POST', '/items', { kind: 'transmitter', name: 'Sedge pack' })).body.id;
    await harness.change(`${at}/chains/${chains[0]}`, { links: [{ itemId: transmitter, settings: {} }] });
    const sound = mixed(voiced(LENGTH_S, -60), whiteNoise(-60, LENGTH_S, 5));
    // Two mutes in the first ten seconds, none later.
    for (const atS of [2.2, 6.3]) sound.fill(0, atS * RATE_HZ, (atS + 0.12) * RATE_HZ);
    await harness.upload(trial.id, 'S001_T01 QU.wav', plainWav(sound));
    await harness.upload(trial.id, 'S001_T01 LO.wav', plainWav(sound));
    await harness.services.work.runner.idle();
    expect(await ranges(at)).toEqual([]);
    await harness.services.store.write(async (tables) => {
      for (const take of await tables.takes.find()) await tables.takes.update(take.id, { status: 'done' });
    });
    const rows = await ranges(at);
    expect(rows).toHaveLength(1);
    expect(rows[0]).toMatchObject({ candidateId: chains[0], side: 'facing' });
    expect(rows[0]!.marks[0]).toMatchObject({ windows: 3, brokeUp: 1 });
    expect(rows[0]!.range.reliableToM).not.toBeNull();
  });

  it('of a walk with something switched in it puts what broke up after the switch to its own distance', async () => {
    const { trial, at, chains } = await readyTrial(harness);
    const transmitter = (await harness.call<{ id: string }>('POST', '/items', { kind: 'transmitter', name: 'Sedge pack' })).body.id;
    await harness.change(`${at}/chains/${chains[0]}`, { links: [{ itemId: transmitter, settings: {} }] });
    const [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body as [Take];
    const setup = take.setups.find(({ candidateId }) => candidateId === chains[0])!;
    const startMs = 1_764_230_000_000;
    const line = (atS: number, more: object) => ({ id: newId(), takeId: take.id, atMs: startMs + atS * 1000, ...more });
    const mark = (atS: number, distanceM: number) => line(atS, { kind: 'walk', press: { what: 'mark', distanceM, by: 'peg' } });
    // Out to 60 m in a minute; half way the limiter goes in. Three mutes near the end, none before.
    const lines = [
      line(0, { kind: 'start' }),
      mark(0, 0),
      line(30, { kind: 'switch', changed: 'processing', setups: [{ id: newId(), fromId: setup.id, ...thrown(undefined, 'lim', true) }] }),
      mark(60, 60),
      line(60, { kind: 'stop' }),
    ];
    await harness.call('POST', `${at}/log`, { lines });
    const sound = mixed(voiced(2 * LENGTH_S, -60), whiteNoise(-60, 2 * LENGTH_S, 5));
    for (const atS of [51.2, 53.4, 56.3]) sound.fill(0, atS * RATE_HZ, (atS + 0.12) * RATE_HZ);
    await harness.upload(trial.id, 'S001_T01 QU.wav', plainWav(sound));
    await harness.services.work.runner.idle();
    const broken = (await ranges(at)).flatMap(({ marks }) => marks.filter(({ brokeUp }) => brokeUp > 0));
    expect(broken.map(({ distanceM }) => Math.round(distanceM))).toEqual([55]);
  });

  it('of a trial that is not there is refused', async () => {
    expect((await harness.call('GET', '/trials/00000000-0000-4000-8000-000000000000/range')).status).toBe(404);
  });
});
