import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { effectsOf } from './effects.ts';
import type { Observation } from './observations.ts';

const observed = (observations: Observation[]) => ({ criterionId: 'k', observations, leftOut: 0 });
const at = (take: number, candidateId: string, value: number, levels: Observation['levels'] = {}): Observation => ({
  value,
  takeId: `t${take}`,
  candidateId,
  levels: { candidate: candidateId, ...levels },
});

/** Takes at two distances with three candidates, as a plan has them. */
function day(random: ReturnType<typeof randomSource>, noise: number, more: (take: number, candidate: string) => number = () => 0): Observation[] {
  return Array.from({ length: 12 }, (_, take) => {
    const moment = noise * random.normal();
    return ['osier', 'heron', 'teal'].map((candidate, index) => {
      const distance = take % 2 === 0 ? '1 m' : '10 m';
      return at(take, candidate, 40 - (distance === '10 m' ? 14 : 0) + [3, 1, 0][index]! + moment + noise * random.normal() + more(take, candidate), {
        distance,
        script: `s${take % 3}`,
      });
    });
  }).flat();
}

describe('what made the difference', () => {
  it('tells without noise exactly what was put in, and what nothing was put in', () => {
    const { terms, explained, strange } = effectsOf(observed(day(randomSource(1), 0)))!;
    const of = (term: string) => terms.find((each) => each.term === term)!;
    expect(of('distance').most).toMatchObject({ levels: ['1 m', '10 m'], estimate: expect.closeTo(14, 9), low: expect.closeTo(14, 6) });
    expect(of('candidate').most).toMatchObject({ levels: ['osier', 'teal'], estimate: expect.closeTo(3, 9) });
    expect(of('candidate').levels.map(({ level }) => level)).toEqual(['osier', 'heron', 'teal']);
    expect(of('script').most!.estimate).toBeCloseTo(0, 9);
    expect(explained).toBeCloseTo(1, 9);
    expect(strange).toEqual([]);
    // Orthogonal: parts add up.
    expect(terms.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
  });

  it('holds what was put in as often as it claims, also for the largest of several, and calls nothing that nothing was put into', () => {
    const random = randomSource(2);
    const held = { candidate: 0, distance: 0 };
    let wrongly = 0;
    for (let trial = 0; trial < 300; trial++) {
      const { terms } = effectsOf(observed(day(random, 1.5)))!;
      for (const { term, most } of terms) {
        if (term === 'script') wrongly += most!.low! > 0 ? 1 : 0;
        if (term !== 'candidate' && term !== 'distance') continue;
        const truth = (level: string) => ({ osier: 3, heron: 1, teal: 0, '1 m': 14, '10 m': 0 })[level]!;
        const [more, less] = most!.levels;
        if (most!.low! <= truth(more) - truth(less) && most!.high! >= truth(more) - truth(less)) held[term]++;
      }
    }
    expect(held.distance / 3).toBeGreaterThan(92);
    expect(held.candidate / 3).toBeGreaterThan(92);
    expect(wrongly / 3).toBeLessThan(8);
  });

  it('names what was never changed alone, and says nothing of it nor of what it is mixed with', () => {
    const both = Array.from({ length: 6 }, (_, take) =>
      ['osier', 'heron'].map((candidate) =>
        at(take, candidate, 20 + (candidate === 'osier' ? 5 : 0), { placement: candidate === 'osier' ? 'tie' : 'sternum', distance: take % 2 ? '1 m' : '2 m' }),
      ),
    ).flat();
    const { terms } = effectsOf(observed(both))!;
    const of = (term: string) => terms.find((each) => each.term === term)!;
    expect(of('candidate')).toMatchObject({ most: null, levels: [], aliasedWith: ['placement'] });
    expect(of('placement')).toMatchObject({ most: null, aliasedWith: ['candidate'] });
    expect(of('distance')).toMatchObject({ most: { estimate: expect.closeTo(0, 9) }, aliasedWith: [] });
  });

  it('judges unlike conditions by the model: equal candidates of which one was recorded further away stay equal', () => {
    const rows: Observation[] = [];
    for (let take = 0; take < 8; take++) {
      const far = take >= 4;
      rows.push(at(take, 'osier', far ? 26 : 40, { distance: far ? '10 m' : '1 m' }));
      // Heron was away at three of the near ones: its raw middle lies far below.
      if (far || take === 0) rows.push(at(take, 'heron', far ? 26 : 40, { distance: far ? '10 m' : '1 m' }));
    }
    const { terms } = effectsOf(observed(rows))!;
    expect(terms.find(({ term }) => term === 'candidate')!.most!.estimate).toBeCloseTo(0, 9);
    expect(terms.find(({ term }) => term === 'distance')!.most!.estimate).toBeCloseTo(14, 9);
  });

  it('names the take that does not fit, and only that', () => {
    const random = randomSource(5);
    const { strange } = effectsOf(observed(day(random, 0.3, (take, candidate) => (take === 7 && candidate === 'heron' ? -12 : 0))))!;
    expect(strange[0]).toMatchObject({ takeId: 't7', candidateId: 'heron' });
    const quiet = Array.from({ length: 20 }, () => effectsOf(observed(day(random, 1)))!.strange.length);
    expect(quiet.filter((count) => count > 0).length).toBeLessThan(8);
  });

  it('says nothing of too little, and gives no interval where there are too few takes', () => {
    expect(effectsOf(observed([at(0, 'osier', 1), at(0, 'heron', 2), at(0, 'teal', 2)]))).toBeNull();
    expect(effectsOf(observed([]))).toBeNull();
    const two = effectsOf(
      observed([at(0, 'osier', 1, { distance: '1 m' }), at(0, 'heron', 2, { distance: '1 m' }), at(1, 'osier', 3, { distance: '2 m' }), at(1, 'heron', 5, { distance: '2 m' })]),
    )!;
    expect(two.terms.find(({ term }) => term === 'distance')!.most).toMatchObject({ estimate: 2.5, low: null, high: null });
  });

  it('has a level that is none for what has none, and compares it with nothing', () => {
    const rows = Array.from({ length: 6 }, (_, take) => [at(take, 'osier', 10 + (take % 2), { rig: take % 2 ? 'tape' : 'clip' }), at(take, 'boom', 30)]).flat();
    const rig = effectsOf(observed(rows))!.terms.find(({ term }) => term === 'rig')!;
    expect(rig.most).toMatchObject({ levels: ['tape', 'clip'], estimate: expect.closeTo(1, 9) });
  });
});

describe('what works on each other', () => {
  const PAIR = ['candidate', 'distance'] as const;
  /** Osier gains 4 over the others at 1 m, besides. */
  const extra = (take: number, candidate: string) => (take % 2 === 0 && candidate === 'osier' ? 4 : 0);

  it('tells without noise exactly what was put in', () => {
    const { together } = effectsOf(observed(day(randomSource(4), 0, extra)), [PAIR])!;
    expect(together[0]!.most!.estimate).toBeCloseTo(4, 9);
    expect(together[0]!.most!.at).toEqual(['1 m', '10 m']);
    expect(together[0]!.most!.levels[0]).toBe('osier');
    expect(together[0]!.share).toBeGreaterThan(0.01);
  });

  it('of nothing that was put in nothing is shown, in 95 of 100 trials, and of much it is', () => {
    const random = randomSource(5);
    const shown = (more?: (take: number, candidate: string) => number) => {
      const most = effectsOf(observed(day(random, 1, more)), [PAIR])!.together[0]!.most!;
      return most.low !== null && most.low > 0;
    };
    expect(Array.from({ length: 200 }, () => shown()).filter(Boolean).length).toBeLessThanOrEqual(16);
    expect(Array.from({ length: 50 }, () => shown((take, candidate) => 2 * extra(take, candidate))).filter(Boolean).length).toBeGreaterThan(45);
  });

  it('by hand: two by two, each corner twice, is the difference of the two differences', () => {
    const corner = (take: number, candidate: string, distance: string, value: number) => at(take, candidate, value, { distance });
    const corners = [10, 12, 7, 3].flatMap((value, index) =>
      [-1, 1].map((off, again) => corner(2 * index + again, index < 2 ? 'osier' : 'heron', index % 2 === 0 ? '1 m' : '10 m', value + off)),
    );
    // (10 - 12) - (7 - 3) = -6; each corner's mean has a variance of 2 / 2, and there are four.
    const most = effectsOf(observed(corners), [PAIR])!.together[0]!.most!;
    expect(most.estimate).toBeCloseTo(6, 9);
    const half = most.estimate - most.low!;
    // Student's 97.5 % of 4 degrees of freedom, times the root of 4.
    expect(half).toBeCloseTo(2.776445 * 2, 4);
  });

  it('what never met cannot be told, and what is no term is left out', () => {
    const three = day(randomSource(6), 1).filter(({ candidateId, levels }) => candidateId === 'osier' || levels.distance === '1 m');
    const { together } = effectsOf(observed(three), [PAIR, ['candidate', 'windscreen']])!;
    expect(together).toHaveLength(1);
    expect(together[0]!.most).toBeNull();
  });
});
