import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { priceTold } from './price.ts';
import type { VerdictRow } from './verdict.ts';

const row = (name: string, price: number | null, score: number | null, rest: Partial<VerdictRow> = {}, currency = 'EUR'): VerdictRow => ({
  ...{
    candidate: { id: name, name, price, currency: price === null ? null : currency },
    cells: [],
    score,
    lowest: score,
    highest: score,
    known: 1,
    missing: [],
    unlike: [],
    untested: [],
  },
  ...{ ruledOut: [], rank: score === null ? null : 1, beatenBy: [] },
  ...rest,
});

describe('what money buys', () => {
  it('is told from the cheapest on, step by step, with what one more point costs', () => {
    const told = priceTold([row('osier', 1200, 78), row('heron', 1800, 73), row('teal', 400, 60), row('bittern', 3900, 80)], 5)!;
    expect(told.front.map(({ name }) => name)).toEqual(['teal', 'osier', 'bittern']);
    expect(told.steps.map(({ to, perPoint }) => [to.name, Math.round(perPoint * 10) / 10])).toEqual([
      ['osier', 44.4],
      ['bittern', 1350],
    ]);
    expect(told.within.name).toBe('osier');
    expect(priceTold([row('osier', 1200, 78), row('bittern', 3900, 80)], 1)!.within.name).toBe('bittern');
    expect(told.shares.map(({ candidate, ofScore, ofPrice }) => [candidate.name, Math.round(100 * ofScore), Math.round(100 * ofPrice)])).toEqual([
      ['teal', 75, 10],
      ['osier', 98, 31],
      ['heron', 91, 46],
    ]);
  });

  it('leaves out who is ruled out or has no price or score, and says nothing of two currencies or of one candidate', () => {
    expect(priceTold([row('osier', 1200, 78), row('teal', 10, 99, { rank: null }), row('heron', null, 80), row('smew', 5, null)], 5)).toBeNull();
    expect(priceTold([row('osier', 1200, 78), row('teal', 400, 60, {}, 'GBP')], 5)).toBeNull();
  });

  it('never steps down, and nothing on the front is beaten on both', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 50 }), fc.integer({ min: 0, max: 100 })), { minLength: 2, maxLength: 9 }), (values) => {
        const rows = values.map(([price, score], at) => row(`c${at}`, price, score));
        const { front, steps, best, within } = priceTold(rows, 7)!;
        for (const each of front) for (const [price, score] of values) expect(price <= each.price && score >= each.score && (price < each.price || score > each.score)).toBe(false);
        expect(steps.every(({ perPoint }) => perPoint > 0)).toBe(true);
        expect(best.score).toBe(Math.max(...values.map(([, score]) => score)));
        expect(within.price).toBe(Math.min(...values.filter(([, score]) => score >= best.score - 7).map(([price]) => price)));
      }),
    );
  });
});
