import type { FrameTalker } from '../domain/frame.ts';
import type { Acoustics } from '../domain/station.ts';
import { withGainCurve } from '../simulate/gainCurve.ts';
import { splAmplitude } from '../simulate/noiseBed.ts';
import { randomSource, seedOf } from '../simulate/random.ts';
import { type Listening, sourcesOctaves } from './noiseAt.ts';
import { NOISE_OCTAVES_HZ } from './noiseKinds.ts';

/** The sources of a station as a microphone hears them, steady; null where there is none. 1 is 1 Pa. */
export function sourcesNoise(
  listening: Listening,
  place: Acoustics,
  mark: Pick<FrameTalker, 'awayM' | 'acrossM'>,
  length: number,
  rateHz: number,
  seed: string,
): Float64Array | null {
  const octavesDb = sourcesOctaves(listening, place, mark);
  if (!octavesDb) return null;
  const random = randomSource(seedOf(seed, 'sources'));
  const white = new Float64Array(length);
  for (let index = 0; index < length; index++) white[index] = random.normal();
  // Of white noise with an RMS of 1 an octave holds its width over half the sample rate.
  const db = octavesDb.map((level, octave) => level - 10 * Math.log10(((NOISE_OCTAVES_HZ[octave] as number) * Math.SQRT1_2) / (rateHz / 2)));
  // 0 dB SPL in units where 94 dB SPL are 1.
  const scaleDb = 20 * Math.log10(splAmplitude(0));
  return withGainCurve(
    white,
    NOISE_OCTAVES_HZ,
    db.map((level) => level + scaleDb),
    rateHz,
  );
}
