import { Cascade } from './biquad.ts';
import { aWeighting } from './weighting.ts';

/** Filters need some time to settle: that part of a block is not counted. */
const SETTLED = 0.25;

/**
 * The A-weighted level of a block of samples, in dB under full scale (a full-scale sine at 1 kHz is -3.01); null in digital silence.
 * @param samples full scale at 1; a tenth of a second and more
 */
export function aLevelDbfs(samples: Float32Array | Float64Array, sampleRateHz: number): number | null {
  const weighted = Float64Array.from(samples);
  new Cascade(aWeighting(sampleRateHz)).process(weighted, weighted, weighted.length);
  const first = Math.floor(SETTLED * weighted.length);
  let sum = 0;
  for (let index = first; index < weighted.length; index++) sum += (weighted[index] as number) ** 2;
  return sum > 0 ? 10 * Math.log10(sum / (weighted.length - first)) : null;
}

/** The energy mean of levels, in the same unit; silent ones count as nothing at all, and of silence alone there is none. */
export function energyMeanDb(levelsDb: readonly (number | null)[]): number | null {
  let sum = 0;
  for (const level of levelsDb) if (level !== null) sum += 10 ** (level / 10);
  return sum > 0 ? 10 * Math.log10(sum / levelsDb.length) : null;
}
