import type { ByteSource } from '../audio/byteSource.ts';
import { narrowed } from '../audio/narrowed.ts';
import { readBlocks } from '../audio/readSamples.ts';
import { readWavHeader } from '../audio/readWavHeader.ts';
import type { WavLayout } from '../audio/wavFormat.ts';
import { FileMeters, type MeasuredFile } from './fileMeters.ts';
import { DEFAULT_MEASURE_OPTIONS, type MeasureOptions } from './report.types.ts';

/** Thrown when measuring was told to stop. */
export class MeasuringStopped extends Error {}

/**
 * Measures a WAVE file in a single pass over its samples, in chapters of some minutes, so that memory
 * does not grow with the file. A few seconds of its pauses are looked at a second time.
 * @param onProgress gets the share done, 0 to 1, after every block; returning false stops the work
 * @param span a stretch of the file that is measured as if it were all of it
 * @throws WavError when the file cannot be read, MeasuringStopped when told to stop
 * @example measureFile(bufferSource(bytes)).report.channels[0].levels.truePeakDbtp
 */
export function measureFile(
  source: ByteSource,
  options: MeasureOptions = DEFAULT_MEASURE_OPTIONS,
  onProgress: (share: number) => boolean | void = () => true,
  span: readonly [startS: number | null, endS: number | null] = [null, null],
): MeasuredFile {
  return measureLayout(source, narrowed(readWavHeader(source), span), options, onProgress);
}

/** The same of a file, or a stretch of it, whose layout is known. */
export function measureLayout(source: ByteSource, layout: WavLayout, options: MeasureOptions, onProgress: (share: number) => boolean | void = () => true): MeasuredFile {
  const meters = new FileMeters(source, layout, options);
  let done = 0;
  let stopped = false;
  const read = readBlocks(source, layout, (channels, count) => {
    meters.push(channels, count);
    done += count;
    stopped = onProgress(done / layout.format.frames) === false;
    return !stopped;
  });
  if (stopped) throw new MeasuringStopped('Measuring was stopped');
  return meters.finish(layout, read);
}
