import type { ClothLayer } from '../domain/clothLayer.ts';

/** Characteristic impedance of air at 20 °C, in Pa·s/m. */
const RHO_C = 413;
const GRAMS = 1000;

/**
 * What a sheet of cloth takes from sound that goes through it, in dB: 20 log10 |1 + Z / 2ρc|. The sheet moves along as a
 * mass, and air is pressed through it, whichever is easier: Z = 1 / (1 / R + 1 / jωm) (H. Kuttruff, Room Acoustics, 2009, on
 * curtains; K. U. Ingard, Notes on Sound Absorption Technology, 1994). At low frequencies nothing, at high ones 20 log10 (1 + R / 2ρc); a sheet without
 * pores follows the law of mass. Layers that lie on each other add their impedances. Air trapped behind it is not in this.
 * @param layers over the microphone, in any order
 * @example clothLossDb([{ name: 'canvas', gsm: 1e6, flowPaSM: 826 }], 1000) // 6.02, a heavy sheet with R = 2ρc
 */
export function clothLossDb(layers: readonly Pick<ClothLayer, 'gsm' | 'flowPaSM'>[], frequencyHz: number): number {
  let [re, im] = [0, 0];
  for (const { gsm, flowPaSM } of layers) {
    const x = (2 * Math.PI * frequencyHz * gsm) / GRAMS;
    if (flowPaSM === null) im += x;
    else if (flowPaSM > 0) {
      // R · jx / (R + jx)
      const size = flowPaSM ** 2 + x ** 2;
      re += (flowPaSM * x ** 2) / size;
      im += (flowPaSM ** 2 * x) / size;
    }
  }
  return 20 * Math.log10(Math.hypot(1 + re / (2 * RHO_C), im / (2 * RHO_C)));
}
