import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { reportOf } from '../../testing/signals.ts';
import { voiced } from '../../testing/voiced.ts';

const RATE_HZ = 48_000;
const clean = voiced(10);
const breaksIn = (signal: Float64Array) => reportOf([signal]).channels[0]!.events.filter(({ kind }) => kind === 'dropout');

/** A stretch changed sample by sample; `at` is the time within it. */
function changed(fromS: number, lengthS: number, change: (x: number, at: number) => number): Float64Array {
  const out = Float64Array.from(clean);
  const start = Math.round(fromS * RATE_HZ);
  for (let index = 0; index < lengthS * RATE_HZ; index++) out[start + index] = change(out[start + index] as number, index / RATE_HZ);
  return out;
}

describe('break-ups of radio links', () => {
  it.each([
    ['within a word', 2.45],
    ['between words', 3.6],
  ])('a burst of noise %s, as an analogue link lets it through', (_where, atS) => {
    for (const lengthS of [0.012, 0.03, 0.06]) {
      const random = randomSource(9);
      const found = breaksIn(changed(atS, lengthS, () => 0.1 * random.normal()));
      expect(found).toHaveLength(1);
      expect(Math.abs((found[0]?.startS ?? 0) - atS)).toBeLessThan(0.006);
      expect(Math.abs((found[0]?.endS ?? 0) - atS - lengthS)).toBeLessThan(0.008);
    }
  });

  it.each([
    ['within a word', 2.45],
    ['between words', 3.5],
  ])('a fade of 12 dB for 0.15 s %s', (_where, atS) => {
    const found = breaksIn(changed(atS, 0.15, (x, at) => x * 10 ** ((-12 * Math.min(1, at / 0.01, (0.15 - at) / 0.01)) / 20)));
    expect(found).toHaveLength(1);
    expect(Math.abs((found[0]?.startS ?? 0) - atS)).toBeLessThan(0.03);
    expect(Math.abs((found[0]?.severityDb ?? 0) - 12)).toBeLessThan(3);
  });

  it('a block that is played again', () => {
    const start = Math.round(2.45 * RATE_HZ);
    const signal = Float64Array.from(clean);
    for (let index = 0; index < 3 * 480; index++) signal[start + index] = signal[start - 480 + (index % 480)] as number;
    expect(breaksIn(signal).map(({ startS }) => Math.round(startS * 100) / 100)).toEqual([2.45]);
  });

  it('beats and strokes that begin at once and die away are none, and no clicks', () => {
    for (const [everyS, diesS] of [
      [0.25, 0.05],
      [0.4, 0.03],
      [0.17, 0.08],
    ] as const) {
      const random = randomSource(3);
      const beats = clean.map((x, index) => x + 0.03 * random.normal() * Math.exp(-((index / RATE_HZ) % everyS) / diesS));
      expect(reportOf([beats]).channels[0]!.events.filter(({ kind }) => kind === 'dropout' || kind === 'click')).toEqual([]);
    }
  });

  it('the stroke of a shaker in loud music is no click, the same jump alone is one', () => {
    const strokes = (goesOn: number) => {
      const random = randomSource(8);
      return Float64Array.from({ length: 8 * RATE_HZ }, (_, index) => {
        const at = (index / RATE_HZ) % 0.4;
        const jump = index % (0.4 * RATE_HZ) === 0 && index > 0 ? 0.4 : 0;
        return random.normal() * (0.01 + goesOn * Math.exp(-at / 0.03)) + jump;
      });
    };
    const clicksIn = (signal: Float64Array) => reportOf([signal]).channels[0]!.events.filter(({ kind }) => kind === 'click');
    expect(clicksIn(strokes(0))).toHaveLength(19);
    expect(clicksIn(strokes(0.014))).toEqual([]);
  });

  it('an s, a t, a swell and a gate that closes after each word are none', () => {
    const random = randomSource(4);
    const s = changed(2.2, 0.12, (x, at) => x + 0.05 * random.normal() * Math.sin((Math.PI * at) / 0.12));
    const t = changed(3.4, 0.08, (x, at) => x + 0.1 * random.normal() * Math.exp(-at / 0.012));
    const swell = changed(3.3, 0.5, (x, at) => x * (1 + Math.sin((Math.PI * at) / 0.5)));
    const gate = clean.map((x, index) => ((index / RATE_HZ) % 2 > 1.45 && (index / RATE_HZ) % 2 < 1.97 ? 0.1 * x : x));
    for (const signal of [s, t, swell, gate]) expect(breaksIn(signal)).toEqual([]);
  });
});
