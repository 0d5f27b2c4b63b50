/** Complete trees of one depth, added up: the logarithm of the odds that something is so. */
export interface Forest {
  depth: number;
  bias: number;
  /** Which feature each branching asks, tree by tree, from the root down. */
  features: number[];
  /** Above this it goes right. */
  thresholds: number[];
  leaves: number[];
}

/** A forest ready to be asked. */
export class Trees {
  private readonly features: Uint8Array;
  private readonly thresholds: Float32Array;
  private readonly leaves: Float32Array;
  private readonly branchings: number;
  private readonly count: number;

  constructor(private readonly forest: Forest) {
    this.features = Uint8Array.from(forest.features);
    this.thresholds = Float32Array.from(forest.thresholds);
    this.leaves = Float32Array.from(forest.leaves);
    this.branchings = 2 ** forest.depth - 1;
    this.count = forest.features.length / this.branchings;
  }

  /** Probability from one row of features that starts at `offset`. */
  probability(values: Float32Array, offset: number): number {
    const { branchings, features, thresholds, leaves, count } = this;
    const { depth } = this.forest;
    let sum = this.forest.bias;
    let first = 0;
    for (let tree = 0; tree < count; tree++) {
      let node = 0;
      for (let level = 0; level < depth; level++) {
        const at = first + node;
        // A comparison as a number, without a branch that nobody can foresee.
        node = 2 * node + 1 + +((values[offset + (features[at] as number)] as number) > (thresholds[at] as number));
      }
      sum += leaves[tree + first + node - branchings] as number;
      first += branchings;
    }
    return 1 / (1 + Math.exp(-sum));
  }
}
