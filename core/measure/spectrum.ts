import { bandEdgesHz, THIRD_OCTAVE_HZ } from '../audio/bands.ts';
import { Biquad, lowPass } from '../audio/biquad.ts';
import { powerDb } from '../audio/decibel.ts';
import { GrowingArray } from '../audio/growingArray.ts';
import { PowerSpectrum, powerBetween } from '../audio/powerSpectrum.ts';
import type { ChannelContext, Family, Finished } from './family.ts';
import { SPECTRUM_GROUPS, type Span, type SpectrumGroup, type SpectrumGroupId } from './report.types.ts';

/** Bands below this come from the decimated signal, where bins are narrow enough for them. */
const CROSSOVER_HZ = 75;
const FRAME_S = 0.16;
const LOW_FRAME_S = 0.68;
const LOW_RATE_HZ = 3000;

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

const powerOfTwoFrom = (samples: number) => 2 ** Math.ceil(Math.log2(samples));

/** Band powers of every frame of one resolution, kept until words and pauses are known. */
class BandFrames {
  private readonly values = new GrowingArray(4096);
  private readonly centresS = new GrowingArray();
  private readonly spectrum: PowerSpectrum;

  constructor(
    readonly bandsHz: readonly number[],
    rateHz: number,
    private readonly frameS: number,
  ) {
    const size = powerOfTwoFrom(rateHz * frameS);
    const binHz = rateHz / size;
    const edges = bandsHz.map(bandEdgesHz);
    this.spectrum = new PowerSpectrum(size, (power, end) => {
      this.centresS.push((end - size / 2) / rateHz);
      for (const [low, high] of edges) this.values.push(powerBetween(power, binHz, low, high));
    });
    this.frameS = size / rateHz;
  }

  push(samples: Float64Array, frames: number): void {
    this.spectrum.push(samples, frames);
  }

  /** Mean power of each band over the frames whose middle `portion` lies in the spans by `share` or more. */
  mean(spans: readonly Span[] | null, portion: number, share: number): number[] | null {
    const values = this.values.view();
    const reachS = (this.frameS * portion) / 2;
    const sums = new Array<number>(this.bandsHz.length).fill(0);
    let count = 0;
    this.centresS.view().forEach((centre, frame) => {
      if (spans && overlapShare(spans, centre - reachS, centre + reachS) < share) return;
      count++;
      for (let band = 0; band < sums.length; band++) sums[band] = (sums[band] as number) + (values[frame * sums.length + band] as number);
    });
    return count > 0 ? sums.map((sum) => sum / count) : null;
  }
}

function overlapShare(spans: readonly Span[], startS: number, endS: number): number {
  let covered = 0;
  for (const [from, to] of spans) covered += Math.max(0, Math.min(to, endS) - Math.max(from, startS));
  return covered / (endS - startS);
}

/**
 * Third-octave spectra of words and of pauses (IEC 61260-1 bands, base ten) from the power spectrum.
 * Bands are means of squares in dBFS, a full-scale sine being -3.01. Bands under 75 Hz are taken from
 * the signal decimated to about 3 kHz in frames of 0.68 s, the others in frames of 0.16 s or more.
 */
export class Spectrum implements Family<SpectrumGroup> {
  private readonly high: BandFrames;
  private readonly low: BandFrames;
  private readonly decimation: number;
  private readonly smoothing: Biquad[];
  private readonly scratch = new Float64Array(16_384);
  private readonly decimated = new Float64Array(16_384);
  private phase = 0;

  constructor({ sampleRateHz }: ChannelContext) {
    const audible = THIRD_OCTAVE_HZ.filter((hz) => bandEdgesHz(hz)[1] <= sampleRateHz / 2);
    this.decimation = Math.max(1, Math.floor(sampleRateHz / LOW_RATE_HZ));
    this.high = new BandFrames(
      audible.filter((hz) => hz >= CROSSOVER_HZ),
      sampleRateHz,
      FRAME_S,
    );
    this.low = new BandFrames(
      audible.filter((hz) => hz < CROSSOVER_HZ),
      sampleRateHz / this.decimation,
      LOW_FRAME_S,
    );
    // Fourth-order Butterworth at 250 Hz: what folds into the low bands is more than 80 dB down.
    this.smoothing = [0.5411961, 1.306563].map((q) => new Biquad(lowPass(250, q, sampleRateHz)));
  }

  push(samples: Float64Array, frames: number): void {
    this.high.push(samples, frames);
    let input = samples;
    for (const section of this.smoothing) {
      section.process(input, this.scratch, frames);
      input = this.scratch;
    }
    let kept = 0;
    for (let index = this.phase; index < frames; index += this.decimation) this.decimated[kept++] = this.scratch[index] as number;
    this.phase = this.phase + kept * this.decimation - frames;
    this.low.push(this.decimated, kept);
  }

  finish(before: Finished, warn: (message: string) => void): SpectrumGroup {
    const speech = before.activity?.speech ?? [];
    const pause = before.activity?.pause ?? [];
    const wholePower = this.bands(null, 1, 0);
    const speechPower = speech.length > 0 ? this.bands(speech, 0.5, 0.5) : null;
    const pausePower = speech.length > 0 ? this.pauseBands(pause) : wholePower;
    if (!wholePower) warn('shorter than one spectral frame: there is no spectrum');
    else if (!pausePower) warn('pauses are too short for a spectrum of their own');
    const nothing = THIRD_OCTAVE_HZ.map(() => null);
    const toDb = (power: (number | null)[] | null) => power?.map((value) => (value === null ? null : powerDb(value))) ?? nothing;
    const judged = speechPower ?? wholePower;
    return {
      bandsHz: [...THIRD_OCTAVE_HZ],
      speechDb: toDb(speechPower),
      pauseDb: toDb(pausePower),
      tiltDbPerOctave: judged && tilt(toDb(judged)),
      groups: groupsOf(judged),
    };
  }

  /** Frames wholly inside a pause where there are any; else those that touch words only with their faint ends. */
  private pauseBands(pause: readonly Span[]): (number | null)[] | null {
    return this.bands(pause, 1, 0.999) ?? this.bands(pause, 0.75, 0.999) ?? this.bands(pause, 0.5, 0.95);
  }

  private bands(spans: readonly Span[] | null, portion: number, share: number): (number | null)[] | null {
    const high = this.high.mean(spans, portion, share);
    if (!high) return null;
    const low = this.low.mean(spans, Math.min(portion, 0.75), share * 0.75) ?? this.low.mean(spans, 0.5, share * 0.5);
    const all = [...this.low.bandsHz.map((_, index) => low?.[index] ?? null), ...high];
    return THIRD_OCTAVE_HZ.map((_, index) => all[index] ?? null);
  }
}

/** Slope of the band levels from 125 Hz to 8 kHz by least squares, in dB per octave. */
function tilt(bandsDb: readonly (number | null)[]): number | null {
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

/** Power of each tonal group relative to the whole; bands across an edge are shared out by their width. */
function groupsOf(power: readonly (number | null)[] | null): SpectrumGroup['groups'] {
  const whole = power?.reduce<number>((sum, value) => sum + (value ?? 0), 0) ?? 0;
  const entries = SPECTRUM_GROUPS.map((id) => {
    const [low, high] = GROUP_EDGES_HZ[id];
    let sum = 0;
    THIRD_OCTAVE_HZ.forEach((hz, index) => {
      const [from, to] = bandEdgesHz(hz);
      const overlap = Math.min(to, high) - Math.max(from, low);
      if (overlap > 0) sum += ((power?.[index] ?? 0) * overlap) / (to - from);
    });
    return [id, whole > 0 ? powerDb(sum / whole) : null] as const;
  });
  return Object.fromEntries(entries) as SpectrumGroup['groups'];
}
