import { describe, expect, it } from 'vitest';
import type { PlaceDoubt, RankDoubt } from './rankDoubt.ts';
import { recordNext, recordNextText } from './recordNext.ts';

const place = (candidateId: string, best: number, moreTakes: number | null | undefined): PlaceDoubt => ({
  candidateId,
  best,
  firstTwo: 1,
  score: { low: 50, middle: 60, high: 70 },
  beats: [0.5, 0.5],
  breaks: [],
  toSettle: moreTakes === undefined ? null : { moreTakes, criterionId: 'c', share: 1, aheadPoints: 3, withinPoints: 4, takes: 12 },
});
const doubt = (moreTakes: number | null): RankDoubt => ({
  weights: 'given',
  draws: 2000,
  first: 'a',
  places: [place('a', 0.6, undefined), place('b', 0.4, moreTakes)],
  fixed: [],
  deciding: [],
});

describe('what to record next', () => {
  it('goes through the plan as often as the takes that are needed fill it', () => {
    // 12 takes a time; 10 more are one time more, 25 more three.
    expect(recordNext(doubt(10), { repeats: 1, takesOfPlan: 12, open: 0 })).toMatchObject({ candidateId: 'b', repeats: 2, takes: 12 });
    expect(recordNext(doubt(25), { repeats: 1, takesOfPlan: 12, open: 0 })).toMatchObject({ repeats: 4, takes: 36 });
    // Twice as many takes halve the variance.
    expect(recordNext(doubt(10), { repeats: 1, takesOfPlan: 12, open: 0 })?.thenPoints).toBeCloseTo(4 / Math.SQRT2, 9);
  });

  it('counts what is planned and not done yet', () => {
    expect(recordNext(doubt(10), { repeats: 2, takesOfPlan: 24, open: 12 })).toBeNull();
    expect(recordNext(doubt(20), { repeats: 2, takesOfPlan: 24, open: 12 })).toMatchObject({ repeats: 3, takes: 12 });
  });

  it('says nothing where no number of takes would tell, where it would be far too many, and where nothing is planned', () => {
    expect(recordNext(doubt(null), { repeats: 1, takesOfPlan: 12, open: 0 })).toBeNull();
    expect(recordNext(doubt(400), { repeats: 1, takesOfPlan: 12, open: 0 })).toBeNull();
    expect(recordNext(doubt(10), { repeats: 1, takesOfPlan: 0, open: 0 })).toBeNull();
    expect(recordNext(doubt(10), { repeats: 10, takesOfPlan: 12, open: 0 })).toBeNull();
  });

  it('tells what it would bring', () => {
    const next = recordNext(doubt(10), { repeats: 1, takesOfPlan: 12, open: 0 })!;
    expect(recordNextText(next, 'Wire', 'Boom')).toBe('Wire is 3.0 points ahead of Boom, known to within 4.0. With 12 takes more like these that would be some 2.8.');
  });
});
