import { describe, expect, it } from 'vitest';
import type { Take } from '../domain/take.ts';
import { goodAndBad, notTested } from './candidateTold.ts';
import type { VerdictRow } from './verdict.ts';

const criteria = ['clear', 'hides', 'price'].map((id) => ({ id, weight: id === 'price' ? 0 : 1 })) as never;
const row = (id: string, goods: (number | null)[]): VerdictRow => ({ candidate: { id }, cells: goods.map((desirability) => ({ desirability })) }) as unknown as VerdictRow;

describe('what speaks for a candidate and against it', () => {
  it('is where it is the best of all, and where the worst, by enough to speak of', () => {
    const rows = [row('osier', [0.9, 0.2, 1]), row('heron', [0.6, 0.7, 0.5]), row('teal', [0.88, 0.24, 0.2])];
    expect(goodAndBad(rows, criteria, 'osier')).toEqual({ good: [], bad: [] });
    expect(goodAndBad(rows, criteria, 'heron')).toEqual({
      good: [{ criterionId: 'hides', by: expect.closeTo(0.46, 9) }],
      bad: [{ criterionId: 'clear', by: expect.closeTo(-0.28, 9) }],
    });
  });

  it('says nothing of what has no value, of what weighs nothing, and of one that stands alone', () => {
    expect(goodAndBad([row('osier', [null, 0.2, 1]), row('heron', [0.6, null, 0])], criteria, 'osier')).toEqual({ good: [], bad: [] });
    expect(goodAndBad([row('osier', [1, 1, 1])], criteria, 'osier')).toEqual({ good: [], bad: [] });
  });
});

describe('what was not tested', () => {
  const take = (distance: string, setups: [candidateId: string, levels: Record<string, string>][], more: Partial<Take> = {}): Take =>
    ({
      status: 'done',
      flags: [],
      condition: { station: 's', distance, windscreen: 'fur', script: 'n' },
      setups: setups.map(([candidateId, levels], at) => ({ id: `${at}`, candidateId, levels })),
      ...more,
    }) as unknown as Take;

  it('are the levels that others met, of kinds that it has; spoiled takes and takes that were not done do not count', () => {
    const takes = [
      take('1 m', [
        ['osier', { rig: 'tape' }],
        ['boom', {}],
      ]),
      take('40 m', [['osier', { rig: 'clip' }]]),
      take('80 m', [['osier', {}]], { status: 'planned' } as never),
      take('90 m', [['osier', {}]], { flags: [{ flag: 'spoiled' }] } as never),
    ];
    expect(notTested(takes, 'boom')).toEqual({ distance: ['40 m'] });
    expect(notTested(takes, 'osier')).toEqual({});
  });
});
