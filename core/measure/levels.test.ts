import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filled } from '../audio/filled.ts';
import { concat, reportOf, silence, sine, whiteNoise } from '../testing/signals.ts';

const levelsOf = (signal: Float64Array, rate = 48_000) => reportOf([signal], {}, rate).channels[0]!.levels;

/** A burst as Tech 3341 asks: 10 ms faded in and out, so that the ends do not ring. */
function faded(signal: Float64Array, fade = 480): Float64Array {
  return signal.map((value, index) => value * Math.min(1, index / fade, (signal.length - 1 - index) / fade));
}

describe('EBU Tech 3341 table 1, true peak, within +0.2 and -0.4 dB', () => {
  const within = (measured: number | null, expected: number) => {
    expect(measured).not.toBeNull();
    expect((measured ?? 0) - expected).toBeLessThanOrEqual(0.2);
    expect((measured ?? 0) - expected).toBeGreaterThanOrEqual(-0.4);
  };

  it.each([
    ['15', 4, 0, 0.5],
    ['16', 4, 45, 0.5],
    ['17', 6, 60, 0.5],
    ['18', 8, 67.5, 0.5],
  ])('case %s: fs/%i at %f degrees, 0.50 FS', (_case, divisor, phase, amplitude) => {
    within(levelsOf(faded(sine(48_000 / divisor, 20 * Math.log10(amplitude), 1, 48_000, phase))).truePeakDbtp, -6.02);
  });

  it('case 19: fs/4 at 45 degrees, 1.41 FS reads +3 dBTP', () => {
    within(levelsOf(faded(sine(12_000, 20 * Math.log10(1.41), 1, 48_000, 45))).truePeakDbtp, 3);
  });

  it.each([
    ['20', 0],
    ['21', 1],
    ['22', 2],
    ['23', 3],
  ])('case %s: a peak between samples at offset %i of 4', (_case, offset) => {
    // A band-limited pulse sampled from four times the rate, so that its peak of 1.0 falls between samples.
    const length = 4800;
    const signal = filled(length, (n) => {
      const t = n - length / 2 - offset / 4;
      const x = 0.5 * t;
      const kernel = x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
      return kernel * Math.exp(-((t / 200) ** 2));
    });
    within(levelsOf(signal).truePeakDbtp, 0);
  });

  it('finds a peak between the last samples of a file', () => {
    const signal = concat(silence(0.1), sine(12_000, 0, 0.1, 48_000, 45));
    expect(levelsOf(signal).truePeakDbtp).toBeGreaterThan(-0.5);
  });

  it.each([44_100, 96_000, 192_000])('is as good at %i Hz', (rate) => {
    within(levelsOf(faded(sine(rate / 8, -6.02, 1, rate, 67.5)), rate).truePeakDbtp, -6.02);
  });
});

describe('levels', () => {
  it('a full-scale sine has an RMS of -3.01 dBFS and a crest factor of 3.01 dB', () => {
    const levels = levelsOf(sine(997, 0, 2));
    expect(levels.rmsDbfs).toBeCloseTo(-3.01, 2);
    expect(levels.samplePeakDbfs).toBeCloseTo(0, 2);
    expect(levels.crestDb).toBeCloseTo(3.01, 2);
  });

  it('offset is the mean', () => {
    expect(levelsOf(sine(1000, -20, 1).map((value) => value + 0.01)).dcOffset).toBeCloseTo(0.01, 6);
  });

  it('counts flat tops at the extreme, at any level above -12 dBFS', () => {
    const clipAt = (limit: number) => levelsOf(sine(1000, 0, 1).map((value) => Math.max(-limit, Math.min(limit, value))));
    expect(clipAt(0.7).clippedRuns).toBe(2000);
    expect(clipAt(0.7).clippedSamples).toBeGreaterThan(6000);
    expect(clipAt(0.3).clippedRuns).toBe(2000);
    expect(clipAt(0.2).clippedRuns).toBe(0);
  });

  it('does not call an unclipped signal clipped', () => {
    expect(levelsOf(whiteNoise(-15, 1)).clippedRuns).toBe(0);
    expect(levelsOf(sine(997, -1, 1)).clippedRuns).toBe(0);
  });

  it('silence has no level', () => {
    expect(levelsOf(silence(1))).toMatchObject({ samplePeakDbfs: null, rmsDbfs: null, crestDb: null, truePeakDbtp: null });
  });

  it('gain moves levels by exactly that gain and leaves the crest factor alone', () => {
    const signal = whiteNoise(-30, 0.5, 7);
    const before = levelsOf(signal);
    fc.assert(
      fc.property(fc.double({ min: -40, max: 15, noNaN: true }), (gainDb) => {
        const after = levelsOf(signal.map((value) => value * 10 ** (gainDb / 20)));
        for (const id of ['samplePeakDbfs', 'truePeakDbtp', 'rmsDbfs'] as const) {
          expect(after[id]! - before[id]!).toBeCloseTo(gainDb, 6);
        }
        expect(after.crestDb!).toBeCloseTo(before.crestDb!, 6);
      }),
      { numRuns: 20 },
    );
  });
});
