import { describe, expect, it } from 'vitest';
import { newId } from '../domain/identity.ts';
import type { TakeSetup } from '../domain/take.ts';
import { switchCuts } from './switchCuts.ts';

const [candidateId, first, second, third] = [newId(), newId(), newId(), newId()];
const setups: TakeSetup[] = [
  { id: first, candidateId, levels: {} },
  { id: second, candidateId, levels: {}, fromId: first, sinceMs: 15_000 },
  { id: third, candidateId, levels: {}, fromId: second, sinceMs: 25_000 },
];
const take = { setups, startedAtMs: 10_000 };
const none = new Map<string, number>();
const cuts = (more: Partial<Parameters<typeof switchCuts>[2]> = {}) =>
  switchCuts(take, setups[0]!, { clockStartS: null, fileLengthS: 30, byHandS: none, ...more }).map(({ setupId, startS, endS, cutBy }) => [
    setups.findIndex(({ id }) => id === setupId),
    startS,
    endS,
    cutBy,
  ]);

describe('which stretch is of which setup', () => {
  it.each<[string, Partial<Parameters<typeof switchCuts>[2]>, unknown[]]>([
    [
      'by the press, as if the file had begun with the take',
      {},
      [
        [0, null, 5, null],
        [1, 5, 15, 'press'],
        [2, 15, null, 'press'],
      ],
    ],
    [
      'by the clock, where the file began before',
      { clockStartS: 3 },
      [
        [0, null, 8, null],
        [1, 8, 18, 'clock'],
        [2, 18, null, 'clock'],
      ],
    ],
    [
      'as a hand set it',
      { byHandS: new Map([[second, 4.2]]) },
      [
        [0, null, 4.2, null],
        [1, 4.2, 15, 'hand'],
        [2, 15, null, 'press'],
      ],
    ],
    [
      'without what was switched after the end of the file',
      { fileLengthS: 12 },
      [
        [0, null, 5, null],
        [1, 5, null, 'press'],
      ],
    ],
    [
      'without what lasted no word long',
      { byHandS: new Map([[second, 14.9]]) },
      [
        [0, null, 14.9, null],
        [2, 15, null, 'press'],
      ],
    ],
  ])('%s', (_case, more, expected) => expect(cuts(more)).toEqual(expected));
});
