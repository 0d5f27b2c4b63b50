import { describe, expect, it } from 'vitest';
import { mouthDb, sphereGain } from './mouth.ts';

describe('a mouth on a sphere', () => {
  it.each([0, 0.7, Math.PI / 2, Math.PI])('sends long waves everywhere alike, at %f rad', (angle) => {
    expect(sphereGain(angle, 0.02)).toBeCloseTo(1, 1);
  });

  it('sends short waves ahead with twice the pressure, as a wall would', () => {
    for (const ka of [15, 20, 30]) expect(sphereGain(0, ka)).toBeCloseTo(2, 0.5);
    expect(Math.abs(sphereGain(0, 25) - 2)).toBeLessThan(0.1);
  });

  it('sends the same power however its sum is cut: the mean square over all directions is that of its terms', () => {
    // Legendre polynomials are orthogonal: the power is the sum of the squares of the terms over 2n + 1, worked out here without the recurrence for angles.
    const ka = 2;
    const steps = 4000;
    let mean = 0;
    for (let step = 0; step < steps; step++) mean += sphereGain(Math.acos(1 - (2 * step + 1) / steps), ka) ** 2 / steps;
    // h0'(x) = -h1(x), |h1|² = (1 + 1/x²)/x²; h1' = h0 - 2 h1 / x, and so on; the first terms of the series by hand.
    const h = (n: number): [number, number] => {
      const [s, c] = [Math.sin(ka), Math.cos(ka)];
      if (n === 0) return [s / ka, -c / ka];
      if (n === 1) return [s / ka ** 2 - c / ka, -c / ka ** 2 - s / ka];
      const [a, b] = [h(n - 1), h(n - 2)];
      return [((2 * n - 1) / ka) * a[0] - b[0], ((2 * n - 1) / ka) * a[1] - b[1]];
    };
    let power = 0;
    for (let n = 0; n < 12; n++) {
      const [now, next] = [h(n), h(n + 1)];
      power += (2 * n + 1) / (((n / ka) * now[0] - next[0]) ** 2 + ((n / ka) * now[1] - next[1]) ** 2);
    }
    expect(mean).toBeCloseTo(power / ka ** 4, 4);
  });

  it.each([
    [1000, Math.PI / 2],
    [2000, Math.PI / 2],
    [8000, Math.PI / 2],
  ])('at %i Hz less goes to the side than ahead, and less behind than to the side but for the spot right behind', (hz, side) => {
    expect(mouthDb(side, hz)).toBeLessThan(0);
    expect(mouthDb((150 / 180) * Math.PI, hz)).toBeLessThan(mouthDb(side, hz));
    expect(mouthDb(0, hz)).toBe(0);
  });

  it('an opening is as a point for waves far longer than it, and narrows what is shorter', () => {
    expect(sphereGain(1.2, 0.5, 0.14)).toBeCloseTo(sphereGain(1.2, 0.5), 2);
    const ahead = (opening: number) => sphereGain(Math.PI / 2, 13, opening) / sphereGain(0, 13, opening);
    expect(ahead(0.14)).toBeLessThan(0.8 * ahead(0));
  });

  it('is the more narrow the higher', () => {
    const atSide = [250, 1000, 4000, 8000].map((hz) => mouthDb((100 / 180) * Math.PI, hz));
    expect([...atSide].sort((a, b) => b - a)).toEqual(atSide);
  });
});
