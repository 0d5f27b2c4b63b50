import { describe, expect, it } from 'vitest';
import { aLevelDbfs, energyMeanDb } from './aLevel.ts';

const RATE_HZ = 48_000;
const sine = (hz: number, dbfs: number) => Float32Array.from({ length: 24_000 }, (_, index) => 10 ** (dbfs / 20) * Math.sin((2 * Math.PI * hz * index) / RATE_HZ));

describe('A-weighted level of a block', () => {
  // IEC 61672-1, table 3.
  it.each([
    [1000, 0],
    [100, -19.1],
    [250, -8.6],
    [4000, 1],
    [8000, -1.1],
  ])('of a tone at %s Hz is %s dB against 1 kHz', (hz, weightDb) => expect(aLevelDbfs(sine(hz, -20), RATE_HZ)).toBeCloseTo(-20 - 3.01 + weightDb, 0));

  it('over a time is the mean of energies, in which silence counts as nothing', () => {
    expect(energyMeanDb([-20, -20])).toBeCloseTo(-20, 9);
    expect(energyMeanDb([-20, null])).toBeCloseTo(-23.01, 2);
    expect([energyMeanDb([null, null]), energyMeanDb([])]).toEqual([null, null]);
  });

  it('of silence is none', () => expect(aLevelDbfs(new Float32Array(8192), RATE_HZ)).toBeNull());
});
