// AssemblyScript, compiled by `npm run kernels`. What is asked of every sample of a block, two of them at a time.

/** Samples of the block before that stay in reach, and the most that a block has. */
const HISTORY: usize = 64;
const MOST: usize = 4096;
const STRETCH: usize = 32;
/** A frame of 20 ms at the highest rate, with room to spare. */
const MOST_IN_FRAME: usize = 8192;
const SECTIONS: usize = 3;
const TAPS: usize = 24;
const VALUE: usize = 8;
const LANES: usize = 16;

const HISTORY_AT: usize = 1024;
const SAMPLES_AT: usize = HISTORY_AT + HISTORY * VALUE;
const MOST_AT: usize = SAMPLES_AT + MOST * VALUE;
const LEAST_AT: usize = MOST_AT + (MOST / STRETCH) * VALUE;
const FRAME_AT: usize = LEAST_AT + (MOST / STRETCH) * VALUE;
const FILTERS_AT: usize = FRAME_AT + MOST_IN_FRAME * VALUE;
const STATE_AT: usize = FILTERS_AT + SECTIONS * 5 * LANES;
const TAPS_AT: usize = STATE_AT + SECTIONS * 2 * LANES;
const RESULTS_AT: usize = TAPS_AT + 3 * TAPS * VALUE;
const CHANGES_AT: usize = RESULTS_AT + 4 * VALUE;
const END: usize = CHANGES_AT + (MOST + 2) * VALUE;

/** Makes room. */
export function open(): void {
  const pages = ((END + 65535) >> 16) as i32;
  if (pages > memory.size()) memory.grow(pages - memory.size());
}

/** Where the last samples of the block before go, and right behind them those of the block. */
export function historyPlace(): usize {
  return HISTORY_AT;
}

/** Where the highest and lowest sample of each stretch come out. */
export function mostPlace(): usize {
  return MOST_AT;
}
export function leastPlace(): usize {
  return LEAST_AT;
}

/** Where two filters go side by side: of each section b0, b1, b2, a1, a2, the one's in the first lane, the other's in the second. */
export function filtersPlace(): usize {
  return FILTERS_AT;
}

/** Where the taps of up to three phases go, one phase after the other. */
export function tapsPlace(): usize {
  return TAPS_AT;
}

/** Where the changes from sample to sample come out. */
export function changesPlace(): usize {
  return CHANGES_AT;
}

/** Where results come out. */
export function resultsPlace(): usize {
  return RESULTS_AT;
}

@inline
function place(index: i32): usize {
  return SAMPLES_AT + (index as usize) * VALUE;
}

@inline
function sumOf(lanes: v128): f64 {
  return f64x2.extract_lane(lanes, 0) + f64x2.extract_lane(lanes, 1);
}

@inline
function largestOf(lanes: v128): f64 {
  return max(f64x2.extract_lane(lanes, 0), f64x2.extract_lane(lanes, 1));
}

@inline
function result(index: usize, value: f64): void {
  store<f64>(RESULTS_AT + index * VALUE, value);
}

/** Sum of some samples, of their magnitudes, and of their squares. */
export function sums(from: i32, to: i32): void {
  let sum = f64x2.splat(0);
  let magnitude = f64x2.splat(0);
  let squares = f64x2.splat(0);
  let at = place(from);
  const end = place(to);
  for (; at + LANES <= end; at += LANES) {
    const x = v128.load(at);
    sum = f64x2.add(sum, x);
    magnitude = f64x2.add(magnitude, f64x2.abs(x));
    squares = f64x2.add(squares, f64x2.mul(x, x));
  }
  const last = at < end ? load<f64>(at) : 0;
  result(0, sumOf(sum) + last);
  result(1, sumOf(magnitude) + abs(last));
  result(2, sumOf(squares) + last * last);
}

/** Largest third difference of some samples, and the sum of their squares. */
export function breaks(from: i32, to: i32): void {
  let most = f64x2.splat(0);
  let squares = f64x2.splat(0);
  const three = f64x2.splat(3);
  let at = place(from);
  const end = place(to);
  for (; at + LANES <= end; at += LANES) {
    const outer = f64x2.sub(v128.load(at), v128.load(at - 3 * VALUE));
    const inner = f64x2.sub(v128.load(at - 2 * VALUE), v128.load(at - VALUE));
    const error = f64x2.abs(f64x2.add(outer, f64x2.mul(three, inner)));
    most = f64x2.pmax(most, error);
    squares = f64x2.add(squares, f64x2.mul(error, error));
  }
  let largest = largestOf(most);
  let sum = sumOf(squares);
  if (at < end) {
    const error = abs(load<f64>(at) - load<f64>(at - 3 * VALUE) + 3 * (load<f64>(at - 2 * VALUE) - load<f64>(at - VALUE)));
    largest = max(largest, error);
    sum += error * error;
  }
  result(0, largest);
  result(1, sum);
}

/** Changes from each of the first `count` samples to the one before it. */
export function changes(count: i32): void {
  const end = place(count);
  // Of an odd number the last pair reaches one too far, where room is kept.
  for (let at = place(0), to = CHANGES_AT; at < end; at += LANES, to += LANES) v128.store(to, f64x2.sub(v128.load(at), v128.load(at - VALUE)));
}

/** Highest and lowest sample of each stretch of the first `count` samples. */
export function extremes(count: i32): void {
  const end = place(count);
  let stretch: usize = 0;
  for (let start = place(0); start < end; start += STRETCH * VALUE, stretch += VALUE) {
    const stop = min(end, start + STRETCH * VALUE);
    let at = start;
    let most = f64x2.splat(load<f64>(at));
    let least = most;
    for (; at + LANES <= stop; at += LANES) {
      const x = v128.load(at);
      most = f64x2.pmax(most, x);
      least = f64x2.pmin(least, x);
    }
    const last = f64x2.splat(load<f64>(stop - VALUE));
    most = f64x2.pmax(most, last);
    least = f64x2.pmin(least, last);
    store<f64>(MOST_AT + stretch, largestOf(most));
    store<f64>(LEAST_AT + stretch, min(f64x2.extract_lane(least, 0), f64x2.extract_lane(least, 1)));
  }
}

/** What is too small to be heard is nothing: it would only slow what follows. */
@inline
function calmed(at: usize): void {
  const value = v128.load(at);
  v128.store(at, v128.and(value, f64x2.ge(f64x2.abs(value), f64x2.splat(1e-30))));
}

/** Energies of some samples behind both filters. */
export function weighted(from: i32, to: i32): void {
  const p0 = v128.load(FILTERS_AT);
  const p1 = v128.load(FILTERS_AT, 16);
  const p2 = v128.load(FILTERS_AT, 32);
  const p3 = v128.load(FILTERS_AT, 48);
  const p4 = v128.load(FILTERS_AT, 64);
  const q0 = v128.load(FILTERS_AT, 80);
  const q1 = v128.load(FILTERS_AT, 96);
  const q2 = v128.load(FILTERS_AT, 112);
  const q3 = v128.load(FILTERS_AT, 128);
  const q4 = v128.load(FILTERS_AT, 144);
  const r0 = v128.load(FILTERS_AT, 160);
  const r1 = v128.load(FILTERS_AT, 176);
  const r2 = v128.load(FILTERS_AT, 192);
  const r3 = v128.load(FILTERS_AT, 208);
  const r4 = v128.load(FILTERS_AT, 224);
  let u1 = v128.load(STATE_AT);
  let u2 = v128.load(STATE_AT, 16);
  let v1 = v128.load(STATE_AT, 32);
  let v2 = v128.load(STATE_AT, 48);
  let w1 = v128.load(STATE_AT, 64);
  let w2 = v128.load(STATE_AT, 80);
  let energy = f64x2.splat(0);
  const end = place(to);
  for (let at = place(from); at < end; at += VALUE) {
    const x = v128.load64_splat(at);
    const y = f64x2.add(f64x2.mul(p0, x), u1);
    u1 = f64x2.add(f64x2.sub(f64x2.mul(p1, x), f64x2.mul(p3, y)), u2);
    u2 = f64x2.sub(f64x2.mul(p2, x), f64x2.mul(p4, y));
    const z = f64x2.add(f64x2.mul(q0, y), v1);
    v1 = f64x2.add(f64x2.sub(f64x2.mul(q1, y), f64x2.mul(q3, z)), v2);
    v2 = f64x2.sub(f64x2.mul(q2, y), f64x2.mul(q4, z));
    const o = f64x2.add(f64x2.mul(r0, z), w1);
    w1 = f64x2.add(f64x2.sub(f64x2.mul(r1, z), f64x2.mul(r3, o)), w2);
    w2 = f64x2.sub(f64x2.mul(r2, z), f64x2.mul(r4, o));
    energy = f64x2.add(energy, f64x2.mul(o, o));
  }
  v128.store(STATE_AT, u1);
  v128.store(STATE_AT, u2, 16);
  v128.store(STATE_AT, v1, 32);
  v128.store(STATE_AT, v2, 48);
  v128.store(STATE_AT, w1, 64);
  v128.store(STATE_AT, w2, 80);
  for (let at: usize = 0; at < SECTIONS * 2 * LANES; at += LANES) calmed(STATE_AT + at);
  result(0, f64x2.extract_lane(energy, 0));
  result(1, f64x2.extract_lane(energy, 1));
}

@inline
function between(line: usize, taps: usize): v128 {
  let sum = f64x2.splat(0);
  for (let tap: usize = 0; tap < TAPS * VALUE; tap += VALUE) sum = f64x2.add(sum, f64x2.mul(v128.load(line + tap), v128.load64_splat(taps + tap)));
  return f64x2.abs(sum);
}

/** Largest magnitude of what lies before some samples, by one or three phases whose taps end at the sample. */
export function peak(from: i32, to: i32, phases: i32): f64 {
  let most = f64x2.splat(0);
  // Of an odd number the last sample is looked at again with the one before it; before the block lies history.
  for (let index = from; index < to; index += 2) {
    const line = place(min(index, to - 2)) - (TAPS - 1) * VALUE;
    most = f64x2.pmax(most, between(line, TAPS_AT));
    if (phases == 3) {
      most = f64x2.pmax(most, between(line, TAPS_AT + TAPS * VALUE));
      most = f64x2.pmax(most, between(line, TAPS_AT + 2 * TAPS * VALUE));
    }
  }
  return largestOf(most);
}

/** Takes samples of the block into the frame, from its place `into` on. */
export function gather(from: i32, count: i32, into: i32): void {
  memory.copy(FRAME_AT + (into as usize) * VALUE, place(from), (count as usize) * VALUE);
}

/** Highest and lowest of the first `count` values of the frame, and 0. */
export function crests(count: i32): void {
  let most = f64x2.splat(0);
  let least = most;
  let at = FRAME_AT;
  const end = FRAME_AT + (count as usize) * VALUE;
  for (; at + LANES <= end; at += LANES) {
    const x = v128.load(at);
    most = f64x2.pmax(most, x);
    least = f64x2.pmin(least, x);
  }
  const last = at < end ? load<f64>(at) : 0;
  result(0, max(largestOf(most), last));
  result(1, min(min(f64x2.extract_lane(least, 0), f64x2.extract_lane(least, 1)), last));
}

/** How many of the first `count` values of the frame are over a threshold, times a sign. */
export function over(count: i32, threshold: f64, sign: f64): i32 {
  const wanted = f64x2.splat(threshold);
  const signs = f64x2.splat(sign);
  let found = i64x2.splat(0);
  let at = FRAME_AT;
  const end = FRAME_AT + (count as usize) * VALUE;
  for (; at + LANES <= end; at += LANES) found = i64x2.sub(found, f64x2.gt(f64x2.mul(v128.load(at), signs), wanted));
  let sum = (i64x2.extract_lane(found, 0) + i64x2.extract_lane(found, 1)) as i32;
  if (at < end && load<f64>(at) * sign > threshold) sum++;
  return sum;
}
