import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SPOTS } from '../domain/spot.ts';
import { HEAD_RADIUS_M, sphereGain } from './mouth.ts';
import { fromHead, nearMouthGain, placementNumbers, withHeadTurned } from './nearMouth.ts';

const ka = (hz: number) => (2 * Math.PI * hz * HEAD_RADIUS_M) / 343;

describe('a mouth from near', () => {
  it.each([100, 500, 1000, 4000, 8000])('far away at %i Hz is what the far field says, by inverse distance', (hz) => {
    for (const angle of [0, 0.8, 1.6]) {
      const far = nearMouthGain(angle, 400, hz, 0.143) * 400;
      expect(20 * Math.log10(far / sphereGain(angle, ka(hz), 0.143))).toBeCloseTo(0, 1);
    }
  });

  it('of long waves is a point source on a rigid sphere, as electrostatics has it', () => {
    // For k to 0, straight ahead of a point on the sphere: Σ (2n+1)/(n+1) aⁿ/rⁿ⁺¹, n = 0 ... (the potential of a source on an insulating sphere).
    const [a, r] = [HEAD_RADIUS_M, 0.2];
    let sum = 0;
    for (let n = 0; n < 200; n++) sum += ((2 * n + 1) / (n + 1)) * (a ** n / r ** (n + 1));
    expect(nearMouthGain(0, r, 1, 1e-3)).toBeCloseTo(sum, 3);
  });

  it('falls with distance on its axis, and less than sixfold a doubling right in front of it', () => {
    const at = [0.1, 0.2, 0.4, 0.8].map((metres) => 20 * Math.log10(nearMouthGain(0, HEAD_RADIUS_M + metres, 1000)));
    for (let index = 1; index < at.length; index++) {
      const fell = (at[index - 1] as number) - (at[index] as number);
      expect(fell).toBeGreaterThan(4);
      expect(fell).toBeLessThan(7);
    }
  });

  it('is finite everywhere around a head', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 20, max: 20_000, noNaN: true }),
        (angle, radius, hz) => {
          const gain = nearMouthGain(angle, radius, hz);
          return Number.isFinite(gain) && gain > 0;
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('a spot on a body', () => {
  it('has its distance and angle by Pythagoras', () => {
    expect(placementNumbers({ forwardM: 0, leftM: 0.03, upM: -0.04 })).toEqual({ distanceM: 0.05, offAxisDeg: 90, belowChinM: -0 });
    expect(placementNumbers({ forwardM: 0.1, leftM: 0, upM: -0.1 })).toMatchObject({ distanceM: 0.14, offAxisDeg: 45 });
  });

  it('comes nearer to the axis of a head that turns to it, and stays where it is on the head', () => {
    const shoulder = { forwardM: -0.07, leftM: 0.16, upM: -0.15 };
    const before = fromHead(shoulder);
    const after = fromHead(withHeadTurned(shoulder, 'trunk', Math.PI / 3));
    expect(after.angleRad).toBeLessThan(before.angleRad);
    expect(after.radiusM).toBeCloseTo(before.radiusM, 9);
    expect(withHeadTurned(shoulder, 'head', 1)).toEqual(shoulder);
  });

  it('lies outside the head, at least sixteen of them', () => {
    expect(SPOTS.length).toBeGreaterThanOrEqual(16);
    for (const { at } of SPOTS) expect(fromHead(at).radiusM).toBeGreaterThan(HEAD_RADIUS_M - 0.001);
  });
});
