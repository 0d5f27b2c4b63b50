import { type BiquadCoefficients, cascadeDb } from './biquad.ts';

/**
 * K-weighting at any sample rate. ITU-R BS.1770-5 Annex 1 gives coefficients for 48 kHz only; these
 * are the analogue prototypes behind them (shelf of +4 dB above about 1.7 kHz, high-pass at 38 Hz),
 * brought to the sample rate by the bilinear transform, which gives the printed values at 48 kHz.
 */
export function kWeighting(sampleRateHz: number): BiquadCoefficients[] {
  const shelfHz = 1681.974450955533;
  const shelfDb = 3.999843853973347;
  const shelfQ = 0.7071752369554196;
  const k = Math.tan((Math.PI * shelfHz) / sampleRateHz);
  const vh = 10 ** (shelfDb / 20);
  const vb = vh ** 0.4996667741545416;
  const a0 = 1 + k / shelfQ + k * k;
  const shelf: BiquadCoefficients = {
    b0: (vh + (vb * k) / shelfQ + k * k) / a0,
    b1: (2 * (k * k - vh)) / a0,
    b2: (vh - (vb * k) / shelfQ + k * k) / a0,
    a1: (2 * (k * k - 1)) / a0,
    a2: (1 - k / shelfQ + k * k) / a0,
  };
  const passHz = 38.13547087602444;
  const passQ = 0.5003270373238773;
  const p = Math.tan((Math.PI * passHz) / sampleRateHz);
  const p0 = 1 + p / passQ + p * p;
  // BS.1770 leaves the numerator of the high-pass unscaled: 1, -2, 1.
  const pass: BiquadCoefficients = { b0: 1, b1: -2, b2: 1, a1: (2 * (p * p - 1)) / p0, a2: (1 - p / passQ + p * p) / p0 };
  return [shelf, pass];
}

/** Pole frequencies of the A weighting, IEC 61672-1:2013 Annex E, in Hz. */
const A_POLES_HZ = { f1: 20.598997, f2: 107.65265, f3: 737.86223, f4: 12194.217 };

/** A weighting in dB by its definition, IEC 61672-1:2013 formula (E.6). */
export function aWeightingDb(frequencyHz: number): number {
  const response = (hz: number) => {
    const f = hz * hz;
    const { f1, f2, f3, f4 } = A_POLES_HZ;
    return (f4 ** 2 * f * f) / ((f + f1 ** 2) * Math.sqrt(f + f2 ** 2) * Math.sqrt(f + f3 ** 2) * (f + f4 ** 2));
  };
  return 20 * Math.log10(response(frequencyHz) / response(1000));
}

/**
 * A weighting as second-order sections at any sample rate. The two low pole pairs come from the
 * bilinear transform. The high pair is fitted: its poles are placed by the matched transform and its
 * zeros chosen so that gain agrees with the definition at 0.2, 0.32 and 0.42 of the sample rate, since
 * the plain bilinear transform falls many dB short at the top.
 */
export function aWeighting(sampleRateHz: number): BiquadCoefficients[] {
  const { f1, f2, f3 } = A_POLES_HZ;
  const low = doublePoleHighPass(f1, f1, sampleRateHz);
  const mid = doublePoleHighPass(f2, f3, sampleRateHz);
  const top = topSection(sampleRateHz, [low, mid]);
  const sections = [low, mid, top];
  const correction = 10 ** (-cascadeDb(sections, 1000, sampleRateHz) / 20);
  return [low, mid, { ...top, b0: top.b0 * correction, b1: top.b1 * correction, b2: top.b2 * correction }];
}

/** s² / ((s + ωa)(s + ωb)) by the bilinear transform, prewarped at each pole. */
function doublePoleHighPass(aHz: number, bHz: number, sampleRateHz: number): BiquadCoefficients {
  const a = Math.tan((Math.PI * aHz) / sampleRateHz);
  const b = Math.tan((Math.PI * bHz) / sampleRateHz);
  const scale = 1 / ((1 + a) * (1 + b));
  return {
    b0: scale,
    b1: -2 * scale,
    b2: scale,
    a1: ((a - 1) * (1 + b) + (b - 1) * (1 + a)) * scale,
    a2: (1 - a) * (1 - b) * scale,
  };
}

function topSection(sampleRateHz: number, before: readonly BiquadCoefficients[]): BiquadCoefficients {
  const pole = -Math.exp((-2 * Math.PI * A_POLES_HZ.f4) / sampleRateHz);
  const a1 = 2 * pole;
  const a2 = pole * pole;
  const all: BiquadCoefficients = { b0: 1, b1: 0, b2: 0, a1, a2 };
  const base = cascadeDb([...before, all], 1000, sampleRateHz);
  // |b0 + b1 z⁻¹ + b2 z⁻²|² = p0 + p1 cos w + p2 cos 2w is linear in p, so four points fix it up to scale.
  const points = [1000 / sampleRateHz, 0.2, 0.32, 0.42];
  const rows = points.map((fraction) => {
    const w = 2 * Math.PI * fraction;
    const wanted = 10 ** ((aWeightingDb(fraction * sampleRateHz) - (cascadeDb([...before, all], fraction * sampleRateHz, sampleRateHz) - base)) / 10);
    return { row: [1, Math.cos(w), Math.cos(2 * w)], wanted, weight: 1 / wanted };
  });
  const p = leastSquares3(rows);
  return { ...spectralFactor(p), a1, a2 };
}

/** Weighted least squares for three unknowns by the normal equations and Cramer's rule. */
function leastSquares3(rows: readonly { row: number[]; wanted: number; weight: number }[]): [number, number, number] {
  const m = [0, 1, 2].map((i) => [0, 1, 2].map((j) => rows.reduce((sum, r) => sum + (r.row[i] as number) * (r.row[j] as number) * r.weight ** 2, 0)));
  const v = [0, 1, 2].map((i) => rows.reduce((sum, r) => sum + (r.row[i] as number) * r.wanted * r.weight ** 2, 0));
  const det = (a: number[][]) =>
    a[0]![0]! * (a[1]![1]! * a[2]![2]! - a[1]![2]! * a[2]![1]!) -
    a[0]![1]! * (a[1]![0]! * a[2]![2]! - a[1]![2]! * a[2]![0]!) +
    a[0]![2]! * (a[1]![0]! * a[2]![1]! - a[1]![1]! * a[2]![0]!);
  const whole = det(m);
  const solve = (column: number) => det(m.map((row, i) => row.map((value, j) => (j === column ? v[i]! : value)))) / whole;
  return [solve(0), solve(1), solve(2)];
}

/** Minimum-phase b with |B|² = p0 + p1 cos w + p2 cos 2w. */
function spectralFactor([p0, p1, p2]: [number, number, number]): Pick<BiquadCoefficients, 'b0' | 'b1' | 'b2'> {
  // From the values at w = 0 and π: (b0 + b2 ± b1)² = p0 + p2 ± p1, and b0·b2 = p2 / 2.
  const atZero = Math.sqrt(Math.max(p0 + p1 + p2, 1e-12));
  const atPi = Math.sqrt(Math.max(p0 - p1 + p2, 1e-12));
  const sum = (atZero + atPi) / 2;
  const b1 = (atZero - atPi) / 2;
  const root = Math.sqrt(Math.max(sum * sum - 2 * p2, 0));
  return { b0: (sum + root) / 2, b1, b2: (sum - root) / 2 };
}
