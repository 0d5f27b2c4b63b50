/** Coefficients of a second-order section, a0 = 1. */
export interface BiquadCoefficients {
  b0: number;
  b1: number;
  b2: number;
  a1: number;
  a2: number;
}

/** A second-order section with its memory (transposed direct form II). */
export class Biquad {
  private z1 = 0;
  private z2 = 0;
  constructor(private readonly c: BiquadCoefficients) {}

  /** Filters `frames` samples from `input` into `output`, which may be the same array. */
  process(input: Float64Array, output: Float64Array, frames: number): void {
    const { b0, b1, b2, a1, a2 } = this.c;
    let z1 = this.z1;
    let z2 = this.z2;
    for (let index = 0; index < frames; index++) {
      const x = input[index] as number;
      const y = b0 * x + z1;
      z1 = b1 * x - a1 * y + z2;
      z2 = b2 * x - a2 * y;
      output[index] = y;
    }
    // Denormals would slow every following block of silence.
    this.z1 = Math.abs(z1) < 1e-30 ? 0 : z1;
    this.z2 = Math.abs(z2) < 1e-30 ? 0 : z2;
  }
}

const THROUGH: BiquadCoefficients = { b0: 1, b1: 0, b2: 0, a1: 0, a2: 0 };

/**
 * Up to three sections in a row, in one loop: while one waits for its own last output, the processor
 * has the others to work on. The loop adds up the energy of the output and stores only what is wanted
 * of it, since storing costs as much as filtering.
 */
export class Cascade {
  private readonly memory = new Float64Array(6);
  private readonly sections: readonly [BiquadCoefficients, BiquadCoefficients, BiquadCoefficients];
  private waiting = 0;

  constructor([first, second = THROUGH, third = THROUGH, ...more]: readonly BiquadCoefficients[]) {
    if (!first || more.length > 0) throw new Error('A cascade has one to three sections');
    this.sections = [first, second, third];
  }

  /** Filters samples `from` to `to` and returns the sum of the squares of the output. */
  energy(input: Float64Array, from: number, to: number): number {
    return this.run(input, from, to, null, Number.POSITIVE_INFINITY).energy;
  }

  /** Filters `frames` samples into `output`, which may be the same array. */
  process(input: Float64Array, output: Float64Array, frames: number): void {
    this.run(input, 0, frames, output, 1);
  }

  /** Filters `frames` samples and stores every n-th of them; returns how many were stored. */
  decimate(input: Float64Array, output: Float64Array, frames: number, factor: number): number {
    return this.run(input, 0, frames, output, factor).kept;
  }

  private run(input: Float64Array, from: number, to: number, output: Float64Array | null, every: number): { energy: number; kept: number } {
    if (this.sections[2] === THROUGH) return this.runTwo(input, from, to, output, every);
    const [{ b0: p0, b1: p1, b2: p2, a1: p3, a2: p4 }, { b0: q0, b1: q1, b2: q2, a1: q3, a2: q4 }, { b0: r0, b1: r1, b2: r2, a1: r3, a2: r4 }] = this.sections;
    const { memory } = this;
    let u1 = memory[0] as number;
    let u2 = memory[1] as number;
    let v1 = memory[2] as number;
    let v2 = memory[3] as number;
    let w1 = memory[4] as number;
    let w2 = memory[5] as number;
    let energy = 0;
    let kept = 0;
    let next = output ? from + this.waiting : to;
    for (let index = from; index < to; index++) {
      const x = input[index] as number;
      const y = p0 * x + u1;
      u1 = p1 * x - p3 * y + u2;
      u2 = p2 * x - p4 * y;
      const z = q0 * y + v1;
      v1 = q1 * y - q3 * z + v2;
      v2 = q2 * y - q4 * z;
      const o = r0 * z + w1;
      w1 = r1 * z - r3 * o + w2;
      w2 = r2 * z - r4 * o;
      energy += o * o;
      if (index === next) {
        (output as Float64Array)[kept++] = o;
        next += every;
      }
    }
    if (output) this.waiting = next - to;
    memory[0] = u1;
    memory[1] = u2;
    memory[2] = v1;
    memory[3] = v2;
    memory[4] = w1;
    memory[5] = w2;
    this.calm();
    return { energy, kept };
  }

  /** The same for two sections; most filters have no more, and the third would cost a third. */
  private runTwo(input: Float64Array, from: number, to: number, output: Float64Array | null, every: number): { energy: number; kept: number } {
    const [{ b0: p0, b1: p1, b2: p2, a1: p3, a2: p4 }, { b0: q0, b1: q1, b2: q2, a1: q3, a2: q4 }] = this.sections;
    const { memory } = this;
    let u1 = memory[0] as number;
    let u2 = memory[1] as number;
    let v1 = memory[2] as number;
    let v2 = memory[3] as number;
    let energy = 0;
    let kept = 0;
    let next = output ? from + this.waiting : to;
    for (let index = from; index < to; index++) {
      const x = input[index] as number;
      const y = p0 * x + u1;
      u1 = p1 * x - p3 * y + u2;
      u2 = p2 * x - p4 * y;
      const o = q0 * y + v1;
      v1 = q1 * y - q3 * o + v2;
      v2 = q2 * y - q4 * o;
      energy += o * o;
      if (index === next) {
        (output as Float64Array)[kept++] = o;
        next += every;
      }
    }
    if (output) this.waiting = next - to;
    memory[0] = u1;
    memory[1] = u2;
    memory[2] = v1;
    memory[3] = v2;
    this.calm();
    return { energy, kept };
  }

  /** Denormals would slow every following block of silence. */
  private calm(): void {
    const { memory } = this;
    for (let index = 0; index < memory.length; index++) if (Math.abs(memory[index] as number) < 1e-30) memory[index] = 0;
  }
}

/** Magnitude of a cascade at a frequency, in dB. */
export function cascadeDb(sections: readonly BiquadCoefficients[], frequencyHz: number, sampleRateHz: number): number {
  const w = (2 * Math.PI * frequencyHz) / sampleRateHz;
  let db = 0;
  for (const { b0, b1, b2, a1, a2 } of sections) {
    const numerator = (b0 + b1 * Math.cos(w) + b2 * Math.cos(2 * w)) ** 2 + (b1 * Math.sin(w) + b2 * Math.sin(2 * w)) ** 2;
    const denominator = (1 + a1 * Math.cos(w) + a2 * Math.cos(2 * w)) ** 2 + (a1 * Math.sin(w) + a2 * Math.sin(2 * w)) ** 2;
    db += 10 * Math.log10(numerator / denominator);
  }
  return db;
}

const bilinear = (frequencyHz: number, sampleRateHz: number) => {
  const w = (2 * Math.PI * frequencyHz) / sampleRateHz;
  return { cos: Math.cos(w), sin: Math.sin(w) };
};

/** Second-order low-pass by the bilinear transform, corner at -3 dB for Q = 0.7071. */
export function lowPass(frequencyHz: number, q: number, sampleRateHz: number): BiquadCoefficients {
  const { cos, sin } = bilinear(frequencyHz, sampleRateHz);
  const alpha = sin / (2 * q);
  const a0 = 1 + alpha;
  return { b0: (1 - cos) / 2 / a0, b1: (1 - cos) / a0, b2: (1 - cos) / 2 / a0, a1: (-2 * cos) / a0, a2: (1 - alpha) / a0 };
}

/** Second-order high-pass by the bilinear transform. */
export function highPass(frequencyHz: number, q: number, sampleRateHz: number): BiquadCoefficients {
  const { cos, sin } = bilinear(frequencyHz, sampleRateHz);
  const alpha = sin / (2 * q);
  const a0 = 1 + alpha;
  return { b0: (1 + cos) / 2 / a0, b1: -(1 + cos) / a0, b2: (1 + cos) / 2 / a0, a1: (-2 * cos) / a0, a2: (1 - alpha) / a0 };
}

/** Peaking section: `gainDb` at the centre, 0 dB far from it. */
export function peaking(frequencyHz: number, gainDb: number, q: number, sampleRateHz: number): BiquadCoefficients {
  const { cos, sin } = bilinear(frequencyHz, sampleRateHz);
  const a = 10 ** (gainDb / 40);
  const alpha = sin / (2 * q);
  const a0 = 1 + alpha / a;
  return { b0: (1 + alpha * a) / a0, b1: (-2 * cos) / a0, b2: (1 - alpha * a) / a0, a1: (-2 * cos) / a0, a2: (1 - alpha / a) / a0 };
}

/** High shelf of slope 1: 0 dB well below the corner, `gainDb` well above it. */
export function highShelf(frequencyHz: number, gainDb: number, sampleRateHz: number): BiquadCoefficients {
  const { cos, sin } = bilinear(frequencyHz, sampleRateHz);
  const a = 10 ** (gainDb / 40);
  const root = 2 * Math.sqrt(a) * (sin / Math.SQRT2);
  const a0 = a + 1 - (a - 1) * cos + root;
  return {
    b0: (a * (a + 1 + (a - 1) * cos + root)) / a0,
    b1: (-2 * a * (a - 1 + (a + 1) * cos)) / a0,
    b2: (a * (a + 1 + (a - 1) * cos - root)) / a0,
    a1: (2 * (a - 1 - (a + 1) * cos)) / a0,
    a2: (a + 1 - (a - 1) * cos - root) / a0,
  };
}
