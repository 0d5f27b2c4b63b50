import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LoudnessHistogram } from './loudnessHistogram.ts';

const GATE = 1e-7;
const powers = fc.array(
  fc.double({ min: -80, max: 0, noNaN: true }).map((level) => 10 ** (level / 10)),
  { minLength: 1, maxLength: 200 },
);
const filled = (list: readonly number[]) => {
  const histogram = new LoudnessHistogram(GATE);
  for (const power of list) histogram.add(power);
  return histogram;
};
const db = (power: number) => 10 * Math.log10(power);

describe('a histogram of block powers', () => {
  it('has the mean of the blocks over its own gate exactly', () => {
    fc.assert(
      fc.property(powers, (list) => {
        const over = list.filter((power) => power > GATE);
        const mean = filled(list).meanAbove(GATE);
        if (over.length === 0) expect(mean).toBeNull();
        else expect(db(mean as number)).toBeCloseTo(db(over.reduce((sum, power) => sum + power, 0) / over.length), 9);
      }),
    );
  });

  it('has the mean over any higher gate as close as a step of 0.01 dB lets it', () => {
    fc.assert(
      fc.property(powers, fc.double({ min: -60, max: -5, noNaN: true }), (list, gateDb) => {
        const gate = 10 ** (gateDb / 10);
        // Blocks within a step of the gate may fall on either side; without them the answer is one.
        fc.pre(list.every((power) => Math.abs(db(power) - gateDb) > 0.02));
        const over = list.filter((power) => power > gate);
        const mean = filled(list).meanAbove(gate);
        if (over.length === 0) expect(mean).toBeNull();
        else expect(db(mean as number)).toBeCloseTo(db(over.reduce((sum, power) => sum + power, 0) / over.length), 6);
      }),
    );
  });

  it('has quantiles by nearest rank within a step', () => {
    fc.assert(
      fc.property(powers, fc.double({ min: 0, max: 1, noNaN: true }), (list, share) => {
        const over = list.filter((power) => power > GATE).sort((a, b) => a - b);
        fc.pre(over.length > 0);
        const expected = over[Math.round((over.length - 1) * share)] as number;
        expect(Math.abs(db(filled(list).quantileAbove(GATE, share) as number) - db(expected))).toBeLessThan(0.011);
      }),
    );
  });

  it('does not care in which order blocks come', () => {
    fc.assert(
      fc.property(powers, (list) => {
        const [there, back] = [filled(list), filled([...list].reverse())];
        expect(back.quantileAbove(GATE, 0.5) ?? 0).toBeCloseTo(there.quantileAbove(GATE, 0.5) ?? 0, 12);
        expect(back.meanAbove(GATE) ?? 0).toBeCloseTo(there.meanAbove(GATE) ?? 0, 12);
      }),
    );
  });

  it('of silence has neither', () => {
    const histogram = filled([0, GATE]);
    expect([histogram.meanAbove(GATE), histogram.quantileAbove(GATE, 0.5)]).toEqual([null, null]);
  });
});
