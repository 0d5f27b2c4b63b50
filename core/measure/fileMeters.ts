import type { ByteSource } from '../audio/byteSource.ts';
import { readSpan } from '../audio/readSamples.ts';
import type { WavLayout } from '../audio/wavFormat.ts';
import { ChannelMeter } from './channelMeter.ts';
import { type ChannelPair, ChannelPairs } from './channelPairs.ts';
import { chapterFrames } from './chapter.ts';
import { channelWeights, LoudnessMeter } from './loudness.ts';
import { type ChannelReport, type FileReport, type LevelSeries, type MeasureOptions, NOTHING_MARKED } from './report.types.ts';
import { FRAME_S } from './tracks/frames.ts';

/** A file measured: its report, the level over time of each channel, and how its channels go together. */
export interface MeasuredFile {
  report: FileReport;
  series: LevelSeries[];
  pairs: ChannelPair[];
  /** Programmes of the stereo pairs that were asked for, in their order. */
  stereo: FileReport['programme'][];
}

/** All meters of a file at work, shown its samples block by block; the file may still grow meanwhile. */
export class FileMeters {
  private readonly meters: ChannelMeter[];
  private readonly weights: number[];
  private readonly programme: LoudnessMeter;
  private readonly pairs: ChannelPairs;
  private readonly stereo: { channels: readonly [number, number]; meter: LoudnessMeter }[];
  private layout: WavLayout;

  /** @param lengthS how long the file is, or will be at most where that is not known yet */
  constructor(
    source: ByteSource,
    layout: WavLayout,
    private readonly options: MeasureOptions,
    lengthS: number = layout.format.durationS,
  ) {
    this.layout = layout;
    const { sampleRateHz, channels } = layout.format;
    const perChapter = chapterFrames(lengthS / FRAME_S, channels);
    this.meters = Array.from({ length: channels }, (_, channel) => {
      const look = (startS: number, seconds: number) => readSpan(source, this.layout, channel, Math.round(startS * sampleRateHz), Math.round(seconds * sampleRateHz));
      const marked = options.markedByChannel?.[channel] ?? NOTHING_MARKED;
      return new ChannelMeter({ sampleRateHz, lengthS, options, marked: { ...marked, roomTone: marked.roomTone ?? options.roomTone }, look }, perChapter);
    });
    this.weights = channelWeights(layout.channelMask, channels);
    this.pairs = new ChannelPairs(channels);
    this.stereo = (options.stereo ?? []).filter((pair) => pair.every((channel) => channel < channels)).map((pair) => ({ channels: pair, meter: new LoudnessMeter(1) }));
    this.programme = new LoudnessMeter(options.dualMono && channels === 1 ? 2 : 1);
  }

  push(channels: readonly Float64Array[], count: number): void {
    this.meters.forEach((meter, channel) => meter.push(channels[channel] as Float64Array, count));
    this.pairs.push(channels, count);
    // The frames of all channels come in step, since all see the same blocks.
    const fresh = this.meters.map((meter) => meter.loudnessFrames());
    const frames = fresh[0]?.length ?? 0;
    for (let frame = 0; frame < frames; frame++) {
      let sum = 0;
      for (let channel = 0; channel < fresh.length; channel++) sum += (this.weights[channel] as number) * ((fresh[channel] as Float64Array)[frame] as number);
      this.programme.push(sum);
      for (const {
        channels: [left, right],
        meter,
      } of this.stereo)
        meter.push(((fresh[left] as Float64Array)[frame] as number) + ((fresh[right] as Float64Array)[frame] as number));
    }
  }

  /**
   * @param layout the file as it is in the end
   * @param found samples that were no numbers, and frames that were read
   */
  finish(layout: WavLayout, { badSamples, frames }: { badSamples: number; frames: number }): MeasuredFile {
    this.layout = layout;
    const { format } = layout;
    const warnings = [...layout.warnings];
    if (badSamples > 0) warnings.push(`${badSamples} samples were not finite numbers and were taken as 0`);
    if (frames < format.frames) warnings.push('the file became shorter while it was read');
    if (this.options.roomTone && this.options.roomTone[0] >= format.durationS) warnings.push('the room tone that was marked lies after the end of the file');
    const channels = this.meters.map((meter, index) =>
      meter.finish(index, format.trackNames[index] ?? null, format.durationS, (message) => warnings.push(`channel ${index + 1}: ${message}`)),
    );
    const stereo = this.stereo.map(({ channels: pair, meter }) =>
      programmeOf(
        meter,
        channels.filter(({ index }) => pair.includes(index)),
      ),
    );
    const report = { format, programme: programmeOf(this.programme, channels), channels, warnings };
    return { report, series: this.meters.map((meter) => meter.series()), pairs: this.pairs.finish(), stereo };
  }
}

function programmeOf(meter: LoudnessMeter, channels: readonly ChannelReport[]): FileReport['programme'] {
  const peaks = channels.flatMap((channel) => channel.levels.truePeakDbtp ?? []);
  return {
    // Warnings of the programme repeat those of its channels, so they are not collected twice.
    ...meter.finish(() => undefined),
    truePeakDbtp: peaks.length > 0 ? Math.max(...peaks) : null,
  };
}
