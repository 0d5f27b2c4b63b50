import { bandEdgesHz, THIRD_OCTAVE_HZ } from '../audio/bands.ts';
import type { Chapter } from './chapter.types.ts';
import type { Family, Finished, Warn } from './family.ts';
import type { IntelligibilityGroup } from './report.types.ts';
import { bandSum } from './spectrum.ts';
import { STI_OCTAVES_HZ, speechTransmissionIndex } from './speechTransmission.ts';

/**
 * The third-octave method of ANSI S3.5-1997: centre, importance of the band for the understanding of
 * average speech, spectrum level of the standard voice at normal effort, and the ear's own noise
 * (both in dB SPL for 1 Hz).
 */
const BANDS: readonly (readonly [centreHz: number, importance: number, normalDb: number, internalNoiseDb: number])[] = [
  [160, 0.0083, 32.41, 0.6],
  [200, 0.0095, 34.48, -1.7],
  [250, 0.015, 34.75, -3.9],
  [315, 0.0289, 33.98, -6.1],
  [400, 0.044, 34.59, -8.2],
  [500, 0.0578, 34.27, -9.7],
  [630, 0.0653, 32.06, -10.8],
  [800, 0.0711, 28.3, -11.9],
  [1000, 0.0818, 25.01, -12.5],
  [1250, 0.0844, 23, -13.5],
  [1600, 0.0882, 20.15, -15.4],
  [2000, 0.0898, 17.32, -17.7],
  [2500, 0.0868, 13.18, -21.2],
  [3150, 0.0844, 11.55, -24.2],
  [4000, 0.0771, 9.33, -25.9],
  [5000, 0.0527, 5.31, -23.6],
  [6300, 0.0364, 2.59, -15.8],
  [8000, 0.0185, 1.13, -7.1],
];
/** Index of the 160 Hz band among those of 20 Hz to 20 kHz. */
export const FIRST_SII_BAND = 9;
export const SII_BANDS = BANDS.length;
/** Spectrum level of the standard voice at normal effort, one a band. */
export const NORMAL_SPEECH_DB: readonly number[] = BANDS.map(([, , level]) => level);
const NOTHING_DB = -80;

/**
 * Speech intelligibility index, 0 to 1, of 18 third-octave bands from 160 Hz to 8 kHz (ANSI S3.5-1997
 * clause 5, third-octave procedure; hearing threshold normal).
 * @param speechDb spectrum level of the speech in each band, dB SPL for 1 Hz
 * @param noiseDb spectrum level of the noise in each band
 */
export function speechIntelligibilityIndex(speechDb: readonly number[], noiseDb: readonly number[]): number {
  // Clause 5.3: the voice masks its own higher bands, 24 dB under its level.
  const masker = BANDS.map((_, band) => Math.max(noiseDb[band] as number, (speechDb[band] as number) - 24));
  const slope = BANDS.map(([centreHz], band) => -80 + 0.6 * ((masker[band] as number) + 10 * Math.log10(centreHz) - 6.353));
  return BANDS.reduce((index, [centreHz, importance, normalDb, internalDb], band) => {
    const spread = masker
      .slice(0, band)
      .reduce((sum, level, lower) => sum + 10 ** ((level + 3.32 * (slope[lower] as number) * Math.log10((0.89 * centreHz) / (BANDS[lower]?.[0] ?? 1))) / 10), 0);
    const masking = band === 0 ? (masker[0] as number) : 10 * Math.log10(10 ** ((noiseDb[band] as number) / 10) + spread);
    const disturbance = Math.max(masking, internalDb);
    const level = speechDb[band] as number;
    const distortion = Math.min(1, Math.max(0, 1 - (level - normalDb - 10) / 160));
    const audible = Math.min(1, Math.max(0, (level - disturbance + 15) / 30));
    return index + importance * audible * distortion;
  }, 0);
}

/**
 * How well words stand out of all that is no word in the same take: the bands of the words, less those of
 * the noise, against those of the noise; and what noise and room leave of the modulation of a voice.
 */
export class Intelligibility implements Family<IntelligibilityGroup> {
  private decayS: number | null = null;
  private directToRoom: number | null = null;

  settle({ decayS, directToRoom }: Chapter): void {
    this.decayS = decayS;
    this.directToRoom = directToRoom;
  }

  finish(before: Finished, warn: Warn): IntelligibilityGroup {
    const { spectrum, activity } = before;
    const noise = powersOf(spectrum?.noiseDb);
    if (!activity?.speech.length || noise.every((value) => value === 0)) {
      if (activity?.speech.length) warn('no pauses to compare the words with: there is no intelligibility index');
      return { sii: null, sti: null };
    }
    const both = powersOf(spectrum?.speechDb);
    const speech = both.map((value, band) => Math.max(value - (noise[band] as number), 0));
    if (this.decayS === null) warn('no fall of the sound shows how long the room rings: there is no transmission index');
    return { sii: siiOf(speech, noise), sti: this.decayS === null ? null : this.stiOf(speech, noise, this.decayS) };
  }

  private stiOf(speech: readonly number[], noise: readonly number[], decayS: number): number {
    const octave = (powers: readonly number[], hz: number) => bandSum(powers, hz / Math.SQRT2, hz * Math.SQRT2);
    const snrDb = STI_OCTAVES_HZ.map((hz) => 10 * Math.log10(Math.max(octave(speech, hz), 1e-15) / Math.max(octave(noise, hz), 1e-15)));
    return speechTransmissionIndex(snrDb, decayS, this.directToRoom ?? 0);
  }
}

function powersOf(levels: readonly (number | null)[] | undefined): number[] {
  return (levels ?? []).map((level) => (level === null ? 0 : 10 ** (level / 10)));
}

/** Both raised or lowered alike until the voice has the standard level. */
function siiOf(allSpeech: readonly number[], allNoise: readonly number[]): number {
  const speech = allSpeech.slice(FIRST_SII_BAND, FIRST_SII_BAND + SII_BANDS);
  const noise = allNoise.slice(FIRST_SII_BAND, FIRST_SII_BAND + SII_BANDS);
  const total = speech.reduce((sum, value) => sum + value, 0);
  if (total === 0) return 0;
  const widths = THIRD_OCTAVE_HZ.slice(FIRST_SII_BAND, FIRST_SII_BAND + SII_BANDS).map((hz) => {
    const [low, high] = bandEdgesHz(hz);
    return high - low;
  });
  const normal = NORMAL_SPEECH_DB.reduce((sum, level, band) => sum + 10 ** (level / 10) * (widths[band] as number), 0);
  const spectrumLevels = (powers: readonly number[]) =>
    powers.map((value, band) => (value > 0 ? Math.max(NOTHING_DB, 10 * Math.log10(((value / (widths[band] as number)) * normal) / total)) : NOTHING_DB));
  return speechIntelligibilityIndex(spectrumLevels(speech), spectrumLevels(noise));
}
