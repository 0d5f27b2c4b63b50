import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conditionKey } from '../../domain/factor.ts';
import { randomSource } from '../../simulate/random.ts';
import { leastSquares } from '../../statistics/leastSquares.ts';
import { SparseFit } from '../../statistics/sparseFit.ts';
import { aggregateBy, byCondition, type Sample } from '../aggregate.ts';
import { ConditionFit } from './conditionFit.ts';

const MIDDLE = { aggregation: 'median' } as const;
const middle = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;
const key = (station: string, windscreen = 'bare', distance = '1', rest = {}) => conditionKey({ station, windscreen, distance, script: 's', ...rest });
const valuesOf = (samples: readonly Sample[], toOne = middle) => Object.fromEntries([...aggregateBy(byCondition(samples, MIDDLE), toOne)].map(([id, { value }]) => [id, value]));

/** Truth of a world in which a candidate and each factor add their part. */
const CANDIDATES = { a: 0, b: 3, c: -2 };
const STATIONS = { s1: 20, s2: 10, s3: 15 };
const SCREENS = { bare: 0, fur: 6, foam: 2 };
const DISTANCES = { 1: 0, 10: -8, 40: -14 };
type Names = [candidate: keyof typeof CANDIDATES, station: keyof typeof STATIONS, screen: keyof typeof SCREENS, distance: keyof typeof DISTANCES];
const sample = ([candidateId, station, screen, distance]: Names, noise = 0): Sample => ({
  candidateId,
  conditionKey: key(station, screen, String(distance)),
  value: CANDIDATES[candidateId] + STATIONS[station] + SCREENS[screen] + DISTANCES[distance] + noise,
});
/** A third of everything: each candidate under nine of the 27 conditions, every pair of levels as often as any other. */
const THIRD = Object.keys(CANDIDATES).flatMap((candidate, c) =>
  Object.keys(STATIONS).flatMap((station, s) => Object.keys(SCREENS).map((screen, w) => [candidate, station, screen, [1, 10, 40][(c + s + w) % 3]] as Names)),
);

describe('candidates that were not recorded under the same conditions', () => {
  it('a reduced design in which no two share a condition gives back how they truly lie to each other', () => {
    const got = valuesOf(THIRD.map((names) => sample(names)));
    expect(got.b! - got.a!).toBeCloseTo(3, 9);
    expect(got.c! - got.a!).toBeCloseTo(-2, 9);
  });

  it('four equal ones in a quarter of a design stay level, where their raw medians lie decibels apart', () => {
    const { normal } = randomSource(5);
    const at = [0, -14];
    const samples = ['a', 'b', 'c', 'd'].flatMap((candidateId, c) =>
      [0, 1, 2, 3].map((station) => {
        const far = Number((c & station) === 1 || c + station === 5);
        return { candidateId, conditionKey: key(`s${station}`, 'bare', String(far)), value: 30 + 2 * station + (at[far] as number) + 0.1 * normal() };
      }),
    );
    const got = Object.values(valuesOf(samples));
    expect(Math.max(...got) - Math.min(...got)).toBeLessThan(0.5);
    const raw = ['a', 'b', 'c', 'd'].map((id) => middle(samples.filter(({ candidateId }) => candidateId === id).map(({ value }) => value)));
    expect(Math.max(...raw) - Math.min(...raw)).toBeGreaterThan(1);
  });

  it('who was recorded only where it is loud is held against the others by way of who was there too', () => {
    const samples = [sample(['a', 's1', 'fur', 1]), sample(['b', 's1', 'fur', 1]), sample(['b', 's2', 'bare', 40]), sample(['c', 's2', 'bare', 40])];
    const got = valuesOf(samples, (values) => Math.min(...values));
    expect(got.c! - got.a!).toBeCloseTo(-2, 9);
  });

  it('nobody is held against who met none of the others', () => {
    const samples = [sample(['a', 's1', 'fur', 1]), sample(['b', 's1', 'fur', 1]), sample(['c', 's2', 'bare', 40])];
    expect(Object.keys(valuesOf(samples)).sort()).toEqual(['a', 'b']);
    // At every factor it has a level that the others have not, and each of them is the whole difference.
    expect(Object.keys(valuesOf([...samples, sample(['c', 's3', 'bare', 40])])).sort()).toEqual(['a', 'b']);
  });

  it('a boom, which has no place on a body, is held against the middle of what the places of the others come to', () => {
    const worn = (candidateId: string, base: number) =>
      ['s1', 's2'].flatMap((station, s) =>
        ['high', 'mid', 'low'].map((placement, p) => ({ candidateId, conditionKey: key(station, 'bare', '1', { placement }), value: base + 5 * s - 4 * p })),
      );
    const samples = [...worn('a', 20), ...worn('b', 23), ...['s1', 's2'].map((station, s) => ({ candidateId: 'boom', conditionKey: key(station), value: 30 + 5 * s }))];
    const got = aggregateBy(byCondition(samples, MIDDLE), middle);
    // The middle place of a lies 4 under its highest.
    expect(got.get('boom')!.value - got.get('a')!.value).toBeCloseTo(30 - 16, 9);
    expect(got.get('boom')).toMatchObject({ coverage: 1, sameConditions: true, reckonedBy: 'factors' });
    expect(got.get('a')).toMatchObject({ coverage: 1, sameConditions: true, reckoned: 0, reckonedBy: null });
  });

  it('of a design that lacks one take nothing changes but what is missing', () => {
    const whole = (['a', 'b', 'c'] as const).flatMap((candidate) => (['s1', 's2', 's3'] as const).map((station) => sample([candidate, station, 'bare', 1])));
    const got = aggregateBy(
      byCondition(
        whole.filter(({ candidateId, conditionKey }) => candidateId !== 'c' || !conditionKey.startsWith('s1')),
        MIDDLE,
      ),
      middle,
    );
    expect([...got].map(([id, { value, reckoned, coverage, sameConditions }]) => [id, value, reckoned, +coverage.toFixed(3), sameConditions])).toEqual([
      ['a', 15, 0, 1, true],
      ['b', 18, 0, 1, true],
      ['c', 13, 1, 0.667, false],
    ]);
  });

  it('what one did besides, under conditions of its own, changes nothing where all share the rest', () => {
    const shared = (['a', 'b'] as const).map((candidate) => sample([candidate, 's1', 'bare', 1]));
    expect(valuesOf([...shared, sample(['a', 's2', 'fur', 40]), sample(['a', 's3', 'fur', 40])])).toEqual(valuesOf(shared));
  });

  it('recording a condition again never changes the order of candidates', () => {
    const noise = fc.array(fc.integer({ min: -30, max: 30 }), { minLength: 27, maxLength: 27 });
    fc.assert(
      fc.property(noise, fc.nat({ max: 26 }), fc.integer({ min: 1, max: 4 }), (errors, which, times) => {
        const samples = THIRD.map((names, at) => sample(names, (errors[at] as number) / 10));
        const again = [...samples, ...Array.from({ length: times }, () => samples[which] as Sample)];
        expect(valuesOf(again)).toEqual(valuesOf(samples));
      }),
    );
  });
});

describe('a part of the candidate and a part of the condition', () => {
  it('agrees with orthogonalised least squares, by weights too, and says nothing across what nobody ties', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9_999 }), fc.integer({ min: 3, max: 24 }), (seed, count) => {
        const { uniform, normal } = randomSource(seed);
        const [candidates, conditions] = [4, 6];
        const places = [...new Set(Array.from({ length: count }, () => Math.floor(uniform() * candidates * conditions)))];
        const cells = places.map((place) => ({ candidate: place % candidates, condition: Math.floor(place / candidates) }));
        const weights = Float64Array.from(cells, () => Math.floor(3 * uniform()));
        const values = Float64Array.from(cells, () => normal());
        const fit = new ConditionFit(cells, candidates, conditions);
        // A fit leaves nothing behind for the next one.
        fit.fit(
          values.map((value) => 7 * value),
          new Float64Array(cells.length).fill(1),
        );
        fit.fit(values, weights);
        const rows = cells.flatMap((cell, at) => Array.from({ length: weights[at] as number }, () => ({ ...cell, value: values[at] as number })));
        if (rows.length === 0) return;
        const dense = leastSquares(
          Array.from({ length: candidates + conditions }, (_, column) =>
            Float64Array.from(rows, ({ candidate, condition }) => Number(column < candidates ? candidate === column : condition === column - candidates)),
          ),
          Float64Array.from(rows, ({ value }) => value),
        )!;
        for (const [at, { candidate, condition }] of rows.entries()) expect(fit.at(candidate, condition)).toBeCloseTo(dense.fitted[at] as number, 8);
        // By brute force: who is reached from a candidate by cells that are there.
        for (let candidate = 0; candidate < candidates; candidate++) {
          const [who, where] = [new Set([candidate]), new Set<number>()];
          for (let more = -1; more !== who.size + where.size; ) {
            more = who.size + where.size;
            for (const row of rows) {
              if (who.has(row.candidate)) where.add(row.condition);
              if (where.has(row.condition)) who.add(row.candidate);
            }
          }
          for (let condition = 0; condition < conditions; condition++) expect(Number.isNaN(fit.at(candidate, condition))).toBe(!where.has(condition));
          for (let other = 0; other < candidates; other++) expect(fit.areTied(candidate, other)).toBe(who.has(other));
        }
      }),
    );
  });

  it('5,000 moments without a plan, of which each has two of three, are compared in little time and memory', () => {
    const samples = Array.from({ length: 5000 }, (_, moment) =>
      ['a', 'b', 'c'].flatMap((candidateId, at) => (at === moment % 3 ? [] : [{ candidateId, conditionKey: `${key('s')}|moment=${moment}`, value: 10 * at + (moment % 7) }])),
    ).flat();
    const got = valuesOf(samples);
    expect(got.b! - got.a!).toBeCloseTo(10, 6);
    expect(got.c! - got.a!).toBeCloseTo(20, 6);
  });
});

describe('least squares of sparse rows', () => {
  it('agrees with orthogonalised least squares, and says nothing of what the rows do not tell apart', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9_999 }), fc.integer({ min: 4, max: 30 }), (seed, count) => {
        const { uniform, normal } = randomSource(seed);
        const levels = [3, 4];
        const picked = Array.from({ length: count }, () => levels.map((many) => Math.floor(uniform() * many)));
        const values = Float64Array.from({ length: count }, () => normal());
        const width = 7;
        const rows = picked.map(([a, b]) => ({ columns: Int32Array.of(a as number, 3 + (b as number)), parts: Float64Array.of(1, 1) }));
        const fit = new SparseFit(rows, width);
        // A fit leaves nothing behind for the next one.
        fit.fit(
          values.map((value) => -3 * value),
          new Float64Array(count).map(() => Math.floor(3 * uniform())),
        );
        fit.fit(values, new Float64Array(count).fill(1));
        const dense = leastSquares(
          Array.from({ length: width }, (_, column) => Float64Array.from(rows, ({ columns }) => Number(columns.includes(column)))),
          values,
        )!;
        for (const [at, row] of rows.entries()) expect(fit.at(row)).toBeCloseTo(dense.fitted[at] as number, 8);
        // Any two levels are told apart where a path of rows leads from one to the other; here by brute force.
        const reached = new Set([0]);
        for (let more = true; more; ) {
          const before = reached.size;
          for (const { columns } of rows) if ([...columns].some((column) => reached.has(column))) for (const column of columns) reached.add(column);
          more = reached.size > before;
        }
        for (const other of [1, 2]) {
          const seen = rows.some(({ columns }) => columns[0] === 0) && rows.some(({ columns }) => columns[0] === other);
          const told = !Number.isNaN(fit.at({ columns: Int32Array.of(0, other), parts: Float64Array.of(1, -1) }));
          expect(told).toBe(seen && reached.has(other));
        }
      }),
    );
  });

  it('weights count rows as often as they say', () => {
    const rows = [0, 0, 1].map((column) => ({ columns: Int32Array.of(column), parts: Float64Array.of(1) }));
    const fit = new SparseFit(rows, 2);
    fit.fit(Float64Array.of(1, 4, 9), Float64Array.of(2, 1, 0));
    expect(fit.at(rows[0]!)).toBeCloseTo(2, 12);
    expect(fit.at(rows[2]!)).toBeNaN();
  });
});
