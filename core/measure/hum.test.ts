import { describe, expect, it } from 'vitest';
import { mixed, silence, sine, whiteNoise } from '../testing/signals.ts';
import { humPower } from './hum.ts';

const db = (power: number | null) => 10 * Math.log10(power ?? 0);
const humming = (hz: number, lengthS: number, rateHz = 48_000) =>
  [1, 2, 3, 5].reduce((sum, harmonic) => mixed(sum, sine(hz * harmonic, -50 - 4 * harmonic, lengthS, rateHz, 40 * harmonic)), whiteNoise(-70, lengthS, 4, rateHz));
/** Powers of the four sines. */
const LAID_DB = 10 * Math.log10([1, 2, 3, 5].reduce((sum, harmonic) => sum + 10 ** ((-50 - 4 * harmonic) / 10) / 2, 0));

describe('mains hum', () => {
  it.each([
    [50, 48_000],
    [60, 48_000],
    [49.9, 44_100],
    [60.1, 96_000],
  ])('of %f Hz with its harmonics at %i Hz is read within 0.5 dB, in stretches of pauses', (hz, rateHz) => {
    const whole = humming(hz, 4, rateHz);
    const stretches = [whole.subarray(0, rateHz), whole.subarray(2 * rateHz, 3.5 * rateHz)];
    expect(Math.abs(db(humPower(stretches, rateHz)) - LAID_DB)).toBeLessThan(0.5);
  });

  it('where there is none, what is told is far under the noise: the most that could hide in it', () => {
    const power = humPower([whiteNoise(-60, 4, 2)], 48_000);
    expect(db(power)).toBeLessThan(-78);
    expect(db(power)).toBeGreaterThan(-100);
  });

  it('a voice at 110 Hz and a tone at 440 Hz are no hum', () => {
    expect(db(humPower([mixed(sine(110, -30, 3), sine(440, -30, 3))], 48_000))).toBeLessThan(-60);
  });

  it('nothing is said without a stretch of a quarter of a second', () => {
    expect(humPower([silence(0.2)], 48_000)).toBeNull();
    expect(humPower([], 48_000)).toBeNull();
  });
});
