import { describe, expect, it } from 'vitest';
import { habitOf, setupsByHabit } from './habit.ts';

const SETUPS = [
  { id: 'a', candidateId: 'gull' },
  { id: 'b', candidateId: 'tern' },
];

describe('which candidate a channel is of, by what the recorder did before', () => {
  it('a transmitter stays on its microphone; one that changed says nothing', () => {
    const habit = habitOf([
      { channelIndex: 0, candidateId: 'gull' },
      { channelIndex: 0, candidateId: 'gull' },
      { channelIndex: 1, candidateId: 'gull' },
      { channelIndex: 1, candidateId: 'tern' },
    ]);
    expect([...habit]).toEqual([[0, 'gull']]);
  });

  it('a name wins over a habit, and no candidate is given twice', () => {
    expect(setupsByHabit([null, null], SETUPS, new Map([[0, 'gull']]))).toEqual(['a', null]);
    expect(
      setupsByHabit(
        ['b', null],
        SETUPS,
        new Map([
          [0, 'gull'],
          [1, 'tern'],
        ]),
      ),
    ).toEqual(['b', null]);
    expect(
      setupsByHabit(
        [null, null],
        SETUPS,
        new Map([
          [0, 'gull'],
          [1, 'gull'],
        ]),
      ),
    ).toEqual(['a', null]);
  });

  it('where the take has the candidate twice, nobody but a person can say which', () => {
    expect(setupsByHabit([null], [...SETUPS, { id: 'c', candidateId: 'gull' }], new Map([[0, 'gull']]))).toEqual([null]);
  });
});
