import { Cascade, lowPass } from '../audio/biquad.ts';
import { asLoudAs } from './asLoud.ts';

/** What is left of a voice on a narrow telephone line: the low anchor of ITU-R BS.1534-3, 5.1. */
const CORNER_HZ = 3500;
/** Butterworth of the sixth order: 36 dB an octave. */
const QUALITIES = [0.5176, 0.7071, 1.9319];

/** A clip made worse on purpose: without its top, and as loud as it was, so that loudness does not give it away. */
export function madeWorse(channels: readonly Float64Array[], sampleRateHz: number): Float64Array[] {
  return channels.map((samples) => {
    const dull = new Float64Array(samples.length);
    new Cascade(QUALITIES.map((quality) => lowPass(CORNER_HZ, quality, sampleRateHz))).process(samples, dull, samples.length);
    return asLoudAs(samples, dull, sampleRateHz);
  });
}
