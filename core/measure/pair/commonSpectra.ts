import type { Alignment } from './align.ts';
import { type BothSpectra, BothTransform } from './bothSpectra.ts';
import { type PairTrack, readAtTimes } from './track.ts';

const FRAME_S = 0.085;
/** Stretches spread over what both have in common; more of the same talk changes little. */
const MOST_STRETCHES = 40;
const STRETCH_S = 2;
/** Frames this far under the loud ones are pauses, in which two channels have little to do with each other. */
const PAUSE_UNDER_DB = 25;
const SILENT_DB = -150;
/** Of all frames so many are taken as the noise between words, when they are so much quieter than words. */
const QUIET_SHARE = 0.12;
const LEAST_CONTRAST_DB = 8;

interface PairFrame {
  own: Float64Array;
  other: Float64Array;
  /** Of the reference. */
  level: number;
}

/** What two channels have over the words that they share, as powers by frequency. */
export interface CommonSpectra {
  own: Float64Array;
  other: Float64Array;
  /** The same between the words; null where nothing is quieter than the words. */
  ownNoise: Float64Array | null;
  otherNoise: Float64Array | null;
  /** What of the channel's power follows the reference. */
  coherent: Float64Array;
  /** How many frames of words it rests on. */
  frames: number;
  binHz: number;
}

/** Spectra of both over the loud frames of what they have in common, and the part of the one that the other explains. */
export function commonSpectra(channel: PairTrack, reference: PairTrack, alignment: Alignment): CommonSpectra | null {
  const rateHz = reference.sampleRateHz;
  const size = 2 ** Math.round(Math.log2(rateHz * FRAME_S));
  const frames: PairFrame[] = [];
  for (const { own: a, other: b } of commonStretches(channel, reference, alignment)) {
    for (let from = 0; from + size <= b.length; from += size / 2) {
      const other = b.subarray(from, from + size);
      frames.push({ own: a.subarray(from, from + size), other, level: 10 * Math.log10(other.reduce((sum, x) => sum + x * x, 0) / size + 1e-20) });
    }
  }
  const sorted = frames.map(({ level }) => level).sort((x, y) => x - y);
  const loud = sorted[Math.floor(frames.length * 0.95)] ?? 0;
  const quiet = sorted[Math.floor(frames.length * QUIET_SHARE)] ?? 0;
  const used = frames.filter(({ level }) => level > loud - PAUSE_UNDER_DB && level > SILENT_DB);
  if (used.length < 3) return null;
  // Digital silence is no noise, and what is hardly quieter than the words may be words.
  const between = quiet < loud - LEAST_CONTRAST_DB ? frames.filter(({ level }) => level <= quiet + 1) : null;
  const words = summed(used, size);
  const noise = between && summed(between, size);
  const coherent = words.own.map((power, bin) => {
    const product = power * (words.other[bin] as number);
    const coherence = product > 0 ? Math.min(1, ((words.re[bin] as number) ** 2 + (words.im[bin] as number) ** 2) / product) : 0;
    // A few frames agree by chance by one part in their number.
    return power * Math.max(0, (coherence - 1 / used.length) / (1 - 1 / used.length));
  });
  return { own: words.own, other: words.other, ownNoise: noise?.own ?? null, otherNoise: noise?.other ?? null, coherent, frames: used.length, binHz: rateHz / size };
}

/** Mean powers of both over some frames, and their cross power. */
function summed(frames: readonly PairFrame[], size: number): BothSpectra {
  const transform = new BothTransform(size);
  const [own, other, re, im] = Array.from({ length: 4 }, () => new Float64Array(size / 2 + 1)) as [Float64Array, Float64Array, Float64Array, Float64Array];
  for (const frame of frames) transform.addTo({ own, other, re, im }, frame.own, frame.other, 1 / frames.length);
  return { own, other, re, im };
}

/** Stretches of both, spread over what they have in common, on the reference's clock. */
export function* commonStretches(channel: PairTrack, reference: PairTrack, { latencyS, drift }: Alignment): Generator<{ atS: number; own: Float64Array; other: Float64Array }> {
  const rateHz = reference.sampleRateHz;
  const count = Math.round(STRETCH_S * rateHz);
  for (const startS of stretches(channel, reference, latencyS)) {
    const atS = Math.round(startS * rateHz) / rateHz;
    yield { atS, own: readAtTimes(channel, atS + latencyS + drift * atS, (1 + drift) / rateHz, count), other: reference.read(Math.round(startS * rateHz), count) };
  }
}

/** Starts of the stretches in the reference, evenly over what both have. */
function stretches(channel: PairTrack, reference: PairTrack, latencyS: number): number[] {
  const fromS = Math.max(0, -latencyS);
  const toS = Math.min(reference.frames / reference.sampleRateHz, channel.frames / channel.sampleRateHz - latencyS) - STRETCH_S;
  if (toS <= fromS) return [Math.max(0, fromS)];
  const count = Math.min(MOST_STRETCHES, Math.floor((toS - fromS) / STRETCH_S) + 1);
  return Array.from({ length: count }, (_, index) => fromS + (count === 1 ? 0 : ((toS - fromS) * index) / (count - 1)));
}
