// AssemblyScript, compiled by `npm run kernels`. Two real frames go through one complex transform.
// A complex number is one vector: its real part in the first lane, its imaginary part in the second.

const BYTES: usize = 16;
/** Nothing else lives in the memory of a kernel, but its first bytes are the compiler's. */
const START: usize = 1024;

let size: i32 = 0;
let windowAt: usize = 0;
let turnsAt: usize = 0;
let framesAt: usize = 0;
let oneAt: usize = 0;
let otherAt: usize = 0;
let powersAt: usize = 0;

/** Lays out the memory for frames of so many samples, a power of two from 8 up. */
export function open(samples: i32): void {
  size = samples;
  const n = samples as usize;
  windowAt = START;
  turnsAt = windowAt + n * 8;
  framesAt = turnsAt + n * BYTES;
  oneAt = framesAt + 2 * n * 8;
  otherAt = oneAt + n * BYTES;
  powersAt = otherAt + n * BYTES;
  const end = powersAt + 2 * (n / 2 + 1) * 8;
  const pages = ((end + 65535) >> 16) as i32;
  if (pages > memory.size()) memory.grow(pages - memory.size());
}

/** Where the window goes: `size` values. */
export function windowPlace(): usize {
  return windowAt;
}

/** Where exp(-2 pi i k / size) goes for k from 0: `size` pairs of real and imaginary part. */
export function turnsPlace(): usize {
  return turnsAt;
}

/** Where the two frames go, one after the other. */
export function framesPlace(): usize {
  return framesAt;
}

/** Where the powers of both frames come out, size / 2 + 1 values each. */
export function powersPlace(): usize {
  return powersAt;
}

@inline
function turned(value: v128, turn: usize): v128 {
  const re = v128.load64_splat(turn);
  const im = v128.load64_splat(turn, 8);
  // (a + ib)(c + id) = ac - bd + i(bc + ad)
  const crossed = f64x2.mul(v128.shuffle<f64>(value, value, 1, 0), im);
  return f64x2.add(f64x2.mul(value, re), v128.xor(crossed, f64x2(-0.0, 0.0)));
}

/** The first blocks of a pass, which are turned by nothing: in the last pass they are all there is. */
@inline
function unturned(x: usize, y: usize, apart: usize, stride: usize): void {
  let to = y;
  for (let from = x, end = x + stride; from < end; from += BYTES, to += BYTES) {
    const a = v128.load(from);
    const b = v128.load(from + apart);
    const c = v128.load(from + 2 * apart);
    const d = v128.load(from + 3 * apart);
    const sum = f64x2.add(a, c);
    const difference = f64x2.sub(a, c);
    const otherSum = f64x2.add(b, d);
    const odd = f64x2.sub(b, d);
    const turn = v128.xor(v128.shuffle<f64>(odd, odd, 1, 0), f64x2(-0.0, 0.0));
    v128.store(to, f64x2.add(sum, otherSum));
    v128.store(to + stride, f64x2.sub(difference, turn));
    v128.store(to + 2 * stride, f64x2.sub(sum, otherSum));
    v128.store(to + 3 * stride, f64x2.add(difference, turn));
  }
}

/** One pass by four (Stockham): blocks of n, s of them side by side. */
function passByFour(x: usize, y: usize, n: i32, s: i32): void {
  const quarter = n >> 2;
  const stride = (s as usize) * BYTES;
  const apart = stride * (quarter as usize);
  const turnStep = ((size / n) as usize) * BYTES;
  unturned(x, y, apart, stride);
  for (let p = 1; p < quarter; p++) {
    const w1 = turnsAt + (p as usize) * turnStep;
    const w2 = turnsAt + ((2 * p) as usize) * turnStep;
    const w3 = turnsAt + ((3 * p) as usize) * turnStep;
    let from = x + (p as usize) * stride;
    let to = y + ((4 * p) as usize) * stride;
    const end = from + stride;
    while (from < end) {
      const a = v128.load(from);
      const b = v128.load(from + apart);
      const c = v128.load(from + 2 * apart);
      const d = v128.load(from + 3 * apart);
      const sum = f64x2.add(a, c);
      const difference = f64x2.sub(a, c);
      const otherSum = f64x2.add(b, d);
      const odd = f64x2.sub(b, d);
      // i times: the imaginary part with its sign turned comes first.
      const turn = v128.xor(v128.shuffle<f64>(odd, odd, 1, 0), f64x2(-0.0, 0.0));
      v128.store(to, f64x2.add(sum, otherSum));
      v128.store(to + stride, turned(f64x2.sub(difference, turn), w1));
      v128.store(to + 2 * stride, turned(f64x2.sub(sum, otherSum), w2));
      v128.store(to + 3 * stride, turned(f64x2.add(difference, turn), w3));
      from += BYTES;
      to += BYTES;
    }
  }
}

/** The last pass by two, where the size is no power of four. */
function passByTwo(x: usize, y: usize, s: i32): void {
  const apart = (s as usize) * BYTES;
  for (let at: usize = 0; at < apart; at += BYTES) {
    const a = v128.load(x + at);
    const b = v128.load(x + at + apart);
    v128.store(y + at, f64x2.add(a, b));
    v128.store(y + at + apart, f64x2.sub(a, b));
  }
}

/**
 * Powers of both frames in every bin, times `scale`: the even part of the transform is the first frame's, the
 * odd part the second's. The first and the last bin stand for one, all others for two, themselves and their mirror.
 */
export function powers(scale: f64): void {
  const n = size as usize;
  const second = framesAt + n * 8;
  for (let k: usize = 0; k < n; k += 2) {
    const weight = v128.load(windowAt + k * 8);
    const one = f64x2.mul(v128.load(framesAt + k * 8), weight);
    const other = f64x2.mul(v128.load(second + k * 8), weight);
    v128.store(oneAt + k * BYTES, v128.shuffle<f64>(one, other, 0, 2));
    v128.store(oneAt + (k + 1) * BYTES, v128.shuffle<f64>(one, other, 1, 3));
  }
  let x = oneAt;
  let y = otherAt;
  let block = size;
  let s = 1;
  while (block >= 4) {
    passByFour(x, y, block, s);
    const passed = x;
    x = y;
    y = passed;
    block >>= 2;
    s <<= 2;
  }
  if (block == 2) {
    passByTwo(x, y, s);
    x = y;
  }
  const half = n / 2;
  const secondPowers = powersAt + (half + 1) * 8;
  for (let bin: usize = 0; bin <= half; bin++) {
    const z = v128.load(x + bin * BYTES);
    const m = v128.load(x + ((n - bin) & (n - 1)) * BYTES);
    // z + conj(m) is the first frame's, z - conj(m) the second's.
    const mirrored = v128.xor(m, f64x2(0.0, -0.0));
    const even = f64x2.add(z, mirrored);
    const odd = f64x2.sub(z, mirrored);
    const evenSquares = f64x2.mul(even, even);
    const oddSquares = f64x2.mul(odd, odd);
    const factor = bin == 0 || bin == half ? scale * 0.5 : scale;
    store<f64>(powersAt + bin * 8, (f64x2.extract_lane(evenSquares, 0) + f64x2.extract_lane(evenSquares, 1)) * factor);
    store<f64>(secondPowers + bin * 8, (f64x2.extract_lane(oddSquares, 0) + f64x2.extract_lane(oddSquares, 1)) * factor);
  }
}
