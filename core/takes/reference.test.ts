import { describe, expect, it } from 'vitest';
import type { Take } from '../domain/take.ts';
import type { PairGroup } from '../measure/report.types.ts';
import { pairFigures, referencesOf } from './reference.ts';

const take: Pick<Take, 'condition' | 'setups'> = {
  condition: { station: 'loft', distance: '1', script: 'lines' },
  setups: [
    { id: 'boom bare', candidateId: 'boom', levels: { windscreen: 'bare' } },
    { id: 'boom fur', candidateId: 'boom', levels: { windscreen: 'fur' } },
    { id: 'lav bare', candidateId: 'lav', levels: { windscreen: 'bare' } },
    { id: 'lav fur', candidateId: 'lav', levels: { windscreen: 'fur' } },
  ],
};
const recordings = take.setups.map(({ id }) => ({ id: `recording ${id}`, setupId: id }));

describe('the reference of a recording', () => {
  it('is the one that is most alike in all else', () => {
    expect(referencesOf(take, recordings, { kind: 'candidate', levelId: 'boom' })).toEqual(
      new Map([
        ['recording boom bare', 'recording boom bare'],
        ['recording boom fur', 'recording boom fur'],
        ['recording lav bare', 'recording boom bare'],
        ['recording lav fur', 'recording boom fur'],
      ]),
    );
  });

  it('may be a level of anything that differs within the take', () => {
    const found = referencesOf(take, recordings, { kind: 'windscreen', levelId: 'bare' });
    expect(found.get('recording lav fur')).toBe('recording lav bare');
    expect(found.get('recording boom fur')).toBe('recording boom bare');
  });

  it('is missing where the take does not hold it, or nobody said whose a channel is', () => {
    expect(referencesOf(take, recordings, { kind: 'candidate', levelId: 'another' }).size).toBe(0);
    expect(referencesOf(take, [{ id: 'stray', setupId: 'gone' }], { kind: 'candidate', levelId: 'boom' }).size).toBe(0);
  });
});

describe('figures against it', () => {
  const pair: PairGroup = {
    latencyMs: 3.2,
    driftPpm: 0,
    polarity: 1,
    levelDiffDb: -2,
    bandDiffDb: [],
    spectralDistanceDb: 1,
    eqMatch: [],
    matchedDistanceDb: 0.4,
    coherentSnrDb: 20,
    denoise: null,
    sameNoise: null,
  };

  it('leave out what could not be measured', () => {
    expect(pairFigures({ ...pair, spectralDistanceDb: null, matchedDistanceDb: null })).toEqual({ 'pair.latencyMs': 3.2, 'pair.levelDiffDb': -2 });
  });

  it('tell apart noise that was left as it was, of which nothing was taken, and noise of which nobody knows', () => {
    expect(pairFigures({ ...pair, sameNoise: true })['pair.denoise.voiceLossDb']).toBe(0);
    expect(pairFigures(pair)['pair.denoise.voiceLossDb']).toBeUndefined();
  });

  it('take the band of the voice that lost most', () => {
    const voiceLossDb: (number | null)[] = Array.from({ length: 31 }, () => 0.5);
    voiceLossDb[20] = 4.2;
    const denoise = { noiseReductionDb: 11, voiceLossDb, wordEdgeLossDb: null, musicalNoise: 0.2, moments: [] };
    const figures = pairFigures({ ...pair, denoise });
    expect(figures['pair.denoise.voiceLossDb']).toBe(4.2);
    expect(figures).not.toHaveProperty('pair.denoise.wordEdgeLossDb');
  });
});
