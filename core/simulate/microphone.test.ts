import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cascadeDb } from '../audio/biquad.ts';
import { diffusePower, GRADIENT_LOW_END_HZ, patternGain, proximityDb, proximitySection } from './microphone.ts';

describe('patterns', () => {
  it.each([
    ['omnidirectional', 1, 180, 1],
    ['cardioid, behind', 0.5, 180, 0],
    ['cardioid, beside', 0.5, 90, 0.5],
    ['hypercardioid, behind', 0.25, 180, -0.5],
    ['figure of eight, beside', 0, 90, 0],
  ])('%s', (_name, pressureShare, angleDeg, gain) => {
    expect(patternGain({ pressureShare, tubeM: 0 }, (angleDeg * Math.PI) / 180, 1000)).toBeCloseTo(gain, 9);
  });

  it('a tube narrows as the wave gets short against it, and never hears more than on axis', () => {
    const tube = { pressureShare: 0.4, tubeM: 0.25 };
    const at = (hz: number) => Math.abs(patternGain(tube, Math.PI / 3, hz));
    expect(at(8000)).toBeLessThan(at(500) / 3);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        fc.double({ min: 50, max: 16_000, noNaN: true }),
        (angle, hz) => Math.abs(patternGain(tube, angle, hz)) <= 1 + 1e-9,
      ),
    );
  });

  it.each([
    ['omnidirectional', 1, 0],
    ['cardioid', 0.5, -4.77],
    ['hypercardioid', 0.25, -6.02],
    ['figure of eight', 0, -4.77],
  ])('from all around, %s takes in 1/Q', (_name, pressureShare, db) => {
    expect(10 * Math.log10(diffusePower({ pressureShare, tubeM: 0 }, 1000))).toBeCloseTo(db, 2);
  });

  it('a tube takes in less from all around the higher the sound', () => {
    const tube = { pressureShare: 0.4, tubeM: 0.25 };
    expect(diffusePower(tube, 8000)).toBeLessThan(diffusePower(tube, 125) / 3);
  });
});

describe('proximity', () => {
  it.each([
    // |1 + (1 - a) c / (j 2 pi f r)|, worked out by hand with c = 343 m/s.
    [1, 0.05, 100, 0],
    [0.5, 0.05, 100, 14.92],
    [0, 0.1, 100, 14.92],
    [0.5, 0.5, 100, 1.13],
    [0.5, 2, 100, 0.08],
    [0.25, 0.3, 50, 9.27],
  ])('pressure share %f at %f m and %i Hz', (pressureShare, distanceM, hz, db) => {
    expect(proximityDb({ pressureShare, tubeM: 0 }, distanceM, hz)).toBeCloseTo(db, 1);
  });

  it('the section follows the exact expression over the whole range, over the low end of its own', () => {
    const lowEndDb = (hz: number) => -10 * Math.log10(1 + (GRADIENT_LOW_END_HZ / hz) ** 2);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0.05, max: 3, noNaN: true }),
        fc.double({ min: 20, max: 16_000, noNaN: true }),
        (pressureShare, distanceM, hz) => {
          const pattern = { pressureShare, tubeM: 0 };
          return Math.abs(cascadeDb([proximitySection(pattern, distanceM, 48_000)], hz, 48_000) - proximityDb(pattern, distanceM, hz) - lowEndDb(hz)) < 0.1;
        },
      ),
    );
  });
});
