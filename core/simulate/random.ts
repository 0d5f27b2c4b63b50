/** Numbers that look random and are the same for the same seed. */
export interface RandomSource {
  /** Uniform in [0, 1). */
  uniform(): number;
  /** Standard normal. */
  normal(): number;
}

/** A random source by xoshiro128**, seeded through splitmix32. */
export function randomSource(seed: number): RandomSource {
  let mix = seed >>> 0;
  const next = () => {
    mix = (mix + 0x9e3779b9) >>> 0;
    let z = mix;
    z = Math.imul(z ^ (z >>> 16), 0x85ebca6b);
    z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
    return (z ^ (z >>> 16)) >>> 0;
  };
  let [a, b, c, d] = [next(), next(), next(), next()];
  const whole = () => {
    const product = Math.imul(b, 5);
    const result = Math.imul((product << 7) | (product >>> 25), 9) >>> 0;
    const t = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= t;
    d = (d << 11) | (d >>> 21);
    return result;
  };
  const table = normalTable();
  return { uniform: () => whole() / 4294967296, normal: () => table[whole() >>> 16] as number };
}

let normals: Float64Array | null = null;

/** Quantiles of the standard normal at the middle of 65,536 equal steps, scaled to a variance of 1. */
function normalTable(): Float64Array {
  if (normals) return normals;
  const steps = 65_536;
  const table = new Float64Array(steps);
  // The quantile solves dx/dp = 1 / density(x); a midpoint rule from the middle outwards is exact enough.
  const density = (x: number) => Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI);
  let x = 0.5 / steps / density(0);
  for (let step = 0; step < steps / 2; step++) {
    table[steps / 2 + step] = x;
    table[steps / 2 - 1 - step] = -x;
    const half = x + 0.5 / steps / density(x);
    x += 1 / steps / density(half);
  }
  const scale = Math.sqrt(steps / table.reduce((sum, value) => sum + value * value, 0));
  normals = table.map((value) => value * scale);
  return normals;
}

/** A seed from words, so that every part of a take has a stream of its own (FNV-1a). */
export function seedOf(...words: (string | number)[]): number {
  let hash = 0x811c9dc5;
  for (const character of words.join('|')) {
    hash ^= character.codePointAt(0) ?? 0;
    hash = Math.imul(hash, 0x01000193);
  }
  return hash >>> 0;
}
