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
  const uniform = () => {
    const product = Math.imul(b, 5);
    const result = Math.imul((product << 7) | (product >>> 25), 9) >>> 0;
    const t = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= t;
    d = (d << 11) | (d >>> 21);
    return result / 4294967296;
  };
  let spare: number | null = null;
  const normal = () => {
    if (spare !== null) {
      const value = spare;
      spare = null;
      return value;
    }
    const radius = Math.sqrt(-2 * Math.log(1 - uniform()));
    const angle = 2 * Math.PI * uniform();
    spare = radius * Math.sin(angle);
    return radius * Math.cos(angle);
  };
  return { uniform, normal };
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
