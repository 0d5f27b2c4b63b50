import { THIRD_OCTAVE_HZ, THIRD_OCTAVE_NAMES_HZ } from '../../audio/bands.ts';
import type { Denoise } from '../report.types.ts';

/** A band that lost more than this of its voice, edges that did, and noise that warbles, are worth a word. */
const LOST_DB = 1.5;
const EDGES_DB = 2;
const WARBLE = 0.5;
const FROM_HZ = 150;
const TO_HZ = 8000;

/**
 * What noise reduction did, in one sentence.
 * @example denoiseText({ noiseReductionDb: 12, voiceLossDb: [], wordEdgeLossDb: 3, musicalNoise: 0.7 })
 * // "Noise is 12 dB lower against the voice; 3 dB of the faint ends of words went with it, and what is left warbles."
 */
export function denoiseText({ noiseReductionDb, voiceLossDb, wordEdgeLossDb, musicalNoise }: Omit<Denoise, 'moments'>): string {
  const noise = `Noise is ${Math.abs(noiseReductionDb).toFixed(0)} dB ${noiseReductionDb > 0 ? 'lower' : 'higher'} against the voice`;
  const worst = worstBand(voiceLossDb);
  const costs = [
    ...(worst && worst.db > LOST_DB ? [`the voice lost ${worst.db.toFixed(0)} dB at ${THIRD_OCTAVE_NAMES_HZ[worst.band]} Hz`] : []),
    ...(wordEdgeLossDb !== null && wordEdgeLossDb > EDGES_DB ? [`${wordEdgeLossDb.toFixed(0)} dB of the faint ends of words went with it`] : []),
    ...(musicalNoise > WARBLE ? ['what is left warbles'] : []),
  ];
  if (costs.length === 0) return `${noise}, and nothing of the voice went with it.`;
  return `${noise}; ${costs.slice(0, -1).join(', ')}${costs.length > 1 ? ', and ' : ''}${costs.at(-1)}.`;
}

/** The band of a voice that lost most, from 150 Hz to 8 kHz; null where none could be judged. */
export function worstBand(voiceLossDb: readonly (number | null)[]): { db: number; band: number } | null {
  return voiceLossDb.reduce<{ db: number; band: number } | null>((most, loss, band) => {
    const hz = THIRD_OCTAVE_HZ[band] ?? 0;
    return loss !== null && (most === null || loss > most.db) && hz >= FROM_HZ && hz <= TO_HZ ? { db: loss, band } : most;
  }, null);
}
