import { Matrix } from 'ml-matrix';

/** A model of columns that were fitted by least squares. */
export interface Fitted {
  /** Columns that are used, by their place; the others follow from these. */
  used: number[];
  /** Columns that follow from those before them, and from how much of which. */
  aliased: { column: number; from: { column: number; part: number }[] }[];
  /** One a used column. */
  coefficients: number[];
  /** Inverse of the cross products of the used columns. */
  bread: Matrix;
  /** Used columns. */
  design: Matrix;
  fitted: Float64Array;
  residuals: Float64Array;
  residualSquares: number;
}

/** What of a column must be left when those before it are taken out, as a part of it, for it to say something of its own. */
const OWN = 1e-8;

/**
 * Ordinary least squares by orthogonalisation of the columns in their order (modified Gram-Schmidt, twice: W. Hoffmann, Iterative
 * algorithms for Gram-Schmidt orthogonalization, 1989). A column that follows from those before it is left out and named.
 * @param columns one array a column, as long as `values`
 * @returns null where there are no values
 */
export function leastSquares(columns: readonly Float64Array[], values: Float64Array): Fitted | null {
  const rows = values.length;
  if (rows === 0) return null;
  const basis: Float64Array[] = [];
  const triangle: number[][] = [];
  const used: number[] = [];
  const aliased: Fitted['aliased'] = [];
  for (const [at, column] of columns.entries()) {
    const own = column.slice();
    const parts = new Array<number>(basis.length).fill(0);
    for (let pass = 0; pass < 2; pass++)
      for (const [index, unit] of basis.entries()) {
        const part = dot(unit, own);
        parts[index] = (parts[index] as number) + part;
        for (let row = 0; row < rows; row++) own[row] = (own[row] as number) - part * (unit[row] as number);
      }
    const size = Math.sqrt(dot(own, own));
    if (size <= OWN * Math.sqrt(dot(column, column))) {
      const solved = backSubstituted(triangle, parts);
      aliased.push({ column: at, from: solved.flatMap((part, index) => (Math.abs(part) > 1e-6 ? [{ column: used[index] as number, part }] : [])) });
      continue;
    }
    basis.push(own.map((value) => value / size));
    triangle.push([...parts, size]);
    used.push(at);
  }
  const projected = basis.map((unit) => dot(unit, values));
  const coefficients = backSubstituted(triangle, projected);
  const fitted = new Float64Array(rows);
  for (const [index, unit] of basis.entries()) for (let row = 0; row < rows; row++) fitted[row] = (fitted[row] as number) + (projected[index] as number) * (unit[row] as number);
  const residuals = values.map((value, row) => value - (fitted[row] as number));
  const count = used.length;
  // Columns of the inverse of the triangle, and with them that of the cross products.
  const inverse = new Matrix(count, count);
  for (let column = 0; column < count; column++) {
    const unit = Array.from({ length: count }, (_, at) => (at === column ? 1 : 0));
    for (const [row, value] of backSubstituted(triangle, unit).entries()) inverse.set(row, column, value);
  }
  return {
    used,
    aliased,
    coefficients,
    bread: inverse.mmul(inverse.transpose()),
    design: designOf(
      used.map((at) => columns[at] as Float64Array),
      rows,
    ),
    fitted,
    residuals,
    residualSquares: dot(residuals, residuals),
  };
}

function designOf(columns: readonly Float64Array[], rows: number): Matrix {
  const design = new Matrix(rows, columns.length);
  for (const [at, column] of columns.entries()) for (let row = 0; row < rows; row++) design.set(row, at, column[row] as number);
  return design;
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < a.length; at++) sum += (a[at] as number) * (b[at] as number);
  return sum;
}

/** Solves a triangle, whose columns are given, from its end. */
function backSubstituted(triangle: readonly (readonly number[])[], right: readonly number[]): number[] {
  const solved = new Array<number>(triangle.length).fill(0);
  for (let row = triangle.length - 1; row >= 0; row--) {
    let rest = right[row] ?? 0;
    for (let column = row + 1; column < triangle.length; column++) rest -= (triangle[column]?.[row] as number) * (solved[column] as number);
    solved[row] = rest / (triangle[row]?.[row] as number);
  }
  return solved;
}
