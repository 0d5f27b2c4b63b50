import type { ByteSource } from '../audio/byteSource.ts';
import { narrowed } from '../audio/narrowed.ts';
import { readBlocks, readSpan } from '../audio/readSamples.ts';
import { readWavHeader } from '../audio/readWavHeader.ts';
import { ChannelMeter } from './channelMeter.ts';
import { chapterFrames } from './chapter.ts';
import { channelWeights, LoudnessMeter } from './loudness.ts';
import { type ChannelReport, DEFAULT_MEASURE_OPTIONS, type FileReport, type LevelSeries, type MeasureOptions, NOTHING_MARKED } from './report.types.ts';
import { FRAME_S } from './tracks/frames.ts';

/** A file measured: its report, and the level over time of each channel. */
export interface MeasuredFile {
  report: FileReport;
  series: LevelSeries[];
}

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
  const layout = narrowed(readWavHeader(source), span);
  const { format } = layout;
  const { sampleRateHz, durationS: lengthS } = format;
  const perChapter = chapterFrames(lengthS / FRAME_S, format.channels);
  const meters = Array.from({ length: format.channels }, (_, channel) => {
    const look = (startS: number, seconds: number) => readSpan(source, layout, channel, Math.round(startS * sampleRateHz), Math.round(seconds * sampleRateHz));
    const marked = options.markedByChannel?.[channel] ?? NOTHING_MARKED;
    return new ChannelMeter({ sampleRateHz, lengthS, options, marked: { ...marked, roomTone: marked.roomTone ?? options.roomTone }, look }, perChapter);
  });
  const weights = channelWeights(layout.channelMask, format.channels);
  const programme = new LoudnessMeter(options.dualMono && format.channels === 1 ? 2 : 1);
  let done = 0;
  let stopped = false;
  const { frames, badSamples } = readBlocks(source, layout, (channels, count) => {
    meters.forEach((meter, channel) => meter.push(channels[channel] as Float64Array, count));
    addToProgramme(programme, meters, weights);
    done += count;
    stopped = onProgress(done / format.frames) === false;
    return !stopped;
  });
  if (stopped) throw new MeasuringStopped('Measuring was stopped');
  const warnings = [...layout.warnings];
  if (badSamples > 0) warnings.push(`${badSamples} samples were not finite numbers and were taken as 0`);
  if (frames < format.frames) warnings.push('the file became shorter while it was read');
  if (options.roomTone && options.roomTone[0] >= lengthS) warnings.push('the room tone that was marked lies after the end of the file');
  const channels = meters.map((meter, index) => meter.finish(index, format.trackNames[index] ?? null, (message) => warnings.push(`channel ${index + 1}: ${message}`)));
  return { report: { format, programme: programmeOf(programme, channels), channels, warnings }, series: meters.map((meter) => meter.series()) };
}

/** Sums the newest K-weighted frames of all channels. They come in step, since all channels see the same blocks. */
function addToProgramme(programme: LoudnessMeter, meters: readonly ChannelMeter[], weights: readonly number[]): void {
  const fresh = meters.map((meter) => meter.loudnessFrames());
  const count = fresh[0]?.length ?? 0;
  for (let frame = 0; frame < count; frame++) {
    let sum = 0;
    for (let channel = 0; channel < fresh.length; channel++) sum += (weights[channel] as number) * ((fresh[channel] as Float64Array)[frame] as number);
    programme.push(sum);
  }
}

function programmeOf(programme: LoudnessMeter, channels: readonly ChannelReport[]): FileReport['programme'] {
  const peaks = channels.flatMap((channel) => channel.levels.truePeakDbtp ?? []);
  return {
    // Warnings of the programme repeat those of its channels, so they are not collected twice.
    ...programme.finish(() => undefined),
    truePeakDbtp: peaks.length > 0 ? Math.max(...peaks) : null,
  };
}
