// AssemblyScript, compiled by `npm run kernels`. Keeps every second sample behind the weights 1 6 15 20 15 6 1.

const HISTORY: usize = 8;
const MOST: usize = 8192;
const VALUE: usize = 8;
const LANES: usize = 16;
const HISTORY_AT: usize = 1024;
const SAMPLES_AT: usize = HISTORY_AT + HISTORY * VALUE;
const KEPT_AT: usize = SAMPLES_AT + MOST * VALUE;
const END: usize = KEPT_AT + (MOST / 2 + 2) * VALUE;

/** Makes room. */
export function open(): void {
  const pages = ((END + 65535) >> 16) as i32;
  if (pages > memory.size()) memory.grow(pages - memory.size());
}

/** Where the last eight samples of before go, and right behind them those that come. */
export function historyPlace(): usize {
  return HISTORY_AT;
}

/** Where what is kept comes out. */
export function keptPlace(): usize {
  return KEPT_AT;
}

/** Keeps the samples `first`, `first` + 2 and so on of `count`, and returns how many those are. */
export function halve(first: i32, count: i32): i32 {
  const kept = (count - first + 1) >> 1;
  const fifteen = f64x2.splat(15);
  const six = f64x2.splat(6);
  const twenty = f64x2.splat(20);
  const scale = f64x2.splat(0.015625);
  let at = SAMPLES_AT + (first as usize) * VALUE;
  let to = KEPT_AT;
  // Two at a time; of an odd number one too many is worked out, and not counted.
  for (let done = 0; done < kept; done += 2, at += 4 * VALUE, to += LANES) {
    const a = v128.load(at - 6 * VALUE);
    const b = v128.load(at - 4 * VALUE);
    const c = v128.load(at - 2 * VALUE);
    const d = v128.load(at);
    const e = v128.load(at + 2 * VALUE);
    const outer = f64x2.add(v128.shuffle<f64>(d, e, 0, 2), v128.shuffle<f64>(a, b, 0, 2));
    const inner = f64x2.add(v128.shuffle<f64>(c, d, 0, 2), v128.shuffle<f64>(b, c, 0, 2));
    const sides = f64x2.add(v128.shuffle<f64>(c, d, 1, 3), v128.shuffle<f64>(a, b, 1, 3));
    const middle = v128.shuffle<f64>(b, c, 1, 3);
    const sum = f64x2.add(f64x2.add(f64x2.add(outer, f64x2.mul(fifteen, inner)), f64x2.mul(six, sides)), f64x2.mul(twenty, middle));
    v128.store(to, f64x2.mul(sum, scale));
  }
  return kept;
}
