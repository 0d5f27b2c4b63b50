const TAPS = 24;
const CHUNK = 64;

/** Interpolated phases between two samples, Kaiser-windowed sinc, for a factor of 2 or 4. */
function interpolator(factor: number): Float64Array[] {
  const beta = 7;
  const bessel = (x: number) => {
    let term = 1;
    let sum = 1;
    for (let k = 1; k < 30; k++) {
      term *= (x / (2 * k)) ** 2;
      sum += term;
    }
    return sum;
  };
  return Array.from({ length: factor - 1 }, (_, phase) => {
    const shift = (phase + 1) / factor;
    const taps = new Float64Array(TAPS);
    for (let tap = 0; tap < TAPS; tap++) {
      const t = tap - TAPS / 2 + 1 - shift;
      const window = bessel(beta * Math.sqrt(Math.max(0, 1 - (t / (TAPS / 2)) ** 2))) / bessel(beta);
      taps[tap] = (t === 0 ? 1 : Math.sin(Math.PI * t) / (Math.PI * t)) * window;
    }
    const sum = taps.reduce((total, value) => total + value, 0);
    return taps.map((value) => value / sum);
  });
}

/**
 * Highest absolute value of the signal between its samples, ITU-R BS.1770-5 Annex 2: interpolated four
 * times up to 96 kHz, twice above. A stretch whose samples times the interpolator's largest possible
 * gain stay under the maximum so far cannot raise it and is passed over.
 */
export class TruePeak {
  private readonly phases: Float64Array[];
  private readonly largestGain: number;
  private readonly line = new Float64Array(TAPS - 1 + CHUNK);
  private filled = 0;
  private historyPeak = 0;
  peak = 0;

  constructor(sampleRateHz: number) {
    this.phases = interpolator(sampleRateHz < 96_000 ? 4 : 2);
    this.largestGain = Math.max(...this.phases.map((taps) => taps.reduce((sum, value) => sum + Math.abs(value), 0)));
  }

  push(samples: Float64Array, frames: number): void {
    let at = 0;
    while (at < frames) {
      const take = Math.min(CHUNK - this.filled, frames - at);
      this.line.set(samples.subarray(at, at + take), TAPS - 1 + this.filled);
      this.filled += take;
      at += take;
      if (this.filled === CHUNK) this.scan(CHUNK);
    }
  }

  /** Scans what is left, with silence after it. */
  finish(): number {
    const silence = new Float64Array(CHUNK + TAPS);
    this.push(silence, silence.length);
    return this.peak;
  }

  private scan(count: number): void {
    const { line, phases } = this;
    let chunkPeak = 0;
    for (let index = TAPS - 1; index < TAPS - 1 + count; index++) {
      const value = Math.abs(line[index] as number);
      if (value > chunkPeak) chunkPeak = value;
    }
    if (chunkPeak > this.peak) this.peak = chunkPeak;
    if (Math.max(chunkPeak, this.historyPeak) * this.largestGain > this.peak) {
      const [first, second = first, third = first] = phases as [Float64Array, Float64Array?, Float64Array?];
      let peak = this.peak;
      for (let start = 0; start < count; start++) {
        let a = 0;
        let b = 0;
        let c = 0;
        for (let tap = 0; tap < TAPS; tap++) {
          const value = line[start + tap] as number;
          a += (first[tap] as number) * value;
          b += (second[tap] as number) * value;
          c += (third[tap] as number) * value;
        }
        peak = Math.max(peak, Math.abs(a), Math.abs(b), Math.abs(c));
      }
      this.peak = peak;
    }
    line.copyWithin(0, count, count + TAPS - 1);
    this.historyPeak = chunkPeak;
    this.filled = 0;
  }
}
