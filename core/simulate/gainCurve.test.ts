import { describe, expect, it } from 'vitest';
import { sine } from '../testing/signals.ts';
import { withGainCurve } from './gainCurve.ts';
import { rmsOf } from './noiseBed.ts';

describe('a gain over frequencies', () => {
  const gained = (hz: number) => {
    const tone = sine(hz, -10, 1);
    // The ends are left out: a gain without phase rings to both sides of a tone that begins and ends at once.
    const middle = (samples: Float64Array) => samples.slice(12_000, 36_000);
    return 20 * Math.log10(rmsOf(middle(withGainCurve(tone, [500, 1000, 4000], [0, 6, -6], 48_000))) / rmsOf(middle(tone)));
  };

  it.each([
    [100, 0],
    [500, 0],
    [707, 3],
    [1000, 6],
    [2000, 0],
    [4000, -6],
    [12_000, -6],
  ])('at %i Hz is %f dB: as given at the points, straight in octaves between them, the same beyond them', (hz, db) => {
    expect(gained(hz)).toBeCloseTo(db, 1);
  });
});
