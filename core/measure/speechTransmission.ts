/** Octave bands from 125 Hz to 8 kHz with the weights of a male voice: alpha of each, beta between it and the next (IEC 60268-16:2020, annex A). */
const ALPHA = [0.085, 0.127, 0.23, 0.233, 0.309, 0.224, 0.173] as const;
const BETA = [0.085, 0.078, 0.065, 0.011, 0.047, 0.095] as const;
export const STI_OCTAVES_HZ = [125, 250, 500, 1000, 2000, 4000, 8000] as const;
/** Rates at which a voice comes and goes. */
const MODULATIONS_HZ = [0.63, 0.8, 1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8, 10, 12.5] as const;
/** Natural logarithm of a million: a decay of 60 dB. */
const DECAY_CONSTANT = 13.8;
const MOST_SNR_DB = 15;

/**
 * Speech transmission index, 0 to 1, after IEC 60268-16, from what is left of the modulation of a voice, octave by
 * octave. The levels at which the ear masks and stops hearing are left out, since a file does not say how loud
 * it will be played.
 * @param modulation what is left of it, 0 to 1, in an octave of {@link STI_OCTAVES_HZ} at a rate in Hz
 */
export function transmissionIndexOf(modulation: (octave: number, rateHz: number) => number): number {
  const transferred = STI_OCTAVES_HZ.map((_, octave) => {
    const indices = MODULATIONS_HZ.map((rateHz) => {
      const left = Math.min(1 - 1e-9, Math.max(1e-9, modulation(octave, rateHz)));
      const apparentSnrDb = 10 * Math.log10(left / (1 - left));
      return (Math.min(MOST_SNR_DB, Math.max(-MOST_SNR_DB, apparentSnrDb)) + MOST_SNR_DB) / (2 * MOST_SNR_DB);
    });
    return indices.reduce((sum, index) => sum + index, 0) / indices.length;
  });
  const own = transferred.reduce((sum, index, octave) => sum + (ALPHA[octave] as number) * index, 0);
  const shared = BETA.reduce((sum, beta, octave) => sum + beta * Math.sqrt((transferred[octave] as number) * (transferred[octave + 1] as number)), 0);
  return Math.min(1, Math.max(0, own - shared));
}

/**
 * The same from noise and a room that rings out exponentially.
 * @param snrDb speech against noise of each octave
 * @param decayS time to fall by 60 dB; 0 in the open
 * @param directToRoom power of the direct sound against that of the room
 */
export function speechTransmissionIndex(snrDb: readonly number[], decayS: number, directToRoom: number): number {
  return transmissionIndexOf((octave, rateHz) => {
    const room = 1 / Math.sqrt(1 + ((2 * Math.PI * rateHz * decayS) / DECAY_CONSTANT) ** 2);
    return (directToRoom + room) / (directToRoom + 1) / (1 + 10 ** (-(snrDb[octave] as number) / 10));
  });
}
