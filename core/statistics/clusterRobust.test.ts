import fc from 'fast-check';
import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../simulate/random.ts';
import { clusterRobust } from './clusterRobust.ts';
import { type Fitted, leastSquares } from './leastSquares.ts';
import { studentQuantile } from './studentT.ts';

const column = (values: readonly number[]) => Float64Array.from(values);
const ones = (count: number) => new Float64Array(count).fill(1);
const fit = (columns: readonly (readonly number[])[], values: readonly number[]) => leastSquares(columns.map(column), column(values)) as Fitted;

/** J. W. Longley, 1967: the data set with certified values of NIST's Statistical Reference Datasets (Longley.dat). */
const LONGLEY = `60323 83.0 234289 2356 1590 107608 1947
61122 88.5 259426 2325 1456 108632 1948
60171 88.2 258054 3682 1616 109773 1949
61187 89.5 284599 3351 1650 110929 1950
63221 96.2 328975 2099 3099 112075 1951
63639 98.1 346999 1932 3594 113270 1952
64989 99.0 365385 1870 3547 115094 1953
63761 100.0 363112 3578 3350 116219 1954
66019 101.2 397469 2904 3048 117388 1955
67857 104.6 419180 2822 2857 118734 1956
68169 108.4 442769 2936 2798 120445 1957
66513 110.8 444546 4681 2637 121950 1958
68655 112.6 482704 3813 2552 123366 1959
69564 114.2 502601 3931 2514 125368 1960
69331 115.7 518173 4806 2572 127852 1961
70551 116.9 554894 4007 2827 130081 1962`
  .split('\n')
  .map((line) => line.split(' ').map(Number));

describe('least squares', () => {
  it('has the certified coefficients and errors of an ill-conditioned data set', () => {
    const columns = [1, 2, 3, 4, 5, 6].map((at) => LONGLEY.map((row) => row[at] as number));
    const { coefficients, bread, residualSquares } = fit(
      [LONGLEY.map(() => 1), ...columns],
      LONGLEY.map((row) => row[0] as number),
    );
    const certified = [-3482258.63459582, 15.0618722713733, -0.035819179292591, -2.02022980381683, -1.03322686717359, -0.0511041056535807, 1829.15146461355];
    const errors = [890420.383607373, 84.9149257747669, 0.0334910077722432, 0.488399681651699, 0.214274163161675, 0.22607320006937, 455.478499142212];
    const variance = residualSquares / (16 - 7);
    for (const [at, value] of certified.entries()) {
      expect(coefficients[at]! / value).toBeCloseTo(1, 6);
      expect(Math.sqrt(variance * bread.get(at, at)) / errors[at]!).toBeCloseTo(1, 6);
    }
  });

  it('leaves out what follows from columns before it, and names them', () => {
    const { used, aliased, coefficients } = fit(
      [
        [1, 1, 1, 1],
        [1, 1, 0, 0],
        [0, 0, 1, 1],
        [1, 0, 1, 0],
        [2, 1, 1, 0],
      ],
      [1, 2, 3, 4],
    );
    expect(used).toEqual([0, 1, 3]);
    expect(aliased.map(({ column: left, from }) => [left, from.map((each) => [each.column, Math.round(each.part * 1e9) / 1e9])])).toEqual([
      [
        2,
        [
          [0, 1],
          [1, -1],
        ],
      ],
      [
        4,
        [
          [1, 1],
          [3, 1],
        ],
      ],
    ]);
    expect(coefficients[1]).toBeCloseTo(-2, 12);
    expect(coefficients[2]).toBeCloseTo(-1, 12);
    expect(leastSquares([], new Float64Array(0))).toBeNull();
  });
});

/** The same by full matrices, as it is defined. */
function byDefinition(columns: readonly (readonly number[])[], values: readonly number[], clusters: readonly string[], contrast: readonly number[]) {
  const design = new Matrix(columns as number[][]).transpose();
  const bread = design.transpose().mmul(design);
  const inverse = new Matrix(bread.rows, bread.columns);
  const solved = new EigenvalueDecomposition(bread, { assumeSymmetric: true });
  for (const [at, value] of solved.realEigenvalues.entries()) {
    const vector = solved.eigenvectorMatrix.getColumnVector(at);
    inverse.add(vector.mmul(vector.transpose()).mul(1 / value));
  }
  const hat = design.mmul(inverse).mmul(design.transpose());
  const rest = Matrix.eye(values.length, values.length).sub(hat);
  const residuals = rest.mmul(Matrix.columnVector([...values]));
  const names = [...new Set(clusters)];
  const pulls = new Matrix(values.length, names.length);
  let variance = 0;
  for (const [at, name] of names.entries()) {
    const rows = clusters.flatMap((each, row) => (each === name ? [row] : []));
    const own = new EigenvalueDecomposition(rest.selection(rows, rows), { assumeSymmetric: true });
    const root = new Matrix(rows.length, rows.length);
    for (const [index, value] of own.realEigenvalues.entries()) {
      const vector = own.eigenvectorMatrix.getColumnVector(index);
      if (value > 1e-9) root.add(vector.mmul(vector.transpose()).mul(1 / Math.sqrt(value)));
    }
    const all = design.columns;
    const pulled = root
      .mmul(
        design.selection(
          rows,
          Array.from({ length: all }, (_, index) => index),
        ),
      )
      .mmul(inverse)
      .mmul(Matrix.columnVector([...contrast]));
    variance +=
      pulled
        .transpose()
        .mmul(residuals.selection(rows, [0]))
        .get(0, 0) ** 2;
    const spread = rest
      .selection(
        Array.from({ length: values.length }, (_, index) => index),
        rows,
      )
      .mmul(pulled);
    pulls.setColumn(at, spread.getColumn(0));
  }
  const form = pulls.transpose().mmul(pulls);
  return { standardError: Math.sqrt(variance), df: form.trace() ** 2 / form.mmul(form).trace() };
}

describe('errors that respect clusters', () => {
  const normals = randomSource(4);

  it('of two that are there once in every cluster is that of the paired test, with one degree of freedom less than clusters', () => {
    const [a, b] = [1, 2].map((shift) => Array.from({ length: 7 }, (_, take) => 3 * Math.sin(take) + shift + normals.normal())) as [number[], number[]];
    const values = [...a, ...b];
    const clusters = values.map((_, row) => `take ${row % 7}`);
    const fitted = fit([values.map(() => 1), values.map((_, row) => (row < 7 ? 0 : 1))], values);
    const differences = a.map((each, take) => b[take]! - each);
    const mean = differences.reduce((sum, each) => sum + each, 0) / 7;
    const spread = Math.sqrt(differences.reduce((sum, each) => sum + (each - mean) ** 2, 0) / 6);
    const { estimate, standardError, df } = clusterRobust(fitted, clusters)([0, 1]);
    expect(estimate).toBeCloseTo(mean, 12);
    expect(standardError).toBeCloseTo(spread / Math.sqrt(7), 12);
    expect(df).toBeCloseTo(6, 9);
  });

  it('of two groups of single values is the error of the test for unequal variances', () => {
    const [a, b] = [
      [3, 5, 4, 8],
      [10, 20, 11, 3, 30, 12],
    ] as [number[], number[]];
    const values = [...a, ...b];
    const fitted = fit([values.map(() => 1), values.map((_, row) => (row < 4 ? 0 : 1))], values);
    const variance = (own: number[]) => {
      const mean = own.reduce((sum, each) => sum + each, 0) / own.length;
      return own.reduce((sum, each) => sum + (each - mean) ** 2, 0) / (own.length - 1);
    };
    const { standardError } = clusterRobust(
      fitted,
      values.map((_, row) => String(row)),
    )([0, 1]);
    expect(standardError).toBeCloseTo(Math.sqrt(variance(a) / 4 + variance(b) / 6), 12);
  });

  it('is what the definition says by full matrices, for any design', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        const { normal, uniform } = randomSource(seed);
        const count = 18;
        const clusters = Array.from({ length: count }, () => `t${Math.floor(uniform() * 7)}`);
        fc.pre(new Set(clusters).size > 4);
        const columns = [
          Array.from({ length: count }, () => 1),
          ...[0, 1].map(() => Array.from({ length: count }, () => Number(uniform() < 0.5))),
          Array.from({ length: count }, normal),
        ];
        const values = Array.from({ length: count }, normal);
        const fitted = fit(columns, values);
        fc.pre(fitted.used.length === 4);
        const expected = byDefinition(columns, values, clusters, [0, 1, -0.5, 0.2]);
        const got = clusterRobust(fitted, clusters)([0, 1, -0.5, 0.2]);
        expect(got.standardError).toBeCloseTo(expected.standardError, 8);
        expect(got.df).toBeCloseTo(expected.df, 6);
      }),
      { numRuns: 40 },
    );
  });

  it('covers the truth as often as it claims, in designs of few takes: within 3 points over 1,000 trials', () => {
    const { normal } = randomSource(8);
    const [takes, candidates] = [10, 3];
    const rows = Array.from({ length: takes * candidates }, (_, row) => ({ take: Math.floor(row / candidates), candidate: row % candidates }));
    const columns = [
      ones(rows.length),
      column(rows.map(({ candidate }) => Number(candidate === 1))),
      column(rows.map(({ candidate }) => Number(candidate === 2))),
      column(rows.map(({ take }) => take % 2)),
    ];
    const clusters = rows.map(({ take }) => `t${take}`);
    const within = [0, 0];
    for (let at = 0; at < 1_000; at++) {
      const moments = Array.from({ length: takes }, () => 2 * normal());
      const values = column(rows.map(({ take, candidate }) => moments[take]! + normal() + 1.5 * candidate + 4 * (take % 2)));
      const error = clusterRobust(leastSquares(columns, values) as Fitted, clusters);
      for (const [index, contrast, truth] of [
        [0, [0, 1, 0, 0], 1.5],
        [1, [0, 0, 0, 1], 4],
      ] as const) {
        const { estimate, standardError, df } = error(contrast);
        if (Math.abs(estimate - truth) <= studentQuantile(0.975, df) * standardError) within[index]!++;
      }
    }
    for (const covered of within) expect(Math.abs(covered / 10 - 95)).toBeLessThan(3);
  });
});
