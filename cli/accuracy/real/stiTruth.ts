import { Cascade, highPass, lowPass } from '@marvet/core/audio/biquad';
import { STI_OCTAVES_HZ, transmissionIndexOf } from '@marvet/core/measure/speechTransmission';
import { FrameEnergies } from '@marvet/core/measure/tracks/frames';
import { meanOfLoud } from './pops.ts';

const FRAME_S = 0.01;
/** Steps in which the squared response is summed. */
const STEP_S = 0.001;

function octaveOf(samples: Float64Array, hz: number, rateHz: number): Float64Array {
  const out = new Float64Array(samples.length);
  const edge = Math.min(hz * Math.SQRT2, 0.45 * rateHz);
  new Cascade([highPass(hz / Math.SQRT2, Math.SQRT1_2, rateHz), highPass(hz / Math.SQRT2, Math.SQRT1_2, rateHz), lowPass(edge, Math.SQRT1_2, rateHz)]).process(
    samples,
    out,
    samples.length,
  );
  return out;
}

function framesOf(samples: Float64Array, rateHz: number, frameS: number): Float64Array {
  const energies = new FrameEnergies(rateHz, frameS);
  energies.push(samples, samples.length);
  return energies.view();
}

/**
 * Speech transmission index of what is known of a take: the modulation transfer of its impulse response itself
 * (the transform of its square, octave by octave) and the levels of voice and noise before they were mixed.
 */
export function stiTruth(voice: Float64Array, noise: Float64Array, response: Float64Array | null, rateHz: number): number {
  const octaves = STI_OCTAVES_HZ.map((hz) => {
    const spoken = meanOfLoud(framesOf(octaveOf(voice, hz, rateHz), rateHz, FRAME_S));
    const bed = framesOf(octaveOf(noise, hz, rateHz), rateHz, FRAME_S);
    const noisePower = bed.reduce((sum, power) => sum + power, 0) / Math.max(1, bed.length);
    return { clear: spoken / Math.max(spoken + noisePower, 1e-30), power: response && framesOf(octaveOf(response, hz, rateHz), rateHz, STEP_S) };
  });
  return transmissionIndexOf((octave, modulationHz) => {
    const { clear, power } = octaves[octave] as (typeof octaves)[number];
    if (!power) return clear;
    let [re, im, all] = [0, 0, 0];
    power.forEach((each, step) => {
      re += each * Math.cos(2 * Math.PI * modulationHz * step * STEP_S);
      im += each * Math.sin(2 * Math.PI * modulationHz * step * STEP_S);
      all += each;
    });
    return (clear * Math.hypot(re, im)) / all;
  });
}
