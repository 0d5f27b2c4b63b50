import type { Forest } from '@marvet/core/measure/events/trees';
import type { RandomSource } from '@marvet/core/simulate/random';

/** What trees are grown from: rows of features, what each row is, and how much it counts. */
export interface Examples {
  width: number;
  values: Float32Array;
  targets: Uint8Array;
  weights: Float32Array;
}

export interface BoostOptions {
  trees: number;
  depth: number;
  /** How much of each tree's answer is added. */
  rate: number;
  /** Share of the features that each tree may ask. */
  share: number;
  /** Holds leaves back that rest on little. */
  smoothing: number;
  random: RandomSource;
}

const BINS = 48;

/**
 * Gradient boosting of complete trees for a yes or no (logistic loss, second-order leaves), over features
 * parted into quantile bins. Friedman, Greedy function approximation: a gradient boosting machine, 2001.
 */
export function boost({ width, values, targets, weights }: Examples, options: BoostOptions): Forest {
  const rows = targets.length;
  const { bins, edges } = binned(values, rows, width, options.random);
  const { depth } = options;
  const scores = new Float64Array(rows);
  const bias = startingScore(targets, weights);
  scores.fill(bias);
  const gradient = new Float64Array(rows);
  const curvature = new Float64Array(rows);
  const node = new Uint16Array(rows);
  const forest: Forest = { depth, bias, features: [], thresholds: [], leaves: [] };
  for (let tree = 0; tree < options.trees; tree++) {
    for (let row = 0; row < rows; row++) {
      const share = 1 / (1 + Math.exp(-(scores[row] as number)));
      const weight = weights[row] as number;
      gradient[row] = weight * ((targets[row] as number) - share);
      curvature[row] = weight * Math.max(share * (1 - share), 1e-6);
    }
    node.fill(0);
    const asked = chosen(width, options.share, options.random);
    for (let level = 0; level < depth; level++) {
      const first = 2 ** level - 1;
      const splits = bestSplits({ bins, gradient, curvature, node, rows }, asked, first, 2 ** level, options.smoothing);
      for (const { feature, bin } of splits) {
        forest.features.push(feature);
        forest.thresholds.push(rounded((edges[feature] as Float32Array)[bin] as number));
      }
      for (let row = 0; row < rows; row++) {
        const { feature, bin } = splits[(node[row] as number) - first] as Split;
        node[row] = 2 * (node[row] as number) + ((bins[feature * rows + row] as number) > bin ? 2 : 1);
      }
    }
    const leaves = leafValues(gradient, curvature, node, depth, options);
    forest.leaves.push(...leaves);
    for (let row = 0; row < rows; row++) scores[row] = (scores[row] as number) + (leaves[(node[row] as number) - (2 ** depth - 1)] as number);
  }
  return forest;
}

const rounded = (value: number) => Number(value.toPrecision(4));

function startingScore(targets: Uint8Array, weights: Float32Array): number {
  let yes = 0;
  let all = 0;
  targets.forEach((target, row) => {
    yes += target * (weights[row] as number);
    all += weights[row] as number;
  });
  const share = Math.min(0.99, Math.max(0.001, yes / all));
  return rounded(Math.log(share / (1 - share)));
}

/** The bin of each value, feature by feature; values above an edge lie in a later bin. */
function binned(values: Float32Array, rows: number, width: number, random: RandomSource): { bins: Uint8Array; edges: Float32Array[] } {
  const bins = new Uint8Array(rows * width);
  const sampled = Math.min(rows, 20_000);
  const edges = Array.from({ length: width }, (_, feature) => {
    const sample = Float32Array.from({ length: sampled }, () => values[Math.floor(random.uniform() * rows) * width + feature] as number).sort();
    const own = Float32Array.from({ length: BINS - 1 }, (_, edge) => sample[Math.floor(((edge + 1) * sampled) / BINS)] as number);
    for (let row = 0; row < rows; row++) {
      const value = values[row * width + feature] as number;
      let low = 0;
      let high = own.length;
      while (low < high) {
        const middle = (low + high) >> 1;
        if (value > (own[middle] as number)) low = middle + 1;
        else high = middle;
      }
      bins[feature * rows + row] = low;
    }
    return own;
  });
  return { bins, edges };
}

function chosen(width: number, share: number, random: RandomSource): number[] {
  const all = Array.from({ length: width }, (_, feature) => feature);
  const some = all.filter(() => random.uniform() < share);
  return some.length > 0 ? some : all;
}

interface Split {
  feature: number;
  bin: number;
}

interface Grown {
  bins: Uint8Array;
  gradient: Float64Array;
  curvature: Float64Array;
  node: Uint16Array;
  rows: number;
}

/** For each of some nodes the question that parts it best. */
function bestSplits({ bins, gradient, curvature, node, rows }: Grown, asked: readonly number[], first: number, nodes: number, smoothing: number): Split[] {
  const best = Array.from({ length: nodes }, () => ({ gain: -1, feature: asked[0] as number, bin: BINS - 1 }));
  const gradients = new Float64Array(nodes * BINS);
  const curvatures = new Float64Array(nodes * BINS);
  for (const feature of asked) {
    gradients.fill(0);
    curvatures.fill(0);
    const own = feature * rows;
    for (let row = 0; row < rows; row++) {
      const cell = ((node[row] as number) - first) * BINS + (bins[own + row] as number);
      gradients[cell] = (gradients[cell] as number) + (gradient[row] as number);
      curvatures[cell] = (curvatures[cell] as number) + (curvature[row] as number);
    }
    for (let each = 0; each < nodes; each++) {
      let total = 0;
      let totalCurvature = 0;
      for (let bin = 0; bin < BINS; bin++) {
        total += gradients[each * BINS + bin] as number;
        totalCurvature += curvatures[each * BINS + bin] as number;
      }
      let left = 0;
      let leftCurvature = 0;
      const found = best[each] as (typeof best)[number];
      for (let bin = 0; bin < BINS - 1; bin++) {
        left += gradients[each * BINS + bin] as number;
        leftCurvature += curvatures[each * BINS + bin] as number;
        const right = total - left;
        const gain = left ** 2 / (leftCurvature + smoothing) + right ** 2 / (totalCurvature - leftCurvature + smoothing) - total ** 2 / (totalCurvature + smoothing);
        if (gain > found.gain) Object.assign(found, { gain, feature, bin });
      }
    }
  }
  return best.map(({ feature, bin }) => ({ feature, bin: Math.min(bin, BINS - 2) }));
}

function leafValues(gradient: Float64Array, curvature: Float64Array, node: Uint16Array, depth: number, { rate, smoothing }: BoostOptions): number[] {
  const first = 2 ** depth - 1;
  const sums = new Float64Array(first + 1);
  const curvatures = new Float64Array(first + 1);
  for (let row = 0; row < node.length; row++) {
    const leaf = (node[row] as number) - first;
    sums[leaf] = (sums[leaf] as number) + (gradient[row] as number);
    curvatures[leaf] = (curvatures[leaf] as number) + (curvature[row] as number);
  }
  return Array.from(sums, (sum, leaf) => rounded((rate * sum) / ((curvatures[leaf] as number) + smoothing)));
}
