import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Criterion } from '../domain/criterion.ts';
import { aggregateBy, byCondition, countingFor, oneValue } from './aggregate.ts';
import { desirability } from './desirability.ts';
import { ANYWHERE, judge } from './verdict.ts';
import { verdictCsv } from './verdictCsv.ts';

const criterion = (id: string, change: Partial<Criterion> = {}): Criterion => ({
  id,
  trialId: 't',
  name: id,
  kind: 'listened',
  measureId: null,
  weight: 1,
  best: 10,
  worst: 0,
  otherWorst: null,
  dealbreaker: null,
  aggregation: 'median',
  where: {},
  worstWords: '',
  bestWords: '',
  remark: '',
  position: 0,
  ...change,
});
const snr = criterion('Voice over noise', { kind: 'measured', measureId: 'noise.snrDb', weight: 3, best: 40, worst: 0, dealbreaker: { side: 'below', limit: 10 } });
const tone = criterion('Tone');
const candidates = [
  { id: 'a', name: 'Quay One', price: 900, currency: 'EUR' },
  { id: 'b', name: 'Lantern Bay', price: 300, currency: 'EUR' },
  { id: 'c', name: 'Mudlark', price: 2000, currency: 'EUR' },
];
const values = (table: Record<string, Record<string, number>>) =>
  new Map(Object.entries(table).map(([id, row]) => [id, new Map(Object.entries(row).map(([who, value]) => [who, new Map([[ANYWHERE, value]])]))]));

describe('desirability', () => {
  it.each([
    [20, 40, 0, 0.5],
    [-60, -80, -40, 0.5],
    [50, 40, 0, 1],
    [-5, 40, 0, 0],
    [-90, -80, -40, 1],
  ])('%f between best %f and worst %f is %f', (value, best, worst, expected) => {
    expect(desirability(value, { best, worst, otherWorst: null })).toBeCloseTo(expected, 12);
  });
  it('a best in the middle falls off to both sides, and is nothing beyond them', () => {
    const tilt = { best: -5, worst: -11, otherWorst: 1 };
    expect([-12, -11, -8, -5, -2, 1, 3].map((value) => desirability(value, tilt))).toEqual([0, 0, 0.5, 1, 0.5, 0, 0]);
  });
  it('a better value is never less desirable', () => {
    const number = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(number, number, number, number, (a, b, best, worst) => {
        fc.pre(Math.abs(best - worst) > 1e-6);
        const [low, high] = best > worst ? [Math.min(a, b), Math.max(a, b)] : [Math.max(a, b), Math.min(a, b)];
        const shape = { best, worst, otherWorst: null };
        expect(desirability(high, shape)).toBeGreaterThanOrEqual(desirability(low, shape));
      }),
    );
  });
});

describe('ranking', () => {
  it('is the weighted mean of desirabilities', () => {
    const rows = judge([snr, tone], candidates.slice(0, 2), values({ 'Voice over noise': { a: 20, b: 30 }, Tone: { a: 10, b: 2 } }));
    // b: 0.75 · 0.75 + 0.25 · 0.2 = 61.25; a: 0.75 · 0.5 + 0.25 · 1 = 62.5
    expect(rows.map((row) => [row.candidate.id, row.rank, row.score?.toFixed(6)])).toEqual([
      ['a', 1, '62.500000'],
      ['b', 2, '61.250000'],
    ]);
  });

  it('names what is missing instead of counting it as zero', () => {
    const [row] = judge([snr, tone], candidates.slice(0, 1), values({ 'Voice over noise': { a: 20 } }));
    expect(row).toMatchObject({ score: 50, missing: ['Tone'], known: 0.75, lowest: 37.5, highest: 62.5 });
  });

  it('a dealbreaker rules out, with its reason, and frees the rank', () => {
    const rows = judge([snr, tone], candidates.slice(0, 2), values({ 'Voice over noise': { a: 9, b: 11 }, Tone: { a: 10, b: 1 } }));
    expect(rows.map((row) => [row.candidate.id, row.rank])).toEqual([
      ['b', 1],
      ['a', null],
    ]);
    expect(rows[1]?.ruledOut[0]?.reason).toBe('Voice over noise is below its limit');
  });

  it('says who is beaten on both price and score', () => {
    const rows = judge([snr], candidates, values({ 'Voice over noise': { a: 30, b: 20, c: 25 } }));
    expect(Object.fromEntries(rows.map((row) => [row.candidate.id, row.beatenBy]))).toEqual({ a: [], b: [], c: ['a'] });
  });

  it('equal scores share a rank; without any value there is none', () => {
    expect(judge([tone], candidates, values({ Tone: { a: 5, b: 5 } })).map((row) => row.rank)).toEqual([1, 1, null]);
  });
});

const MIDDLE = { aggregation: 'median', best: 1, worst: 0, otherWorst: null } as const;
const middle = oneValue(MIDDLE);

describe('aggregation', () => {
  it('judges candidates only where all of them were', () => {
    const result = aggregateBy(
      byCondition(
        [
          { candidateId: 'a', conditionKey: '1 m', value: 30 },
          { candidateId: 'a', conditionKey: '40 m', value: 2 },
          { candidateId: 'b', conditionKey: '1 m', value: 28 },
        ],
        MIDDLE,
      ),
      middle,
    );
    expect(result.get('a')).toEqual({ value: 30, count: 1, coverage: 1, sameConditions: true, reckoned: 0, reckonedBy: null });
  });
  it('of two that met no condition in common neither has a value that could be held against the other', () => {
    const result = aggregateBy(
      byCondition(
        [
          { candidateId: 'a', conditionKey: '1 m', value: 30 },
          { candidateId: 'b', conditionKey: '40 m', value: 28 },
        ],
        MIDDLE,
      ),
      middle,
    );
    expect(result.size).toBe(0);
  });
  it('the worst is the least where more is better, and the most where less is', () => {
    expect(oneValue({ aggregation: 'worst', best: 40, worst: 6, otherWorst: null })([12, 30, 9])).toBe(9);
    expect(oneValue({ aggregation: 'worst', best: -70, worst: -40, otherWorst: null })([-60, -44, -70])).toBe(-44);
    expect(oneValue({ aggregation: 'median', best: 1, worst: 0, otherWorst: null })([1, 5, 2])).toBe(2);
    expect(oneValue({ aggregation: 'mean', best: 1, worst: 0, otherWorst: null })([1, 5, 3])).toBe(3);
  });
  it('the worst of values that are all beyond the best is still the least of them', () => {
    expect(oneValue({ aggregation: 'worst', best: 40, worst: 15, otherWorst: null })([50, 45, 48])).toBe(45);
    expect(oneValue({ aggregation: 'worst', best: 0, worst: 6, otherWorst: null })([0, 9, 7])).toBe(9);
  });
  it('where the best lies in the middle the worst is the least desirable, on whichever side', () => {
    const tilt = { aggregation: 'worst', best: -5, worst: -11, otherWorst: 1 } as const;
    expect(oneValue(tilt)([-5, -7, -1])).toBe(-1);
    expect(oneValue(tilt)([-5, -14, 2])).toBe(-14);
  });
  it('a criterion at a condition counts that condition only', () => {
    const condition = { station: 'slipway', windscreen: 'fur', distance: '1', script: 's' };
    expect(countingFor({ where: {} })(condition)).toBe(true);
    expect(countingFor({ where: { station: ['slipway', 'deck'], windscreen: ['fur'] } })(condition)).toBe(true);
    expect(countingFor({ where: { station: ['slipway'], windscreen: ['bare'] } })(condition)).toBe(false);
    expect(countingFor({ where: { orientation: ['90'] } })(condition)).toBe(false);
    expect(countingFor({ where: { orientation: ['90'] } })({ ...condition, orientation: '90' })).toBe(true);
  });
  it('repeats of one condition count once, as their middle', () => {
    const own = byCondition(
      [30, 10, 31, 29].map((value, index) => ({ candidateId: 'a', conditionKey: index === 0 ? '40 m' : '1 m', value })),
      MIDDLE,
    ).get('a');
    expect(own).toEqual(
      new Map([
        ['40 m', 30],
        ['1 m', 29],
      ]),
    );
  });

  it('counts as the mean where the mean of all conditions does, by their weights, and still once', () => {
    const own = byCondition(
      [30, 10, 31, 29].map((value, index) => ({ candidateId: 'a', conditionKey: index === 0 ? '40 m' : '1 m', value, weight: index === 1 ? 2 : 1 })),
      { aggregation: 'mean' },
    );
    expect(own.get('a')).toEqual(
      new Map([
        ['40 m', 30],
        ['1 m', 20],
      ]),
    );
  });
});

it('the CSV holds every figure with its unit', () => {
  const rows = judge([snr, tone], candidates.slice(0, 1), values({ 'Voice over noise': { a: 20 } }));
  const csv = verdictCsv(rows, [snr, tone]);
  expect(csv).toContain('Quay One,1,Voice over noise,20,dB,0.5,0.75,1,');
  expect(csv).toContain('Quay One,1,Tone,,points,,0.25,0,missing');
  expect(csv).toContain('Quay One,1,price,900,EUR');
});
