// AssemblyScript, compiled by `npm run kernels`. Complete trees of one depth that ask rows of numbers, four at a time:
// while one waits for what it asked, the processor has the others to work on.

/** A branching: where in a row it asks, in bytes, and above what it goes right. */
const BRANCHING: usize = 8;
const VALUE: usize = 4;
const BRANCHINGS_AT: usize = 1024;

let count: i32 = 0;
let depth: i32 = 0;
let perTree: i32 = 0;
let rowBytes: usize = 0;
let leavesAt: usize = 0;
let rowsAt: usize = 0;

/** Makes room for trees, and for rows of so many values. */
export function open(trees: i32, levels: i32, width: i32, rows: i32): void {
  count = trees;
  depth = levels;
  perTree = (1 << levels) - 1;
  rowBytes = (width as usize) * VALUE;
  leavesAt = BRANCHINGS_AT + (trees as usize) * (perTree as usize) * BRANCHING;
  rowsAt = (leavesAt + (trees as usize) * ((perTree + 1) as usize) * VALUE + 15) & ~15;
  const end = rowsAt + rowBytes * (rows as usize);
  const pages = ((end + 65535) >> 16) as i32;
  if (pages > memory.size()) memory.grow(pages - memory.size());
}

/** Where the branchings go, tree by tree from the root down: place in the row as a whole number, then the threshold. */
export function branchingsPlace(): usize {
  return BRANCHINGS_AT;
}

/** Where the leaves go, tree by tree. */
export function leavesPlace(): usize {
  return leavesAt;
}

/** Where the rows go. */
export function rowsPlace(): usize {
  return rowsAt;
}

@inline
function below(tree: usize, node: i32, row: usize): i32 {
  const at = tree + (node as usize) * BRANCHING;
  return 2 * node + 1 + (load<f32>(row + (load<u32>(at) as usize)) > load<f32>(at, 4) ? 1 : 0);
}

@inline
function leaf(tree: i32, node: i32): f64 {
  return load<f32>(leavesAt + ((tree * (perTree + 1) + node - perTree) as usize) * VALUE) as f64;
}

/** Sum of the leaves that a row comes to. */
export function sum(index: i32): f64 {
  const row = rowsAt + rowBytes * (index as usize);
  const treeBytes = (perTree as usize) * BRANCHING;
  let total: f64 = 0;
  let tree = 0;
  let at = BRANCHINGS_AT;
  for (; tree + 4 <= count; tree += 4, at += 4 * treeBytes) {
    let a = 0;
    let b = 0;
    let c = 0;
    let d = 0;
    for (let level = 0; level < depth; level++) {
      a = below(at, a, row);
      b = below(at + treeBytes, b, row);
      c = below(at + 2 * treeBytes, c, row);
      d = below(at + 3 * treeBytes, d, row);
    }
    total += leaf(tree, a);
    total += leaf(tree + 1, b);
    total += leaf(tree + 2, c);
    total += leaf(tree + 3, d);
  }
  for (; tree < count; tree++, at += treeBytes) {
    let node = 0;
    for (let level = 0; level < depth; level++) node = below(at, node, row);
    total += leaf(tree, node);
  }
  return total;
}
