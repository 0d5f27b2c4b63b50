import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { rankDoubt } from './rankDoubt.ts';
import type { DrawnFrom } from './samples.ts';
import { closeToFirst } from './sayDoubt.ts';
import { reducedTrial, simulatedTrial } from './simulatedTrial.ts';

function called(trial: DrawnFrom): string | null {
  const found = closeToFirst(rankDoubt(trial, 'given', 400));
  return found && found.close.length === 0 ? found.first.candidateId : null;
}

describe('the doubt of candidates that were not recorded under the same conditions', () => {
  it('equal ones of a third of a design are called too close in at least 90 of 100 trials', () => {
    const random = randomSource(31);
    for (const shape of [
      { candidates: 3, criteria: 1 },
      { candidates: 2, criteria: 2 },
    ]) {
      const calls = Array.from({ length: 100 }, () => called(reducedTrial(random, shape)));
      expect(calls.filter((first) => first !== null).length).toBeLessThanOrEqual(10);
    }
  });

  it('one that is far ahead is called first, whatever places it was recorded at', () => {
    const random = randomSource(32);
    const calls = Array.from({ length: 40 }, () => called(reducedTrial(random, { candidates: 3, criteria: 1, ahead: 4 })));
    expect(calls.filter((first) => first === 'x0').length).toBeGreaterThanOrEqual(38);
  });

  it('scores of equal ones hold each other in 95 of 100 draws, nearly always', () => {
    const random = randomSource(33);
    const trials = Array.from({ length: 60 }, () => rankDoubt(reducedTrial(random, { candidates: 3, criteria: 1 }), 'given', 400));
    const apart = trials.filter(({ places }) => places.some((a) => places.some((b) => (a.score?.low as number) > (b.score?.high as number))));
    expect(apart.length).toBeLessThanOrEqual(6);
  });

  it('who met none of the others has no score and no place, and takes nothing from theirs', () => {
    const trial = simulatedTrial(randomSource(34), { takes: 6, candidates: 2, criteria: 1, ahead: 8 });
    const alone = { candidate: 2, take: 6, listener: null, condition: 'far away', value: 90, weight: 1 };
    const wider = { ...trial, candidateIds: [...trial.candidateIds, 'alone'], takeIds: [...trial.takeIds, 't6'], samples: trial.samples.map((own) => [...own, alone]) };
    const { places, first } = rankDoubt(wider, 'given', 400);
    expect(first).toBe('x0');
    expect(places[2]).toMatchObject({ score: null, best: 0, firstTwo: 0 });
    expect(places[0]?.best).toBe(1);
  });
});
