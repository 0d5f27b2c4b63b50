const MIB = 1 << 20;
const LEAST_MIB = 16;
const MOST_MIB = 160;
/** What browsers that do not tell are taken for, in GiB. */
const USUAL_GIB = 4;

/**
 * How much of a device's memory clips may take, in bytes: a fortieth of it, as far as the browser tells (W3C Device Memory, rounded there
 * to 0.25 to 8 GiB).
 */
export function memoryForClips(deviceGib: number | undefined): number {
  return Math.max(LEAST_MIB, Math.min(MOST_MIB, ((deviceGib ?? USUAL_GIB) * 1024) / 40)) * MIB;
}
