import { describe, expect, it } from 'vitest';
import { heardAt, steadinessOf, steadinessText } from './hiddenChecks.ts';

describe('what is hidden in a round', () => {
  const round = { recordingIds: ['a', 'b', 'c'], checks: ['again', 'worse'] as const, checkOf: [2, 0] };
  it('lies after its recordings', () => {
    expect([0, 2, 3, 4, 5].map((place) => heardAt(round, place))).toEqual([
      { of: 0, check: null },
      { of: 2, check: null },
      { of: 2, check: 'again' },
      { of: 0, check: 'worse' },
      undefined,
    ]);
  });

  const listener = (points: Record<string, number>) => ({
    letters: { A: 'a', B: 'b', C: 'a', D: 'b' },
    checks: { C: 'again', D: 'worse' } as const,
    ratings: Object.entries(points).map(([letter, each]) => ({ letter, points: each, criterionId: 'x', reason: '', listenerId: 'l' })),
  });

  it('tells how far apart the same clip was judged, and how many stand above the one made worse', () => {
    expect(steadinessOf(listener({ A: 7, B: 5, C: 8, D: 2 }))).toEqual({ pointsApart: 1, aboveWorse: 1 });
    expect(steadinessText(steadinessOf(listener({ A: 7, B: 5, C: 8, D: 2 })))).toBe(
      'The same clip twice: 1.0 points apart. The one made worse: under 100 % of the others. Steady.',
    );
    const wild = steadinessOf(listener({ A: 2, B: 5, C: 9, D: 8 }));
    expect(wild).toEqual({ pointsApart: 7, aboveWorse: 1 / 3 });
    expect(steadinessText(wild)).toContain('Less steady');
  });

  it('nothing hidden is nothing told', () => {
    const plain = { letters: { A: 'a', B: 'b' }, checks: {}, ratings: listener({ A: 5, B: 6 }).ratings };
    expect(steadinessOf(plain)).toEqual({ pointsApart: null, aboveWorse: null });
    expect(steadinessText(steadinessOf(plain))).toBe('');
  });
});
