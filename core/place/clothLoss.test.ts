import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CLOTHS } from '../domain/clothLayer.ts';
import { clothLossDb } from './clothLoss.ts';

describe('a sheet of cloth', () => {
  it('that is heavy takes what its flow resistance says: 6.02 dB at twice the impedance of air', () => {
    expect(clothLossDb([{ gsm: 5_000_000, flowPaSM: 826 }], 1000)).toBeCloseTo(6.02, 2);
    expect(clothLossDb([{ gsm: 5_000_000, flowPaSM: 0 }], 1000)).toBe(0);
  });

  it('without pores follows the law of mass: 20 log |1 + jωm / 2ρc|, and 6 dB an octave far up', () => {
    const sheet = [{ gsm: 350, flowPaSM: null }];
    // ωm = 2π · 1000 · 0.35 = 2,199 Pa·s/m; over 826 it is 2.662; √(1 + 2.662²) = 2.844, 9.08 dB.
    expect(clothLossDb(sheet, 1000)).toBeCloseTo(9.08, 1);
    expect(clothLossDb(sheet, 16_000) - clothLossDb(sheet, 8000)).toBeCloseTo(6.02, 1);
  });

  it('with mass and pores is their parallel, by hand: 400 g/m² and 900 Pa·s/m at 1 kHz', () => {
    // jωm = j 2,513; Z = 900 · j2513 / (900 + j2513) = 797.6 + j285.7; 1 + Z/826 = 1.966 + j0.346; 5.99 dB... of |1.996|.
    expect(clothLossDb([{ gsm: 400, flowPaSM: 900 }], 1000)).toBeCloseTo(20 * Math.log10(Math.hypot(1 + 797.6 / 826, 285.7 / 826)), 1);
  });

  it.each(CLOTHS)('$name takes nothing of the lows, and the more the higher', (cloth) => {
    expect(clothLossDb([cloth], 20)).toBeLessThan(0.3);
    const up = [125, 500, 2000, 8000].map((hz) => clothLossDb([cloth], hz));
    expect([...up].sort((a, b) => a - b)).toEqual(up);
  });

  it('twice is one sheet of twice the weight and twice the resistance, and any second layer takes more', () => {
    const sheet = fc.record({ gsm: fc.double({ min: 20, max: 1000, noNaN: true }), flowPaSM: fc.option(fc.double({ min: 1, max: 5000, noNaN: true })) });
    fc.assert(
      fc.property(sheet, sheet, fc.double({ min: 50, max: 16_000, noNaN: true }), (a, b, hz) => {
        const twice = { gsm: 2 * a.gsm, flowPaSM: a.flowPaSM === null ? null : 2 * a.flowPaSM };
        const both = clothLossDb([a, b], hz);
        return Math.abs(clothLossDb([a, a], hz) - clothLossDb([twice], hz)) < 1e-9 && both >= Math.max(clothLossDb([a], hz), clothLossDb([b], hz)) - 1e-9;
      }),
    );
  });
});
