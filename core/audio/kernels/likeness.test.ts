import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { kernelLikeness, plainLikeness } from './likeness.ts';

const COUNT = 4000;
const both = () => [plainLikeness(COUNT), kernelLikeness(COUNT)!] as const;
const seeds = fc.integer({ min: 1, max: 1e6 });

describe('how like a stretch is to what came before it', () => {
  it('a tone is wholly like itself a period before, noise is not; of silence there is nothing', () => {
    for (const likeness of both()) {
      likeness.samples.forEach((_, n, samples) => {
        samples[n] = Math.sin((2 * Math.PI * n) / 20);
      });
      expect(likeness.strongest(2000, 90, 15, 25, 1e-18)).toBeCloseTo(1, 12);
      const random = randomSource(3);
      likeness.samples.forEach((_, n, samples) => {
        samples[n] = random.normal();
      });
      expect(likeness.strongest(2000, 90, 15, 25, 1e-18)).toBeLessThan(0.5);
      likeness.samples.fill(0);
      expect(likeness.strongest(2000, 90, 15, 25, 1e-18)).toBe(0);
      expect(likeness.lagAt(3000, 16, 190, 1050, 0.02, 1e-5)).toBe(0);
    }
  });

  it('a block that is played again is found at its distance, the longest first, and not when it is a little off', () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 190, max: 1050 }), (seed, lag) => {
        for (const likeness of both()) {
          const random = randomSource(seed);
          likeness.samples.forEach((_, n, samples) => {
            samples[n] = random.normal();
          });
          likeness.samples.copyWithin(3000, 3000 - lag, 3000 - lag + 16);
          expect(likeness.lagAt(3000, 16, 190, 1050, 0.02, 1e-5)).toBe(lag);
          likeness.samples[3007] = (likeness.samples[3007] as number) + 0.5;
          expect(likeness.lagAt(3000, 16, 190, 1050, 0.02, 1e-5)).toBe(0);
        }
      }),
      { numRuns: 30 },
    );
  });

  it('the kernel and its plain form agree', () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 5, max: 97 }), (seed, window) => {
        const [plain, kernel] = both();
        const random = randomSource(seed);
        let last = 0;
        for (let n = 0; n < COUNT; n++) {
          last = 0.9 * last + random.normal();
          plain.samples[n] = last;
          kernel.samples[n] = last;
        }
        expect(kernel.strongest(2000, window, 7, 60, 1e-18)).toBeCloseTo(plain.strongest(2000, window, 7, 60, 1e-18), 9);
        expect(kernel.lagAt(3000, 4, 190, 1053, 0.3, 1e-5)).toBe(plain.lagAt(3000, 4, 190, 1053, 0.3, 1e-5));
      }),
      { numRuns: 60 },
    );
  });
});
