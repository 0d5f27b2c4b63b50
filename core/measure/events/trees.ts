import { type AskedTrees, openTrees, type TreesInRow } from '../../audio/kernels/forest.ts';

/** Complete trees of one depth, added up: the logarithm of the odds that something is so. */
export interface Forest extends TreesInRow {
  bias: number;
}

/** A forest ready to be asked. */
export class Trees {
  private readonly asked: AskedTrees;
  private readonly bias: number;

  /** @param width values of a row */
  constructor(
    forest: Forest,
    private readonly width: number,
  ) {
    this.asked = openTrees(forest, width);
    this.bias = forest.bias;
  }

  /** Probability from one row of features that starts at `offset`. */
  probability(values: Float32Array, offset: number): number {
    const { row } = this.asked;
    for (let index = 0; index < this.width; index++) row[index] = values[offset + index] as number;
    return 1 / (1 + Math.exp(-this.bias - this.asked.sum()));
  }
}
