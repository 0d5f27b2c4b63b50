/** Of a column's own size, less than this is left of it once those before it are taken out: it follows from them. */
const OWN = 1e-9;
/** Sums of whole parts that should be nought are less than this. */
const NOUGHT = 1e-6;

/** Rows of a design that are nought but for a few places: their columns, and what stands there. */
export interface SparseRow {
  columns: Int32Array;
  parts: Float64Array;
}

/**
 * Weighted least squares of sparse rows, with room for its work, so that nothing is made anew in thousands of fits: the normal equations,
 * reduced by Gauss and Jordan in the order of the columns. A column that follows from those before it is left at nought; what may be said
 * nevertheless is what does not change along any combination of columns that the rows cannot see (S. R. Searle, Linear models, 1971, 5.4).
 */
export class SparseFit {
  private readonly normal: Float64Array;
  private readonly right: Float64Array;
  private readonly size: Float64Array;
  private readonly follows: Uint8Array;
  /** Columns that follow from others, and how many they are. */
  private readonly following: Int32Array;
  private aliases = 0;

  constructor(
    private readonly rows: readonly SparseRow[],
    private readonly count: number,
  ) {
    this.normal = new Float64Array(count * count);
    this.right = new Float64Array(count);
    this.size = new Float64Array(count);
    this.follows = new Uint8Array(count);
    this.following = new Int32Array(count);
  }

  /**
   * Fits anew.
   * @param values one a row; of a row without weight it may be anything
   * @param weights one a row; 0 leaves it out
   */
  fit(values: Float64Array, weights: Float64Array): void {
    const { normal, right, size, follows, count, rows } = this;
    normal.fill(0);
    right.fill(0);
    this.aliases = 0;
    for (let row = 0; row < rows.length; row++) {
      const weight = weights[row] as number;
      if (weight === 0) continue;
      const { columns, parts } = rows[row] as SparseRow;
      for (let a = 0; a < columns.length; a++) {
        const at = columns[a] as number;
        const own = weight * (parts[a] as number);
        right[at]! += own * (values[row] as number);
        for (let b = 0; b < columns.length; b++) normal[at * count + (columns[b] as number)]! += own * (parts[b] as number);
      }
    }
    for (let at = 0; at < count; at++) size[at] = normal[at * count + at] as number;
    for (let at = 0; at < count; at++) {
      const left = normal[at * count + at] as number;
      follows[at] = left <= OWN * (size[at] as number) ? 1 : 0;
      if (follows[at]) {
        this.following[this.aliases++] = at;
        continue;
      }
      for (let row = 0; row < count; row++) {
        const part = (normal[row * count + at] as number) / left;
        if (row === at || part === 0 || (row < at && follows[row])) continue;
        for (let column = at + 1; column < count; column++) normal[row * count + column]! -= part * (normal[at * count + column] as number);
        right[row]! -= part * (right[at] as number);
      }
    }
  }

  /** What the fit makes of a row, or of a difference of rows; NaN where the values say nothing of it. Each column stands in it once. */
  at({ columns, parts }: SparseRow): number {
    const { normal, right, follows, following, count } = this;
    for (let alias = 0; alias < this.aliases; alias++) {
      const at = following[alias] as number;
      let along = 0;
      for (let own = 0; own < columns.length; own++) {
        const column = columns[own] as number;
        const part = parts[own] as number;
        if (column === at) along += part;
        else if (column < at && !follows[column]) along -= (part * (normal[column * count + at] as number)) / (normal[column * count + column] as number);
      }
      if (Math.abs(along) > NOUGHT) return Number.NaN;
    }
    let sum = 0;
    for (let own = 0; own < columns.length; own++) {
      const column = columns[own] as number;
      if (!follows[column]) sum += ((parts[own] as number) * (right[column] as number)) / (normal[column * count + column] as number);
    }
    return sum;
  }
}
