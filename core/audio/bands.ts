/** Exact centres of the third-octave bands 20 Hz to 20 kHz, IEC 61260-1:2014, base ten: 1000 · 10^(n/10). */
export const THIRD_OCTAVE_HZ: readonly number[] = Array.from({ length: 31 }, (_, index) => 1000 * 10 ** ((index - 17) / 10));

/** Names by which the bands are called. */
export const THIRD_OCTAVE_NAMES_HZ: readonly number[] = [
  20, 25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500, 3150, 4000, 5000, 6300, 8000, 10000, 12500, 16000, 20000,
];

const HALF_BAND = 10 ** (1 / 20);

/** Lower and upper edge of a third-octave band. */
export function bandEdgesHz(centreHz: number): [number, number] {
  return [centreHz / HALF_BAND, centreHz * HALF_BAND];
}
