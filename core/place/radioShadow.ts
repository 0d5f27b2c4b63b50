const LIGHT_M_PER_US = 299.792458;
/** Half the width of a trunk, and how far in front of its middle the aerial stands off it. */
const HALF_WIDTH_M = { slight: 0.17, middle: 0.2, broad: 0.24, child: 0.13 } as const;
const OFF_MIDDLE_M = 0.16;

/**
 * Loss of a knife edge, in dB (Recommendation ITU-R P.526, section 4.1): 6.9 + 20 log10 (√((ν - 0.1)² + 1) + ν - 0.1) above
 * ν = -0.78, nothing below it.
 */
export function knifeEdgeDb(nu: number): number {
  return nu <= -0.78 ? 0 : 6.9 + 20 * Math.log10(Math.sqrt((nu - 0.1) ** 2 + 1) + nu - 0.1);
}

/**
 * What a trunk takes of a radio link when it stands between aerial and receiver, in dB: a screen as wide as the trunk, with the
 * power that comes round both its edges. The receiver is far. What comes by reflections is not in this: in a room the loss is less, in the open it is this.
 * @param aerialDeg where the aerial is worn, turned to the left from straight ahead
 * @param receiverDeg where the receiver stands, counted alike
 * @example radioShadowDb({ build: 'middle', aerialDeg: 0, receiverDeg: 0, frequencyMhz: 600 }) // 0: nothing is between them
 */
export function radioShadowDb({
  build,
  aerialDeg,
  receiverDeg,
  frequencyMhz,
}: {
  build: keyof typeof HALF_WIDTH_M;
  aerialDeg: number;
  receiverDeg: number;
  frequencyMhz: number;
}): number {
  const angle = ((receiverDeg - aerialDeg) * Math.PI) / 180;
  // Behind the plane of the trunk by so much, and to one side of its middle, seen by the receiver.
  const behindM = -OFF_MIDDLE_M * Math.cos(angle);
  if (behindM <= 0) return 0;
  const asideM = OFF_MIDDLE_M * Math.sin(angle);
  const wavelengthM = LIGHT_M_PER_US / frequencyMhz;
  const half = HALF_WIDTH_M[build];
  const through = [half - asideM, half + asideM].map((clearM) => 10 ** (-knifeEdgeDb(clearM * Math.sqrt(2 / (wavelengthM * behindM))) / 10));
  return Math.max(0, -10 * Math.log10(through.reduce((sum, power) => sum + power, 0)));
}
