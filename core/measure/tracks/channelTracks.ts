import { bandEdgesHz, THIRD_OCTAVE_HZ } from '../../audio/bands.ts';
import { Cascade, cascadeDb, highPass, lowPass } from '../../audio/biquad.ts';
import { Decimator } from '../../audio/decimator.ts';
import { openSampleBlock } from '../../audio/kernels/sampleBlock.ts';
import { BandTrack } from './bandTrack.ts';
import { Discontinuities } from './discontinuities.ts';
import { FlatTops } from './flatTops.ts';
import { Crests } from './flattened.ts';
import { FRAME_S, FrameEnergies } from './frames.ts';
import { Moments } from './moments.ts';
import { Repeats } from './repeats.ts';
import { Voicing } from './voicing.ts';
import { WeightedEnergies } from './weightedEnergies.ts';

const BLOCK = 4096;
const LEAST_MID_RATE_HZ = 5500;
const LOW_DECIMATION = 4;
/** Bands from here up come from frames of some 20 ms, a quarter overlapped; those from {@link LOW_END_HZ} up from frames of 0.17 s. */
const MID_END_HZ = 565;
const LOW_END_HZ = 75;

/** Poles of a fourth-order Butterworth low-pass as two sections. */
const BUTTERWORTH_Q = [0.5411961, 1.306563] as const;

const butterworth = (hz: number, rateHz: number) => BUTTERWORTH_Q.map((q) => lowPass(hz, q, rateHz));

/** Columns of the high track before its third-octave bands: 250 to 630 Hz. */
export const EXTRA_COLUMNS = 1;

/**
 * All that the measures of a channel share, so that it is worked out once: energies of frames behind
 * several filters, band powers in three resolutions, and places where the wave breaks or is flat.
 */
export class ChannelTracks {
  /** The samples that were last taken up. */
  readonly block = openSampleBlock();
  readonly moments: Moments;
  /** Energies behind the A and the K weighting. */
  readonly weighted: WeightedEnergies;
  /** Mean squares of 10 ms from 15 to 60 Hz, under nearly all voices. */
  readonly sub: FrameEnergies;
  /** Mean squares of 10 ms from 80 to 300 Hz, where a voice has its fundamental. */
  readonly chest: FrameEnergies;
  /** Mean squares of 10 ms under 120 Hz. */
  readonly low: FrameEnergies;
  /** Mean squares of 10 ms under 250 Hz, where wind is. */
  readonly under250: FrameEnergies;
  /** 250-630 Hz and the third-octave bands from 630 Hz up, some 20 ms a frame. */
  readonly highBands: BandTrack;
  readonly midBands: BandTrack;
  readonly lowBands: BandTrack;
  readonly breaks: Discontinuities;
  readonly repeats: Repeats;
  /** How much the sound repeats itself at a voice's pitch. */
  readonly voicing: Voicing;
  readonly flatTops = new FlatTops();
  readonly crests: Crests;
  private readonly toMid: Decimator;
  private readonly lowSmoothing: Cascade;
  private readonly mid = new Float64Array(BLOCK);
  private readonly lowSamples = new Float64Array(BLOCK);

  constructor(readonly sampleRateHz: number) {
    const halvings = Math.max(0, Math.floor(Math.log2(sampleRateHz / LEAST_MID_RATE_HZ)));
    const midRateHz = sampleRateHz / 2 ** halvings;
    this.toMid = new Decimator(halvings);
    const lowRateHz = midRateHz / LOW_DECIMATION;
    this.moments = new Moments(sampleRateHz);
    this.weighted = new WeightedEnergies(this.block, sampleRateHz);
    this.sub = new FrameEnergies(midRateHz, FRAME_S, new Cascade([...butterworth(60, midRateHz), highPass(15, Math.SQRT1_2, midRateHz)]));
    this.chest = new FrameEnergies(midRateHz, FRAME_S, new Cascade([highPass(90, 1, midRateHz), lowPass(300, Math.SQRT1_2, midRateHz)]));
    this.low = new FrameEnergies(midRateHz, FRAME_S, new Cascade([...butterworth(120, midRateHz), highPass(10, Math.SQRT1_2, midRateHz)]));
    this.under250 = new FrameEnergies(midRateHz, FRAME_S, new Cascade([...butterworth(250, midRateHz), highPass(10, Math.SQRT1_2, midRateHz)]));
    const lowFilter = butterworth(200, midRateHz);
    this.lowSmoothing = new Cascade(lowFilter);
    // The droop of the filters before the decimated signals is made good.
    const droop = (hz: number) => 10 ** (-this.toMid.gainDb(hz, sampleRateHz) / 10);
    const lowDroop = (hz: number) => droop(hz) * 10 ** (-cascadeDb(lowFilter, hz, midRateHz) / 10);
    const audible = THIRD_OCTAVE_HZ.filter((hz) => bandEdgesHz(hz)[1] <= sampleRateHz / 2);
    const bands = (from: number, to: number, factor: (hz: number) => number) =>
      audible.filter((hz) => hz >= from && hz < to).map((hz) => [...bandEdgesHz(hz), factor(hz)] as const);
    this.highBands = new BandTrack([[250, 630, 1], ...bands(MID_END_HZ, Number.POSITIVE_INFINITY, () => 1)], sampleRateHz, 0.02, 0.75);
    this.midBands = new BandTrack(bands(LOW_END_HZ, MID_END_HZ, droop), midRateHz, 0.16);
    this.lowBands = new BandTrack(bands(0, LOW_END_HZ, lowDroop), lowRateHz, 0.64);
    this.breaks = new Discontinuities(sampleRateHz);
    this.repeats = new Repeats(sampleRateHz);
    this.crests = new Crests(sampleRateHz);
    this.voicing = new Voicing(midRateHz);
  }

  /** Takes up at most {@link BLOCK} samples. */
  push(samples: Float64Array, frames: number): void {
    const { block } = this;
    block.take(samples, frames);
    block.extremes(frames);
    this.moments.push(block, frames);
    this.weighted.push(frames);
    this.highBands.push(samples, frames);
    this.breaks.push(block, frames);
    this.repeats.push(block, frames);
    this.crests.push(block, frames);
    this.flatTops.push(block, frames);
    const kept = this.toMid.process(samples, frames, this.mid);
    this.midBands.push(this.mid, kept);
    this.sub.push(this.mid, kept);
    this.chest.push(this.mid, kept);
    this.low.push(this.mid, kept);
    this.under250.push(this.mid, kept);
    this.voicing.push(this.mid, kept);
    this.lowBands.push(this.lowSamples, this.lowSmoothing.decimate(this.mid, this.lowSamples, kept, LOW_DECIMATION));
  }

  /** Brings what still waits for more; before a chapter is looked at. */
  flush(): void {
    for (const track of [this.highBands, this.midBands, this.lowBands, this.repeats]) track.flush();
  }

  /** Forgets what was kept, so that memory stays the same however long the file is. */
  clear(): void {
    for (const track of [
      this.moments,
      this.weighted,
      this.sub,
      this.chest,
      this.low,
      this.under250,
      this.highBands,
      this.midBands,
      this.lowBands,
      this.breaks,
      this.repeats,
      this.crests,
      this.voicing,
    ])
      track.clear();
  }
}
