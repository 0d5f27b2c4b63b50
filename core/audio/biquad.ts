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
