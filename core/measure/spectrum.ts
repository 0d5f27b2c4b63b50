import { bandEdgesHz, THIRD_OCTAVE_HZ } from '../audio/bands.ts';
import { powerDb } from '../audio/decibel.ts';
import type { Chapter } from './chapter.types.ts';
import type { ChannelContext, Family, Finished, Warn } from './family.ts';
import { SPECTRUM_GROUPS, type Span, type SpectrumGroup, type SpectrumGroupId } from './report.types.ts';
import { withoutSpans } from './spans.ts';
import type { BandTrack } from './tracks/bandTrack.ts';
import { EXTRA_COLUMNS } from './tracks/channelTracks.ts';

/** Edges of the tonal groups in Hz. */
export const GROUP_EDGES_HZ: Record<SpectrumGroupId, [number, number]> = {
  rumbleDb: [20, 80],
  chestDb: [80, 250],
  boxDb: [250, 600],
  midDb: [600, 1500],
  presenceDb: [1500, 5000],
  sibilanceDb: [5000, 9000],
  airDb: [9000, 16000],
};

const SHORTEST_CLEAR_S = 0.05;
const ENOUGH_CLEAR = 0.3;

/** Mean band powers over the frames of one track whose middle `portion` lies in some spans by `share` or more. */
class SpanMean {
  private readonly sums: Float64Array;
  private count = 0;

  constructor(
    bands: number,
    private readonly portion: number,
    private readonly share: number,
  ) {
    this.sums = new Float64Array(bands);
  }

  add(track: BandTrack, spans: readonly Span[] | null): void {
    const times = track.times();
    const reachS = (track.frameS * this.portion) / 2;
    let first = 0;
    for (let frame = 0; frame < times.length; frame++) {
      const time = times[frame] as number;
      if (spans) {
        while (first < spans.length && (spans[first] as Span)[1] < time - reachS) first++;
        let shared = 0;
        for (let span = first; span < spans.length; span++) {
          const [from, to] = spans[span] as Span;
          if (from > time + reachS) break;
          shared += Math.max(0, Math.min(to, time + reachS) - Math.max(from, time - reachS));
        }
        if (shared < this.share * 2 * reachS) continue;
      }
      track.addTo(this.sums, frame);
      this.count++;
    }
  }

  mean(): Float64Array | null {
    return this.count > 0 ? this.sums.map((sum) => sum / this.count) : null;
  }
}

/** Mean spectra of one track: of everything, of words, and of pauses with less and less strictness. */
class TrackMeans {
  readonly whole: SpanMean;
  readonly speech: SpanMean;
  readonly pauses: SpanMean[];
  readonly between: SpanMean;

  constructor(private readonly track: BandTrack) {
    const bands = track.bands.length;
    this.whole = new SpanMean(bands, 1, 0);
    this.speech = new SpanMean(bands, 0.5, 0.5);
    this.between = new SpanMean(bands, 0.5, 0.999);
    // Frames wholly inside a pause where there are any; else those that touch words only with their faint ends.
    this.pauses = [new SpanMean(bands, 1, 0.999), new SpanMean(bands, 0.75, 0.999), new SpanMean(bands, 0.5, 0.95)];
  }

  settle(chapter: Chapter): void {
    this.whole.add(this.track, null);
    this.speech.add(this.track, clearWords(chapter));
    for (const pause of this.pauses) pause.add(this.track, chapter.pause);
    this.between.add(this.track, chapter.wordless);
  }

  pause(): Float64Array | null {
    for (const pause of this.pauses) {
      const mean = pause.mean();
      if (mean) return mean;
    }
    return null;
  }
}

/** Words without what events lay over them, as long as enough is left. */
function clearWords({ speech, events }: Chapter): Span[] {
  const clear = withoutSpans(
    speech,
    events.map(({ startS, endS }): Span => [startS, endS]),
    SHORTEST_CLEAR_S,
  );
  const lengthOf = (spans: readonly Span[]) => spans.reduce((sum, [from, to]) => sum + to - from, 0);
  return lengthOf(clear) >= ENOUGH_CLEAR * lengthOf(speech) ? clear : speech;
}

type Powers = (number | null)[];

/**
 * Third-octave spectra of words and of pauses (IEC 61260-1 bands, base ten) from the power spectrum.
 * Bands are means of squares in dBFS, a full-scale sine being -3.01. The lower a band, the longer the
 * frames it is taken from: some 20 ms from 630 Hz up, 0.17 s down to 80 Hz, 0.7 s below.
 */
export class Spectrum implements Family<SpectrumGroup> {
  private readonly low: TrackMeans;
  private readonly mid: TrackMeans;
  private readonly high: TrackMeans;

  constructor({ tracks }: ChannelContext) {
    this.low = new TrackMeans(tracks.lowBands);
    this.mid = new TrackMeans(tracks.midBands);
    this.high = new TrackMeans(tracks.highBands);
  }

  settle(chapter: Chapter): void {
    for (const means of [this.low, this.mid, this.high]) means.settle(chapter);
  }

  finish(before: Finished, warn: Warn): SpectrumGroup {
    const hasWords = (before.activity?.speech.length ?? 0) > 0;
    const whole = this.row((means) => means.whole.mean());
    const speech = hasWords ? this.row((means) => means.speech.mean()) : null;
    const pause = hasWords ? this.row((means) => means.pause()) : whole;
    if (!whole) warn('shorter than one spectral frame: there is no spectrum');
    else if (!pause) warn('pauses are too short for a spectrum of their own');
    const noise = hasWords ? (this.row((means) => means.between.mean()) ?? pause) : whole;
    const judged = speech ?? whole;
    return {
      bandsHz: [...THIRD_OCTAVE_HZ],
      speechDb: levelsOf(speech),
      pauseDb: levelsOf(pause),
      noiseDb: levelsOf(noise),
      tiltDbPerOctave: judged && tilt(levelsOf(judged)),
      groups: groupsOf(judged),
    };
  }

  /** All bands in order; null where a track has no frame of that kind, or the band lies too high for the rate. */
  private row(mean: (means: TrackMeans) => Float64Array | null): Powers | null {
    const high = mean(this.high);
    if (!high) return null;
    const part = (means: TrackMeans) => Array.from(mean(means) ?? Array.from(means.whole.mean() ?? [], () => Number.NaN));
    const all = [...part(this.low), ...part(this.mid), ...Array.from(high).slice(EXTRA_COLUMNS)];
    return THIRD_OCTAVE_HZ.map((_, index) => (Number.isFinite(all[index]) ? (all[index] as number) : null));
  }
}

const levelsOf = (powers: Powers | null): Powers => powers?.map((value) => (value === null ? null : powerDb(value))) ?? THIRD_OCTAVE_HZ.map(() => null);

/** Slope of the band levels from 125 Hz to 8 kHz by least squares, in dB per octave. */
function tilt(bandsDb: Powers): number | null {
  const points = THIRD_OCTAVE_HZ.flatMap((hz, index) => {
    const level = bandsDb[index] ?? null;
    return hz > 120 && hz < 8500 && level !== null ? [{ octave: Math.log2(hz / 1000), level }] : [];
  });
  if (points.length < 3) return null;
  const meanOctave = points.reduce((sum, point) => sum + point.octave, 0) / points.length;
  const meanLevel = points.reduce((sum, point) => sum + point.level, 0) / points.length;
  const covariance = points.reduce((sum, point) => sum + (point.octave - meanOctave) * (point.level - meanLevel), 0);
  return covariance / points.reduce((sum, point) => sum + (point.octave - meanOctave) ** 2, 0);
}

/** Power between two frequencies from a row of bands; bands across an edge are shared out by their width. */
export function bandSum(power: readonly (number | null)[], lowHz: number, highHz: number): number {
  return THIRD_OCTAVE_HZ.reduce((sum, hz, index) => {
    const [from, to] = bandEdgesHz(hz);
    const overlap = Math.min(to, highHz) - Math.max(from, lowHz);
    return overlap > 0 ? sum + ((power[index] ?? 0) * overlap) / (to - from) : sum;
  }, 0);
}

/** Power of each tonal group relative to the whole. */
function groupsOf(power: Powers | null): SpectrumGroup['groups'] {
  const whole = power?.reduce<number>((sum, value) => sum + (value ?? 0), 0) ?? 0;
  const entries = SPECTRUM_GROUPS.map((id) => [id, power && whole > 0 ? powerDb(bandSum(power, ...GROUP_EDGES_HZ[id]) / whole) : null] as const);
  return Object.fromEntries(entries) as SpectrumGroup['groups'];
}
