// AssemblyScript, compiled by `npm run kernels`. How like a stretch of samples is to what came before it.

const START: usize = 1024;

/** Makes room for so many samples. */
export function open(samples: i32): void {
  const pages = ((START + (samples as usize) * 8 + 65535) >> 16) as i32;
  if (pages > memory.size()) memory.grow(pages - memory.size());
}

/** Where the samples go. */
export function samplesPlace(): usize {
  return START;
}

@inline
function placeOf(index: i32): usize {
  return START + (index as usize) * 8;
}

@inline
function sumOf(lanes: v128): f64 {
  return f64x2.extract_lane(lanes, 0) + f64x2.extract_lane(lanes, 1);
}

/** Sum of the products of `count` samples with as many others. */
function product(one: usize, other: usize, count: i32): f64 {
  let a = f64x2.splat(0);
  let b = f64x2.splat(0);
  let index = 0;
  for (; index + 4 <= count; index += 4) {
    const at = (index as usize) * 8;
    a = f64x2.add(a, f64x2.mul(v128.load(one + at), v128.load(other + at)));
    b = f64x2.add(b, f64x2.mul(v128.load(one + at + 16), v128.load(other + at + 16)));
  }
  let sum = sumOf(f64x2.add(a, b));
  for (; index < count; index++) sum += load<f64>(one + (index as usize) * 8) * load<f64>(other + (index as usize) * 8);
  return sum;
}

/** Largest normalised correlation of the `window` samples before `end` with what was `shortest` to `longest` samples before; 0 under an energy. */
export function strongest(end: i32, window: i32, shortest: i32, longest: i32, silence: f64): f64 {
  const start = end - window;
  const here = placeOf(start);
  const own = product(here, here, window);
  if (own < silence) return 0;
  const first = placeOf(start - shortest);
  let before = product(first, first, window);
  let best: f64 = 0;
  for (let lag = shortest; lag <= longest; lag++) {
    const together = product(here, placeOf(start - lag), window);
    if (together > 0 && together * together > best * best * own * before) best = together / sqrt(max(own * before, 1e-30));
    const enters = load<f64>(placeOf(start - lag - 1));
    const leaves = load<f64>(placeOf(end - lag - 1));
    before = max(0, before + enters * enters - leaves * leaves);
  }
  return min(1, best);
}

/** The distance, from `longest` down to `shortest`, at which `alike` samples from `at` on are as they were, within a share of their mean size; 0 where there is none. */
export function lagAt(at: i32, alike: i32, shortest: i32, longest: i32, share: f64, least: f64): i32 {
  let size: f64 = 0;
  let most: f64 = 0;
  let rarest = at;
  for (let index = at; index < at + alike; index++) {
    const own = abs(load<f64>(placeOf(index)));
    size += own;
    if (own > most) {
      most = own;
      rarest = index;
    }
  }
  size /= alike as f64;
  if (size < least) return 0;
  const tolerance = share * size;
  const value = load<f64>(placeOf(rarest));
  const wanted = f64x2.splat(value);
  const last = rarest - shortest;
  let other = rarest - longest;
  // The largest is the rarest, so it is compared first, eight at a time.
  for (; other + 8 <= last + 1; other += 8) {
    const from = placeOf(other);
    const one = f64x2.pmin(f64x2.abs(f64x2.sub(v128.load(from), wanted)), f64x2.abs(f64x2.sub(v128.load(from, 16), wanted)));
    const two = f64x2.pmin(f64x2.abs(f64x2.sub(v128.load(from, 32), wanted)), f64x2.abs(f64x2.sub(v128.load(from, 48), wanted)));
    const nearest = f64x2.pmin(one, two);
    if (f64x2.extract_lane(nearest, 0) > tolerance && f64x2.extract_lane(nearest, 1) > tolerance) continue;
    for (let each = other; each < other + 8; each++) if (isAlike(at, rarest - each, alike, tolerance)) return rarest - each;
  }
  for (; other <= last; other++) if (isAlike(at, rarest - other, alike, tolerance)) return rarest - other;
  return 0;
}

function isAlike(at: i32, lag: i32, alike: i32, tolerance: f64): bool {
  for (let index = at; index < at + alike; index++) if (abs(load<f64>(placeOf(index)) - load<f64>(placeOf(index - lag))) > tolerance) return false;
  return true;
}
