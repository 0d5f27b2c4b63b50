import { describe, expect, it } from 'vitest';
import { firstKnown, habitOf, setupsOf } from './habit.ts';

const SETUPS = [
  { id: 'a', candidateId: 'gull' },
  { id: 'b', candidateId: 'tern' },
];

describe('which candidate a channel is of', () => {
  it('by what the recorder did before: a transmitter stays on its microphone; one that changed says nothing', () => {
    const habit = habitOf([
      { channelIndex: 0, candidateId: 'gull' },
      { channelIndex: 0, candidateId: 'gull' },
      { channelIndex: 1, candidateId: 'gull' },
      { channelIndex: 1, candidateId: 'tern' },
    ]);
    expect([...habit]).toEqual([[0, 'gull']]);
    expect(setupsOf(2, SETUPS, habit)).toEqual(['a', null]);
  });

  it('where the take has the candidate twice, nobody but a person can say which', () => {
    expect(setupsOf(1, [...SETUPS, { id: 'c', candidateId: 'gull' }], new Map([[0, 'gull']]))).toEqual([null]);
  });

  it.each([
    [
      'what is known first wins',
      [
        ['b', null],
        ['a', 'a'],
      ],
      ['b', 'a'],
    ],
    [
      'none is given twice, within a way or between two',
      [
        [null, null],
        ['a', 'a'],
        ['b', 'b'],
      ],
      ['a', 'b'],
    ],
    [
      'what is known of a later channel first is not taken by an earlier one',
      [
        [null, 'a'],
        ['a', null],
      ],
      [null, 'a'],
    ],
    ['nobody knows', [[null], [null]], [null]],
    ['there is no way of knowing', [], []],
  ] as [string, (string | null)[][], (string | null)[]][])('%s', (_what, ways, setups) => {
    expect(firstKnown(ways)).toEqual(setups);
  });
});
