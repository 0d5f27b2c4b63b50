import { filled } from '../audio/filled.ts';
/** What the coded fixtures hold: two tones that swell, one a channel, as whole numbers of 24 bit. */
export const CODED_RATE_HZ = 48_000;
export const CODED_FRAMES = 14_400;
export const CODED_TONES_HZ = [440, 1250] as const;

/** One channel of the signal, full scale at 1; every value is a whole number of the bits that are asked for. */
export function codedSignal(channel: 0 | 1, bits: 16 | 24): Float64Array {
  const most = 2 ** (bits - 1);
  return filled(CODED_FRAMES, (frame) => {
    const swell = 0.25 + 0.2 * Math.sin((Math.PI * frame) / CODED_FRAMES);
    // Without the negative zero, which no whole number has.
    return Math.round(most * swell * Math.sin((2 * Math.PI * CODED_TONES_HZ[channel] * frame) / CODED_RATE_HZ)) / most + 0;
  });
}
