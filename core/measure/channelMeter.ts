import { BandPictures } from './bandPicture.ts';
import { understand } from './chapter.ts';
import { DecayFinder } from './decay.ts';
import { type Families, openFamilies } from './families.ts';
import type { ChannelContext, Family, Finished, Warn } from './family.ts';
import type { ChannelReport, LevelSeries } from './report.types.ts';
import { ChannelTracks } from './tracks/channelTracks.ts';
import { FRAME_S, meanOf } from './tracks/frames.ts';

/** The level over time is kept in steps of 50 ms, longer ones in files of more than 20 minutes. */
const SERIES_FRAMES = 5;
const MOST_STEPS = 24_000;
const LOWEST_DBFS = -120;

/** All families at work on one channel, chapter by chapter. */
export class ChannelMeter {
  private readonly context: ChannelContext;
  private readonly families: Families;
  private readonly working: Family<unknown>[];
  private readonly settling: Family<unknown>[];
  private readonly seriesFrames: number;
  private readonly seriesDbfs: number[] = [];
  private readonly decays = new DecayFinder();
  private readonly pictures: BandPictures;
  private chapter = 0;
  private samples = 0;

  private readonly framesPerChapter: number;

  /** @param chapterFrames length of a chapter in frames of 10 ms; rounded up to whole steps of the level over time */
  constructor(context: Omit<ChannelContext, 'tracks'>, chapterFrames: number) {
    this.context = { ...context, tracks: new ChannelTracks(context.sampleRateHz) };
    this.families = openFamilies(this.context);
    const all = Object.values(this.families) as Family<unknown>[];
    this.working = all.filter((family) => family.push);
    this.settling = all.filter((family) => family.settle);
    this.seriesFrames = Math.max(SERIES_FRAMES, Math.ceil(context.lengthS / FRAME_S / MOST_STEPS));
    this.pictures = new BandPictures(context.lengthS);
    this.framesPerChapter = Math.ceil(chapterFrames / this.seriesFrames) * this.seriesFrames;
  }

  push(samples: Float64Array, frames: number): void {
    this.families.loudness.forgetFresh();
    this.spread(samples, frames);
  }

  private spread(samples: Float64Array, frames: number): void {
    const untilEnd = this.chapterEnd() - this.samples;
    if (frames < untilEnd) {
      this.take(samples, frames);
      return;
    }
    this.take(samples, untilEnd);
    this.settle();
    if (frames > untilEnd) this.spread(samples.subarray(untilEnd), frames - untilEnd);
  }

  /** First sample of the next chapter, on the grid of the frames. */
  private chapterEnd(): number {
    return Math.round((this.chapter + 1) * this.framesPerChapter * FRAME_S * this.context.sampleRateHz);
  }

  private take(samples: Float64Array, frames: number): void {
    this.context.tracks.push(samples, frames);
    for (const family of this.working) family.push?.(samples, frames);
    this.samples += frames;
  }

  private settle(): void {
    const { tracks, marked } = this.context;
    const plain = tracks.moments.meanSquares();
    const chapter = understand(tracks, this.chapter * this.framesPerChapter * FRAME_S, marked, this.decays);
    for (const family of this.settling) family.settle?.(chapter);
    for (let start = 0; start < plain.length; start += this.seriesFrames) {
      const mean = meanOf(plain, start, Math.min(plain.length, start + this.seriesFrames));
      this.seriesDbfs.push(Math.round(Math.max(LOWEST_DBFS, 10 * Math.log10(Math.max(mean, 1e-30))) * 10) / 10);
    }
    this.pictures.settle(tracks, chapter.startS, chapter.endS);
    tracks.clear();
    this.chapter++;
  }

  /** K-weighted energies of the frames that the last block completed. */
  loudnessFrames(): Float64Array {
    return this.families.loudness.fresh();
  }

  /** @param lengthS how long the file turned out to be */
  finish(index: number, name: string | null, lengthS: number, warn: Warn): ChannelReport {
    this.context.lengthS = lengthS;
    this.settle();
    const found: Finished = {};
    for (const [group, family] of Object.entries(this.families)) Object.assign(found, { [group]: family.finish(found, warn) });
    return { index, name, ...(found as Omit<ChannelReport, 'index' | 'name'>) };
  }

  /** RMS of every step; at the end of a chapter a step may be shorter. */
  series(): LevelSeries {
    return { stepS: this.seriesFrames * FRAME_S, rmsDbfs: this.seriesDbfs, bands: this.pictures.finish() };
  }
}
