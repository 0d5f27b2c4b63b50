import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Criterion } from '../../domain/criterion.ts';
import { randomSource } from '../../simulate/random.ts';
import { studentPower } from '../../statistics/studentPower.ts';
import { judge } from '../verdict.ts';
import { moreTakes } from './gap.ts';
import { listenerSpread } from './listenerSpread.ts';
import { rankDoubt } from './rankDoubt.ts';
import type { DrawnFrom, DrawnSample } from './samples.ts';
import { closeText, closeToFirst, settleText } from './sayDoubt.ts';
import { openCriterion, reducedTrial, simulatedTrial } from './simulatedTrial.ts';
import { turnOvers } from './turnOver.ts';

const criterion = openCriterion;
const sample = (candidate: number, take: number | null, value: number, rest: Partial<DrawnSample> = {}): DrawnSample => ({
  ...{ candidate, take, listener: null, condition: `c${take}`, value, weight: 1 },
  ...rest,
});
const from = (criteria: Criterion[], candidates: number, takes: number, samples: DrawnSample[][], listeners = 0): DrawnFrom => ({
  criteria,
  candidateIds: Array.from({ length: candidates }, (_, at) => `x${at}`),
  takeIds: Array.from({ length: takes }, (_, at) => `t${at}`),
  listeners: Array.from({ length: listeners }, (_, at) => `l${at}`),
  samples,
});
const nameOf = (id: string) => id.toUpperCase();

/** Verdict of the same values by the rules of the verdict itself. */
function judged({ criteria, candidateIds, samples }: DrawnFrom) {
  const values = new Map(
    criteria.map((each, index) => {
      const byCandidate = new Map<string, Map<string, number>>();
      for (const { candidate, condition, value } of samples[index] ?? []) {
        const own = byCandidate.get(candidateIds[candidate] as string) ?? new Map<string, number>();
        byCandidate.set(candidateIds[candidate] as string, own.set(condition, value));
      }
      return [each.id, byCandidate] as const;
    }),
  );
  return judge(
    criteria,
    candidateIds.map((id) => ({ id, name: id, price: null, currency: null })),
    values,
  );
}

/** Takes of several candidates that met the same moments. */
const trial = (random: ReturnType<typeof randomSource>, takes: number, candidates: number, criteria: number, ahead = 0, momentSpread = 4) =>
  simulatedTrial(random, { takes, candidates, criteria, ahead, momentSpread });

describe('the doubt of a ranking', () => {
  it('follows the rules of the verdict: where nothing can be drawn anew it says what the verdict says', () => {
    const value = fc.option(fc.integer({ min: 0, max: 100 }), { nil: null });
    const limits = fc.constantFrom(null, { side: 'below' as const, limit: 20 });
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.array(value, { minLength: 4, maxLength: 4 }), fc.integer({ min: 1, max: 5 }), limits), { minLength: 1, maxLength: 4 }), (rows) => {
        const all = from(
          rows.map(([, weight, dealbreaker], at) => criterion(`k${at}`, { weight, dealbreaker })),
          4,
          0,
          rows.map(([values]) => values.flatMap((each, candidate) => (each === null ? [] : [sample(candidate, null, each)]))),
        );
        const { places } = rankDoubt(all, 'given', 20);
        const first = judged(all).filter(({ rank }) => rank === 1);
        for (const row of judged(all)) {
          const place = places.find(({ candidateId }) => candidateId === row.candidate.id)!;
          if (row.score === null) expect(place.score).toBeNull();
          else expect(place.score?.middle).toBeCloseTo(row.score, 9);
          expect(place.best).toBeCloseTo(row.rank === 1 ? 1 / first.length : 0, 9);
          expect(place.breaks.map(({ criterionId, share }) => [criterionId, Math.round(share * 1e6) / 1e6])).toEqual(row.ruledOut.map(({ criterionId }) => [criterionId, 1]));
        }
      }),
    );
  });

  it('says the same every time, and never more than there is: parts of draws add up', () => {
    const all = trial(randomSource(3), 8, 3, 2);
    const one = rankDoubt(all, 'given', 300);
    expect(rankDoubt(all, 'given', 300)).toEqual(one);
    expect(one.places.reduce((sum, { best }) => sum + best, 0)).toBeCloseTo(1, 9);
    expect(one.places.reduce((sum, { firstTwo }) => sum + firstTwo, 0)).toBeCloseTo(2, 9);
    for (const [a, place] of one.places.entries()) for (const [b, other] of one.places.entries()) if (a !== b) expect(place.beats[b]! + other.beats[a]!).toBeCloseTo(1, 9);
  });

  it('where one is missing at a take, judges as the verdict does, and a take left out is missing', () => {
    // Without c at take 2 the model reckons it; the middle of the draws is what the verdict says.
    const samples = [0, 1, 2, 3, 4, 5].flatMap((take) =>
      [0, 1, 2].flatMap((each) => (each === 2 && take === 2 ? [] : [sample(each, take, 40 + 5 * take + 2 * each + ((take * (each + 2)) % 3))])),
    );
    const all = from([criterion('k')], 3, 6, [samples]);
    const { places } = rankDoubt(all, 'given', 2_000);
    for (const row of judged(all)) expect(Math.abs(places.find(({ candidateId }) => candidateId === row.candidate.id)!.score!.middle - row.score!)).toBeLessThan(0.3);
  });

  it('takes the candidates of a take together: what a moment does to all of them is no doubt of the order', () => {
    const samples = [Array.from({ length: 6 }, (_, take) => [sample(0, take, 20 + 10 * take), sample(1, take, 19 + 10 * take)]).flat()];
    const { places } = rankDoubt(from([criterion('k')], 2, 6, samples), 'given', 500);
    expect(places[0]!.best).toBe(1);
    expect(places[0]!.score!.high - places[0]!.score!.low).toBeGreaterThan(20);
  });

  it('names what rests on one take, one listener or a mark, and the take that decides', () => {
    const criteria = [criterion('measured'), criterion('mark'), criterion('heard', { weight: 0.5 })];
    const measured = [50, 50, 90].map((value, take) => sample(0, take, value)).concat([60, 60, 10].map((value, take) => sample(1, take, value)));
    const marks = [sample(0, null, 55), sample(1, null, 50)];
    const heard = [0, 1].flatMap((listener) => [sample(0, 0, 50 + listener, { listener }), sample(1, 0, 50, { listener })]);
    const doubt = rankDoubt(from(criteria, 2, 3, [measured, marks, heard], 2), 'given', 200);
    expect(doubt.fixed).toEqual(['mark']);
    const decided = rankDoubt(
      from([criterion('measured')], 2, 3, [[40, 60, 70].map((value, take) => sample(0, take, value)).concat([50, 55, 56].map((value, take) => sample(1, take, value)))]),
      'given',
      200,
    );
    // Of 40, 60, 70 against 50, 55, 56 the middle is 60 and 55; without the second take it is 55 and 53, without the third 50 and 52.5.
    expect(decided.deciding).toEqual(['t2']);
  });

  it('tells in what part of the draws a limit is broken that one take breaks', () => {
    const values = [30, 40, 10, 50, 60].map((value, take) => sample(0, take, value));
    const { places } = rankDoubt(from([criterion('k', { dealbreaker: { side: 'below', limit: 20 } })], 1, 5, [values]), 'given', 4_000);
    // A take of five is in a draw of five with 1 - (4/5)^5.
    expect(places[0]!.breaks[0]!.share).toBeCloseTo(1 - 0.8 ** 5, 1);
    expect(places[0]!.best).toBeCloseTo(0.8 ** 5, 1);
  });

  it('with unknown weights asks which of them is first over all of them', () => {
    // One is best in three criteria of four, the other in one, by the same: over all shares the first leads where its three outweigh the one.
    const samples = [0, 1, 2, 3].map((at) => [sample(0, null, at < 3 ? 60 : 40), sample(1, null, 50)]);
    const { places } = rankDoubt(
      from(
        [0, 1, 2, 3].map((at) => criterion(`k${at}`)),
        2,
        0,
        samples,
      ),
      'unknown',
      4_000,
    );
    // The share of the fourth is above a half with (1/2)^3.
    expect(places[1]!.best).toBeCloseTo(1 / 8, 1);
  });
});

describe('scores of one take', () => {
  /** Listeners of different strictness, who each hear every candidate once. */
  const heard = (random: ReturnType<typeof randomSource>, listeners: number, candidates: number, ahead: number) => {
    const strict = Array.from({ length: listeners }, () => 10 * random.normal());
    const samples = strict.flatMap((strictness, listener) =>
      Array.from({ length: candidates }, (_, candidate) =>
        sample(candidate, 0, 50 + strictness + 5 * random.normal() + (candidate === 0 ? ahead : 0), { listener, condition: 'c' }),
      ),
    );
    return from([criterion('heard')], candidates, 1, [samples], listeners);
  };
  const callsOf = (listeners: number, candidates: number, ahead: number) => {
    const random = randomSource(listeners + 7 * candidates + ahead);
    return (
      Array.from({ length: 200 }, () => closeToFirst(rankDoubt(heard(random, listeners, candidates, ahead), 'given', 400))!).filter(({ close }) => close.length === 0).length / 200
    );
  };

  it.each([
    [2, 2],
    [2, 5],
    [3, 3],
    [6, 4],
  ])('of %i listeners and %i equal candidates are too close in at least 90 of 100 rounds', (listeners, candidates) => {
    expect(callsOf(listeners, candidates, 0)).toBeLessThanOrEqual(0.1);
  });

  it('of listeners who agree in all but their strictness are clear', () => {
    expect(callsOf(4, 4, 40)).toBeGreaterThan(0.95);
  });

  it('has the error of the two-way analysis of variance', () => {
    // Scores less listener and candidate means: residuals of 1, with one degree of freedom; four listeners more would say more.
    const samples = [
      [0, 0, 6],
      [0, 1, 4],
      [1, 0, 4],
      [1, 1, 6],
    ].map(([candidate, listener, value]) => sample(candidate!, 0, value!, { listener: listener!, condition: 'c' }));
    const { errors, df } = listenerSpread(samples, 2, 2)!;
    expect(df).toBe(1);
    for (const error of errors) expect(error).toBeCloseTo(Math.sqrt(2), 12);
    expect(listenerSpread(samples.slice(0, 2), 2, 2)).toBeNull();
  });
});

describe('what is called', () => {
  const called = (all: DrawnFrom) => {
    const found = closeToFirst(rankDoubt(all, 'given', 400))!;
    return found.close.length === 0 ? found.first.candidateId : null;
  };

  it.each([
    [4, 2, 1],
    [6, 2, 1],
    [12, 2, 1],
    [12, 5, 1],
    [12, 4, 4],
  ])('equal candidates are too close in at least 90 of 100 trials: %i takes, %i candidates, %i criteria', (takes, candidates, criteria) => {
    const random = randomSource(takes + 10 * candidates + criteria);
    for (const momentSpread of [0, 4]) {
      const wrongly = Array.from({ length: 100 }, () => called(trial(random, takes, candidates, criteria, 0, momentSpread))).filter(Boolean).length;
      expect(wrongly).toBeLessThanOrEqual(10);
    }
  });

  describe('a true difference', () => {
    /** What one value differs by from the others of its moment is 1, so that the error of a difference is known. */
    const foundOf = (make: (ahead: number) => DrawnFrom, ahead: number) => Array.from({ length: 300 }, () => called(make(ahead))).filter((id) => id === 'x0').length / 300;
    const random = randomSource(12);

    it.each([
      ['8 takes, one criterion', 8, 1],
      ['16 takes, one criterion', 16, 1],
      ['12 takes, four criteria', 12, 4],
      ['40 takes, two criteria', 40, 2],
    ])('of twice its standard error is found as often as theory says: %s', (_name, takes, criteria) => {
      const standardError = Math.sqrt(2 / takes / criteria);
      const found = foundOf((ahead) => trial(random, takes, 2, criteria, ahead), 2 * standardError);
      // Three standard errors of 300 trials on either side.
      expect(Math.abs(found - studentPower(2, takes - 1, 0.05))).toBeLessThan(0.09);
    });

    it('of twice its standard error is found as often in a third of a design, though hardly two met one condition', () => {
      const found = foundOf((ahead) => reducedTrial(random, { candidates: 2, criteria: 1, ahead }), 2 * Math.sqrt(2 / 9));
      expect(Math.abs(found - studentPower(2, 18 - 8, 0.05))).toBeLessThan(0.09);
    });

    it('of five times is found nearly always, and by the middle of all takes only where it is several times as large', () => {
      const standardError = Math.sqrt(2 / 16);
      expect(foundOf((ahead) => trial(random, 16, 2, 1, ahead), 5 * standardError)).toBeGreaterThan(0.95);
      const byMiddle = (ahead: number) => simulatedTrial(random, { takes: 16, candidates: 2, criteria: 1, ahead, aggregation: 'median' });
      expect(foundOf(byMiddle, 2 * standardError)).toBeLessThan(0.3);
    });
  });

  it('is said in a sentence, with who is too close', () => {
    const clear = trial(randomSource(1), 12, 2, 1, 30);
    expect(closeText(rankDoubt(clear, 'given', 200), nameOf)).toMatch(/^X0 is clearly first: .* It is best in 100 % of 200 draws\.$/);
    const close = trial(randomSource(1), 12, 3, 1);
    expect(closeText(rankDoubt(close, 'given', 200), nameOf)).toMatch(/^Too close to call between X\d, X\d and X\d\. X\d leads; it is best in/);
    expect(closeText(rankDoubt(from([], 2, 0, []), 'given', 10), nameOf)).toContain('Nobody can be first');
  });

  it('never changes the order of the others when a candidate of the same takes is added or copied', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), (seed) => {
        const all = trial(randomSource(seed), 6, 3, 2);
        const copied = from(
          all.criteria,
          4,
          6,
          all.samples.map((own) => own.concat(own.filter(({ candidate }) => candidate === 1).map((each) => ({ ...each, candidate: 3 })))),
        );
        const [one, other] = [rankDoubt(all, 'given', 60), rankDoubt(copied, 'given', 60)];
        for (const a of [0, 1, 2]) for (const b of [0, 1, 2]) expect(other.places[a]!.beats[b]).toBeCloseTo(one.places[a]!.beats[b]!, 9);
      }),
      { numRuns: 20 },
    );
  });
});

describe('what would tell two apart', () => {
  it('is as many takes more as make the error small enough: with them it is found in about half of the trials, which is what the error says', () => {
    const random = randomSource(31);
    const close = Array.from({ length: 60 }, () => trial(random, 6, 2, 1, 0.8, 0)).flatMap((all) => {
      const doubt = rankDoubt(all, 'given', 300);
      const found = closeToFirst(doubt)!;
      return found.close.length > 0 && found.first.candidateId === 'x0' ? [found.close[0]!.toSettle!] : [];
    });
    expect(close.length).toBeGreaterThan(20);
    expect(close.every(({ criterionId, share }) => criterionId === 'k0' && share === 1)).toBe(true);
    const needed = close.map((each) => each.moreTakes ?? 1_000).sort((a, b) => a - b);
    const middle = needed[Math.floor(needed.length / 2)]!;
    // At as many as that the error is a 1.96th of the difference: it is found in about half of the trials, and not in most of those of now.
    const foundOf = (takes: number) =>
      Array.from({ length: 60 }, () => rankDoubt(trial(random, takes, 2, 1, 0.8, 0), 'given', 300)).filter(
        (doubt) => doubt.first === 'x0' && closeToFirst(doubt)!.close.length === 0,
      ).length / 60;
    expect(foundOf(6 + middle)).toBeGreaterThan(0.3);
    expect(foundOf(6 + middle)).toBeLessThan(0.95);
    expect(foundOf(6)).toBeLessThan(0.3);
  });

  it('says where the doubt lies, and not how many where there seems to be no difference or nothing to draw', () => {
    expect(moreTakes(2, 4, 10)).toBe(Math.ceil(10 * (1.959964 ** 2 - 1)));
    expect(moreTakes(0, 4, 10)).toBeNull();
    expect(moreTakes(2, 4, 1)).toBeNull();
    const samples = [trial(randomSource(2), 6, 2, 1).samples[0]!, [sample(0, null, 50), sample(1, null, 50)]];
    const all = from([criterion('wide'), criterion('mark')], 2, 6, samples);
    const { places } = rankDoubt(all, 'given', 200);
    const rival = places.find(({ toSettle }) => toSettle)!;
    expect(rival.toSettle).toMatchObject({ criterionId: 'wide', share: 1 });
    expect(settleText(rival, all.criteria, nameOf)).toMatch(/^X\d: (at least some \d+ takes more like these|more than 100 takes).*the doubt lies most in "wide" \(100 %\)\.$/);
    const marks = from([criterion('mark')], 2, 0, [[sample(0, null, 60), sample(1, null, 50)]]);
    expect(rankDoubt(marks, 'given', 20).places.map(({ toSettle }) => toSettle)).toEqual([null, null]);
  });
});

describe('what would turn a ranking over', () => {
  const rowsOf = (weights: number[], values: number[][], rest: Partial<Criterion>[] = []) => {
    const all = from(
      weights.map((weight, at) => criterion(`k${at}`, { weight, ...rest[at] })),
      values.length,
      0,
      weights.map((_, at) => values.flatMap((own, candidate) => (own[at] === undefined ? [] : [sample(candidate, null, own[at])]))),
    );
    return { criteria: all.criteria, rows: judged(all), all };
  };

  it('is the weight, and the value, at which another draws level: tried by judging anew', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 3, maxLength: 3 }), { minLength: 2, maxLength: 4 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 3, maxLength: 3 }),
        (values, weights) => {
          const { criteria, rows } = rowsOf(weights, values);
          for (const turn of turnOvers(criteria, rows).all) {
            const at = criteria.findIndex(({ id }) => id === turn.criterionId);
            const firstIndex = Number(rows[0]!.candidate.id.slice(1));
            if (turn.kind === 'limit') throw new Error('There is no limit');
            const others = weights.reduce((sum, weight, index) => (index === at ? sum : sum + weight), 0);
            // A share of 1 is all of the weight.
            const weighed = turn.kind === 'weight' ? weights.map((weight, index) => (index === at ? turn.to : ((1 - turn.to) * weight) / others)) : weights;
            const valued = turn.kind === 'value' ? values.map((own, index) => (index === firstIndex ? own.map((each, place) => (place === at ? turn.to : each)) : own)) : values;
            const after = judged(rowsOf(weighed, valued).all);
            const scoreOf = (id: string) => after.find(({ candidate }) => candidate.id === id)!.score!;
            expect(scoreOf(turn.candidateId)).toBeCloseTo(scoreOf(rows[0]!.candidate.id), 6);
          }
        },
      ),
    );
  });

  it('is the smallest weight of all: no smaller share of any criterion puts another first', () => {
    const { criteria, rows } = rowsOf(
      [2, 1, 1],
      [
        [80, 40, 50],
        [60, 70, 55],
        [50, 60, 70],
      ],
    );
    const { all } = turnOvers(criteria, rows);
    const turn = all.find((each) => each.kind === 'weight')!;
    if (turn.kind !== 'weight') throw new Error('no weight');
    const size = Math.abs(turn.to - turn.from);
    const shares = [0.5, 0.25, 0.25];
    for (const [index, share] of shares.entries())
      for (const to of [share - size * 0.99, share + size * 0.99].filter((each) => each >= 0 && each <= 1)) {
        const weighed = shares.map((each, at) => (at === index ? to : (each * (1 - to)) / (1 - share)));
        expect(
          judged(
            rowsOf(weighed, [
              [80, 40, 50],
              [60, 70, 55],
              [50, 60, 70],
            ]).all,
          )[0]!.candidate.id,
        ).toBe(rows[0]!.candidate.id);
      }
  });

  it('names a limit only where it alone keeps a better one from the first place', () => {
    const limit = { dealbreaker: { side: 'below' as const, limit: 30 } };
    const better = rowsOf(
      [1, 1],
      [
        [50, 50],
        [20, 95],
      ],
      [limit],
    );
    expect(turnOvers(better.criteria, better.rows).all.filter(({ kind }) => kind === 'limit')).toEqual([{ kind: 'limit', criterionId: 'k0', candidateId: 'x1', value: 20 }]);
    const worse = rowsOf(
      [1, 1],
      [
        [50, 50],
        [20, 60],
      ],
      [limit],
    );
    expect(turnOvers(worse.criteria, worse.rows).all.filter(({ kind }) => kind === 'limit')).toEqual([]);
  });

  it('says nothing where there is no first, and nothing of one who stands alone', () => {
    const none = rowsOf([1], [[]]);
    expect(turnOvers(none.criteria, none.rows)).toEqual({ all: [], ahead: null });
    const alone = rowsOf([1], [[50]]);
    expect(turnOvers(alone.criteria, alone.rows)).toEqual({ all: [], ahead: [] });
  });
});
