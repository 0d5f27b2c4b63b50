// AssemblyScript, compiled by `npm run kernels`. Reads a signal between its samples by rows of weights.

const VALUE: usize = 8;
const START: usize = 1024;
const PHASES: f64 = 512;

let row: usize = 0;
let samplesAt: usize = 0;
let outAt: usize = 0;

/** Makes room for 513 rows of `width` weights (a multiple of four), and for so many samples and values at once. */
export function open(width: i32, mostSamples: i32, mostValues: i32): void {
  row = (width as usize) * VALUE;
  samplesAt = START + 513 * row;
  outAt = samplesAt + (mostSamples as usize) * VALUE;
  const end = outAt + (mostValues as usize) * VALUE;
  const pages = ((end + 65535) >> 16) as i32;
  if (pages > memory.size()) memory.grow(pages - memory.size());
}

/** Where the weights go, row after row. */
export function weightsPlace(): usize {
  return START;
}

/** Where the samples go. */
export function samplesPlace(): usize {
  return samplesAt;
}

/** Where the values come out. */
export function valuesPlace(): usize {
  return outAt;
}

/** Works out `count` values. The first weight of a value falls on the sample at the whole part of its place. */
export function run(start: f64, step: f64, count: i32): void {
  let to = outAt;
  for (let index = 0; index < count; index++, to += VALUE) {
    const at = start + <f64>index * step;
    const whole = floor(at);
    const phase = (at - whole) * PHASES;
    // A place a hair under a sample may be rounded up to it: that is the end of the last row.
    const below = min(PHASES - 1, floor(phase));
    let sample = samplesAt + ((whole as i32) as usize) * VALUE;
    let low = START + ((below as i32) as usize) * row;
    const end = low + row;
    let lowA = f64x2.splat(0);
    let lowB = f64x2.splat(0);
    let highA = f64x2.splat(0);
    let highB = f64x2.splat(0);
    for (; low < end; low += 4 * VALUE, sample += 4 * VALUE) {
      const a = v128.load(sample);
      const b = v128.load(sample, 16);
      const high = low + row;
      lowA = f64x2.add(lowA, f64x2.mul(a, v128.load(low)));
      lowB = f64x2.add(lowB, f64x2.mul(b, v128.load(low, 16)));
      highA = f64x2.add(highA, f64x2.mul(a, v128.load(high)));
      highB = f64x2.add(highB, f64x2.mul(b, v128.load(high, 16)));
    }
    const lows = f64x2.add(lowA, lowB);
    const highs = f64x2.add(highA, highB);
    const one = f64x2.extract_lane(lows, 0) + f64x2.extract_lane(lows, 1);
    const other = f64x2.extract_lane(highs, 0) + f64x2.extract_lane(highs, 1);
    store<f64>(to, one + (phase - below) * (other - one));
  }
}
