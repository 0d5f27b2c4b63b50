import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { Fitted } from './leastSquares.ts';

/** A sum of coefficients with its error. */
export interface Contrast {
  estimate: number;
  standardError: number;
  /** Degrees of freedom of that error; 0 where it cannot be told. */
  df: number;
}

/** What below of an eigenvalue is none. */
const NONE = 1e-9;

/**
 * Errors of sums of coefficients where values of one cluster belong together, as those of one take: R. M. Bell and D. F. McCaffrey, Bias
 * reduction in standard errors for linear regression with multi-stage samples, 2002 ("CR2"), with Satterthwaite's degrees of freedom under
 * equal errors. Exact for pairs within clusters, and the unequal-variances error of two groups of single values.
 * @param clusters of each value, its cluster
 * @returns what tells the error of a contrast over the used columns
 */
export function clusterRobust({ design, bread, residuals, coefficients }: Fitted, clusters: readonly string[]): (contrast: readonly number[]) => Contrast {
  const rowsOf = new Map<string, number[]>();
  for (const [row, cluster] of clusters.entries()) {
    const rows = rowsOf.get(cluster);
    if (rows) rows.push(row);
    else rowsOf.set(cluster, [row]);
  }
  const parts = [...rowsOf.values()].map((rows) => {
    const own = design.selection(rows, columnsOf(design));
    const leverage = own.mmul(bread).mmul(own.transpose());
    const adjusted = inverseRoot(Matrix.eye(rows.length, rows.length).sub(leverage)).mmul(own);
    const left = Matrix.columnVector(rows.map((row) => residuals[row] as number));
    return { own, adjusted, score: adjusted.transpose().mmul(left) };
  });
  return (contrast) => {
    const weights = bread.mmul(Matrix.columnVector([...contrast]));
    let variance = 0;
    // What a cluster weighs in the variance, and how clusters hang together by the fit they share.
    const [weighed, shared] = [[] as number[], new Matrix(bread.rows, bread.columns)];
    const between: Matrix[] = [];
    for (const { own, adjusted, score } of parts) {
      variance += weights.transpose().mmul(score).get(0, 0) ** 2;
      const pulled = adjusted.mmul(weights);
      const back = own.transpose().mmul(pulled);
      weighed.push(pulled.transpose().mmul(pulled).get(0, 0));
      between.push(back);
      shared.add(back.mmul(back.transpose()));
    }
    // Trace and squared trace of the matrix whose quadratic form the variance is.
    let [trace, squares] = [0, 0];
    for (const [at, own] of weighed.entries()) {
      const by = (between[at] as Matrix)
        .transpose()
        .mmul(bread)
        .mmul(between[at] as Matrix)
        .get(0, 0);
      trace += own - by;
      squares += own ** 2 - 2 * own * by;
    }
    const product = bread.mmul(shared);
    squares += product.mmul(product).trace();
    return {
      estimate: contrast.reduce((sum, each, at) => sum + each * (coefficients[at] as number), 0),
      standardError: Math.sqrt(Math.max(0, variance)),
      df: squares > NONE * trace ** 2 ? trace ** 2 / squares : 0,
    };
  };
}

const columnsOf = ({ columns }: Matrix) => Array.from({ length: columns }, (_, at) => at);

/** Inverse of the symmetric root; what is none in it stays none. */
function inverseRoot(matrix: Matrix): Matrix {
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(matrix, { assumeSymmetric: true });
  const scaled = eigenvectorMatrix.clone();
  for (const [at, value] of realEigenvalues.entries()) scaled.mulColumn(at, value > NONE ? 1 / Math.sqrt(value) : 0);
  return scaled.mmul(eigenvectorMatrix.transpose());
}
