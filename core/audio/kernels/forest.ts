import { FOREST_WASM } from './forest.wasm.ts';
import { type KernelExports, openKernel } from './kernel.ts';

/** Complete trees of one depth, one after the other. */
export interface TreesInRow {
  depth: number;
  /** Which value of a row each branching asks, tree by tree, from the root down. */
  features: number[];
  /** Above this it goes right. */
  thresholds: number[];
  leaves: number[];
}

/** Trees that are asked row by row. */
export interface AskedTrees {
  /** Where the values of a row go. */
  readonly row: Float32Array;
  /** Sum of the leaves that the row comes to. */
  sum(): number;
}

interface ForestExports extends KernelExports {
  open(trees: number, levels: number, width: number, rows: number): void;
  branchingsPlace(): number;
  leavesPlace(): number;
  rowsPlace(): number;
  sum(row: number): number;
}

/** @param width values of a row. In the fastest form that runs here. */
export const openTrees = (trees: TreesInRow, width: number): AskedTrees => kernelTrees(trees, width) ?? plainTrees(trees, width);

/** In WebAssembly; null where there is none. */
export function kernelTrees({ depth, features, thresholds, leaves }: TreesInRow, width: number): AskedTrees | null {
  const kernel = openKernel<ForestExports>(FOREST_WASM);
  if (!kernel) return null;
  kernel.open(features.length / (2 ** depth - 1), depth, width, 1);
  const { buffer } = kernel.memory;
  const places = new Uint32Array(buffer, kernel.branchingsPlace(), 2 * features.length);
  const limits = new Float32Array(buffer, kernel.branchingsPlace(), 2 * features.length);
  features.forEach((feature, index) => {
    places[2 * index] = feature * Float32Array.BYTES_PER_ELEMENT;
    limits[2 * index + 1] = thresholds[index] as number;
  });
  new Float32Array(buffer, kernel.leavesPlace(), leaves.length).set(leaves);
  return { row: new Float32Array(buffer, kernel.rowsPlace(), width), sum: () => kernel.sum(0) };
}

/** The same in plain TypeScript. */
export function plainTrees({ depth, ...given }: TreesInRow, width: number): AskedTrees {
  const features = Uint8Array.from(given.features);
  const thresholds = Float32Array.from(given.thresholds);
  const leaves = Float32Array.from(given.leaves);
  const branchings = 2 ** depth - 1;
  const count = features.length / branchings;
  const row = new Float32Array(width);
  return {
    row,
    sum() {
      let sum = 0;
      let first = 0;
      for (let tree = 0; tree < count; tree++) {
        let node = 0;
        for (let level = 0; level < depth; level++) {
          const at = first + node;
          // A comparison as a number, without a branch that nobody can foresee.
          node = 2 * node + 1 + +((row[features[at] as number] as number) > (thresholds[at] as number));
        }
        sum += leaves[tree + first + node - branchings] as number;
        first += branchings;
      }
      return sum;
    },
  };
}
