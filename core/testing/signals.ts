import { bufferSource } from '../audio/byteSource.ts';
import { filled } from '../audio/filled.ts';
import { writeWav } from '../audio/writeWav.ts';
import { measureFile } from '../measure/report.ts';
import { DEFAULT_MEASURE_OPTIONS, type FileReport, type MeasureOptions } from '../measure/report.types.ts';
import { randomSource } from '../simulate/random.ts';

/** A sine of a given peak level. */
export function sine(frequencyHz: number, peakDbfs: number, lengthS: number, rateHz = 48_000, phaseDeg = 0): Float64Array {
  const amplitude = 10 ** (peakDbfs / 20);
  const phase = (phaseDeg * Math.PI) / 180;
  return filled(Math.round(lengthS * rateHz), (n) => amplitude * Math.sin((2 * Math.PI * frequencyHz * n) / rateHz + phase));
}

export function silence(lengthS: number, rateHz = 48_000): Float64Array {
  return new Float64Array(Math.round(lengthS * rateHz));
}

/** White Gaussian noise of a given RMS level. */
export function whiteNoise(rmsDbfs: number, lengthS: number, seed = 1, rateHz = 48_000): Float64Array {
  const random = randomSource(seed);
  const amplitude = 10 ** (rmsDbfs / 20);
  return filled(Math.round(lengthS * rateHz), () => amplitude * random.normal());
}

export function concat(...parts: Float64Array[]): Float64Array {
  const whole = new Float64Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

export function mixed(a: Float64Array, b: Float64Array): Float64Array {
  const both = Float64Array.from(a);
  for (let index = 0; index < Math.min(a.length, b.length); index++) both[index] = (both[index] as number) + (b[index] as number);
  return both;
}

/** The report of channels written as 64-bit float, so that storing adds nothing. */
export function reportOf(channels: Float64Array[], options: Partial<MeasureOptions> = {}, sampleRateHz = 48_000): FileReport {
  const bytes = writeWav(channels, { encoding: 'float', bitDepth: 64, sampleRateHz });
  return measureFile(bufferSource(bytes), { ...DEFAULT_MEASURE_OPTIONS, ...options }).report;
}

/** Words of noise over a floor; the floor sets the voice over noise. */
export function spoken(levelDbfs: number, floorDbfs: number, seed: number): Float64Array {
  const words = concat(
    silence(0.5),
    whiteNoise(levelDbfs, 0.9, seed),
    silence(0.4),
    whiteNoise(levelDbfs, 1.1, seed + 1),
    silence(0.4),
    whiteNoise(levelDbfs, 0.8, seed + 2),
    silence(0.5),
  );
  return mixed(words, whiteNoise(floorDbfs, words.length / 48_000, seed + 3));
}
