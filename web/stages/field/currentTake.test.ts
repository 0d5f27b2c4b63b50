import { untouchedTake } from '@marvet/core/domain/take';
import { describe, expect, it } from 'vitest';
import { currentTake, nextTake } from './currentTake.ts';

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const take = (n: number, status: 'planned' | 'rolling' | 'done' | 'skipped') => ({
  ...untouchedTake({ id: id(n), trialId: id(9), slate: n, position: n, condition: { station: 's', script: 'x' }, setups: [{ id: id(8), candidateId: id(7), levels: {} }] }),
  status,
});

describe('the take in sight', () => {
  it('is the one of the address, whatever its state; a stopped one stays', () => {
    const takes = [take(1, 'done'), take(2, 'planned')];
    expect(currentTake(takes, id(1))?.slate).toBe(1);
  });
  it('without one the rolling take, then the first that is planned, then the last', () => {
    expect(currentTake([take(1, 'planned'), take(2, 'rolling')], null)?.slate).toBe(2);
    expect(currentTake([take(1, 'done'), take(2, 'planned')], null)?.slate).toBe(2);
    expect(currentTake([take(1, 'done'), take(2, 'skipped')], 'gone')?.slate).toBe(2);
    expect(currentTake([], null)).toBeUndefined();
  });
  it('goes on to the next planned one, then to those that were left', () => {
    const takes = [take(1, 'planned'), take(2, 'done'), take(3, 'planned')];
    expect(nextTake(takes, takes[1]!)?.slate).toBe(3);
    expect(nextTake(takes, takes[2]!)?.slate).toBe(1);
    expect(nextTake([takes[1]!], takes[1]!)).toBeUndefined();
  });
});
