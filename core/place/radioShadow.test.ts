import { describe, expect, it } from 'vitest';
import { knifeEdgeDb, radioShadowDb } from './radioShadow.ts';

describe('a knife edge', () => {
  it.each([
    [-1, 0],
    [0, 6.03],
    [1, 13.93],
    [2.4, 20.54],
  ])('at ν = %f takes %f dB, as the curve of the recommendation has it', (nu, loss) => {
    expect(knifeEdgeDb(nu)).toBeCloseTo(loss, 0);
  });
});

describe('the shadow of a body', () => {
  const facing = { build: 'middle', aerialDeg: 180, frequencyMhz: 600 } as const;

  it('is none where aerial and receiver are on one side', () => {
    expect(radioShadowDb({ ...facing, receiverDeg: 180 })).toBe(0);
    expect(radioShadowDb({ ...facing, receiverDeg: 120 })).toBe(0);
  });

  it('is deepest straight through, by hand: two edges at ν = 0.2 √(2 / (0.4997 · 0.16)) = 1.0, each 13.9 dB, 10.9 together', () => {
    expect(radioShadowDb({ ...facing, receiverDeg: 0 })).toBeCloseTo(10.9, 0);
    for (const receiverDeg of [-50, -20, 20, 50]) expect(radioShadowDb({ ...facing, receiverDeg })).toBeLessThan(radioShadowDb({ ...facing, receiverDeg: 0 }));
  });

  it('is deeper for a broader body and a shorter wave, and alike from both sides', () => {
    expect(radioShadowDb({ ...facing, build: 'broad', receiverDeg: 0 })).toBeGreaterThan(radioShadowDb({ ...facing, receiverDeg: 0 }));
    expect(radioShadowDb({ ...facing, frequencyMhz: 2400, receiverDeg: 0 })).toBeGreaterThan(radioShadowDb({ ...facing, receiverDeg: 0 }));
    expect(radioShadowDb({ ...facing, receiverDeg: 40 })).toBeCloseTo(radioShadowDb({ ...facing, receiverDeg: -40 }), 9);
  });
});
