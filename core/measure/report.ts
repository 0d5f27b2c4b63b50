import type { ByteSource } from '../audio/byteSource.ts';
import { readBlocks } from '../audio/readSamples.ts';
import { readWavHeader } from '../audio/readWavHeader.ts';
import type { WavLayout } from '../audio/wavFormat.ts';
import { Activity } from './activity.ts';
import type { ChannelContext, Finished } from './family.ts';
import { Levels } from './levels.ts';
import { channelWeights, DUAL_MONO_LU, Loudness, loudnessFigures } from './loudness.ts';
import { Noise } from './noise.ts';
import { type ChannelReport, DEFAULT_MEASURE_OPTIONS, type FileReport, type LevelSeries, type MeasureOptions } from './report.types.ts';
import { Spectrum } from './spectrum.ts';

const SERIES_FRAMES = 5;
const SERIES_STEP_S = 0.05;
const LOWEST_DBFS = -120;

/** A file measured: its report, and the level over time of each channel. */
export interface MeasuredFile {
  report: FileReport;
  series: LevelSeries[];
}

/** Thrown when measuring was told to stop. */
export class MeasuringStopped extends Error {}

/**
 * Measures a WAVE file in a single pass over its samples.
 * @param onProgress gets the share done, 0 to 1, after every block; returning false stops the work
 * @throws WavError when the file cannot be read, MeasuringStopped when told to stop
 * @example measureFile(bufferSource(bytes)).report.channels[0].levels.truePeakDbtp
 */
export function measureFile(source: ByteSource, options: MeasureOptions = DEFAULT_MEASURE_OPTIONS, onProgress: (share: number) => boolean | void = () => true): MeasuredFile {
  const layout = readWavHeader(source);
  const { format } = layout;
  const meters = Array.from({ length: format.channels }, () => new ChannelMeter({ sampleRateHz: format.sampleRateHz, options }));
  let done = 0;
  let stopped = false;
  const { frames, badSamples } = readBlocks(source, layout, (channels, count) => {
    meters.forEach((meter, channel) => meter.push(channels[channel] as Float64Array, count));
    done += count;
    stopped = onProgress(done / format.frames) === false;
    return !stopped;
  });
  if (stopped) throw new MeasuringStopped('Measuring was stopped');
  const warnings = [...layout.warnings];
  if (badSamples > 0) warnings.push(`${badSamples} samples were not finite numbers and were taken as 0`);
  if (frames < format.frames) warnings.push('the file became shorter while it was read');
  const channels = meters.map((meter, index) => meter.finish(index, format.trackNames[index] ?? null, (message) => warnings.push(`channel ${index + 1}: ${message}`)));
  return {
    report: { format, programme: programmeOf(layout, meters, channels, options), channels, warnings },
    series: meters.map((meter) => meter.series()),
  };
}

/** All families at work on one channel. */
class ChannelMeter {
  private readonly levels: Levels;
  readonly loudness: Loudness;
  private readonly noise: Noise;
  private readonly activity: Activity;
  private readonly spectrum: Spectrum;

  constructor(context: ChannelContext) {
    this.levels = new Levels(context);
    this.loudness = new Loudness(context);
    this.noise = new Noise(context);
    this.activity = new Activity(context, () => this.noise.weightedFrames());
    this.spectrum = new Spectrum(context);
  }

  push(samples: Float64Array, frames: number): void {
    this.levels.push(samples, frames);
    this.loudness.push(samples, frames);
    this.activity.push(samples, frames);
    this.noise.push(samples, frames);
    this.spectrum.push(samples, frames);
  }

  finish(index: number, name: string | null, warn: (message: string) => void): ChannelReport {
    const before: Finished = {};
    const levels = this.levels.finish(before, warn);
    const loudness = this.loudness.finish(before, warn);
    before.loudness = loudness;
    const activity = this.activity.finish(before, warn);
    before.activity = activity;
    const noise = this.noise.finish(before, warn);
    const spectrum = this.spectrum.finish(before, warn);
    return { index, name, levels, loudness, activity, noise, spectrum };
  }

  series(): LevelSeries {
    const frames = this.noise.plainFrames();
    const rmsDbfs: number[] = [];
    for (let start = 0; start < frames.length; start += SERIES_FRAMES) {
      const step = frames.subarray(start, start + SERIES_FRAMES);
      const mean = step.reduce((sum, value) => sum + value, 0) / step.length;
      rmsDbfs.push(Math.round(Math.max(LOWEST_DBFS, 10 * Math.log10(Math.max(mean, 1e-30))) * 10) / 10);
    }
    return { stepS: SERIES_STEP_S, rmsDbfs };
  }
}

function programmeOf(layout: WavLayout, meters: readonly ChannelMeter[], channels: readonly ChannelReport[], options: MeasureOptions): FileReport['programme'] {
  const weights = channelWeights(layout.channelMask, layout.format.channels);
  const sum = new Float64Array(meters[0]?.loudness.frames().length ?? 0);
  meters.forEach((meter, channel) => {
    const frames = meter.loudness.frames();
    const weight = weights[channel] ?? 1;
    for (let index = 0; index < sum.length; index++) sum[index] = (sum[index] as number) + weight * (frames[index] as number);
  });
  const dualMono = options.dualMono && layout.format.channels === 1;
  const peaks = channels.flatMap((channel) => channel.levels.truePeakDbtp ?? []);
  return {
    // Warnings of the programme repeat those of its channels, so they are not collected twice.
    ...loudnessFigures(sum, dualMono ? 10 ** (DUAL_MONO_LU / 10) : 1, () => undefined),
    truePeakDbtp: peaks.length > 0 ? Math.max(...peaks) : null,
  };
}
