import { describe, expect, it } from 'vitest';
import { filled } from '../../audio/filled.ts';
import { Surroundings } from './surroundings.ts';

const STEP_S = 0.01;
const times = filled(1200, (frame) => (frame + 0.5) * STEP_S);
const powersOf = (power: (timeS: number) => number) => times.map(power);
const bump = (timeS: number) => (timeS > 6 && timeS < 6.2 ? 1e-3 : 1e-5);

describe('what stands out of its surroundings', () => {
  it('is told against what is usual between words around it', () => {
    expect(new Surroundings(powersOf(bump), times, STEP_S, [[0, 12]]).overUsualDb(6, 6.2)).toBeCloseTo(20, 6);
  });

  it('a beat among beats does not', () => {
    const beats = powersOf((timeS) => (timeS % 0.5 < 0.15 ? 1e-3 : 1e-5));
    expect(new Surroundings(beats, times, STEP_S, [[0, 12]]).overUsualDb(6, 6.15)).toBeCloseTo(0, 6);
  });

  it('words around it do not count, nor what is further off than five seconds', () => {
    const loudWords = powersOf((timeS) => (timeS > 4 && timeS < 5 ? 1 : timeS < 0.9 ? 1 : bump(timeS)));
    const quiet: [number, number][] = [
      [0, 4],
      [5, 12],
    ];
    expect(new Surroundings(loudWords, times, STEP_S, quiet).overUsualDb(6, 6.2)).toBeCloseTo(20, 6);
  });

  it('without half a second of quiet around nobody knows', () => {
    expect(new Surroundings(powersOf(bump), times, STEP_S, [[6, 6.3]]).overUsualDb(6, 6.2)).toBeNull();
  });
});
