import { crossCorrelation, peakOf } from './correlate.ts';
import { type PairTrack, readAtTimes } from './track.ts';

/** How one channel lies against a reference: a moment t of the reference is at t + latencyS + t · drift of the channel. */
export interface Alignment {
  latencyS: number;
  drift: number;
  polarity: 1 | -1;
}

const ENVELOPE_STEP_S = 0.005;
/** Files may start this much apart; enough of both is looked at for the rest to overlap. */
const LONGEST_OFFSET_S = 600;
const COARSE_S = 660;
const LEAST_OVERLAP_S = 2;
const CANDIDATES = 4;
const ANCHOR_S = 0.6;
const MOST_ANCHORS = 24;
/** How far from the coarse lag the exact one may be. */
const REACH_S = 0.06;
const LEAST_PROMINENCE = 6;
/** Lags this near to the line agree with it; a talker who moves makes them wander by some tenths of a millisecond. */
const AGREE_S = 0.0015;
const [DECISIVE_SUPPORT, DECISIVE_SHARE] = [5, 0.6];
/** Phase counts most, strength a little: sharp peaks that noise does not swamp. */
const SHARPNESS = 0.8;
/** Lags that stay under this part of a sample all along are none: peaks are not found more finely. */
const SAME_CLOCK_SAMPLES = 0.005;

/**
 * Aligns a channel with a reference. Rough: the two level curves, whatever their gain and colour.
 * Exact: generalised cross-correlation of stretches of 0.6 s all over the file, each to a fraction of a
 * sample; a line through their lags gives latency and drift. Of several rough lags, no lag at all among them, the
 * one that most stretches agree on counts. Null when the two have nothing in common.
 */
export function align(channel: PairTrack, reference: PairTrack): Alignment | null {
  let best = exact(channel, reference, 0);
  if (!isDecisive(best)) {
    for (const roughS of roughLags(channel, reference)) {
      const found = exact(channel, reference, roughS);
      if (found && (!best || found.support > best.support)) best = found;
      if (isDecisive(found)) break;
    }
  }
  if (!best) return null;
  const { support: _support, of: _of, ...alignment } = best;
  return isSameClock(alignment, reference) ? { ...alignment, latencyS: 0, drift: 0 } : alignment;
}

/** An alignment, and how many stretches of the file agree on it. */
export interface Supported extends Alignment {
  support: number;
  /** Of how many that were tried. */
  of: number;
}

/** No other lag could have more on its side. */
function isDecisive(found: Supported | null): boolean {
  return found !== null && found.support >= DECISIVE_SUPPORT && found.support >= DECISIVE_SHARE * found.of;
}

function isSameClock({ latencyS, drift }: Alignment, { frames, sampleRateHz }: PairTrack): boolean {
  const lagsS = [latencyS, latencyS + (drift * frames) / sampleRateHz];
  return lagsS.every((lagS) => Math.abs(lagS) * sampleRateHz < SAME_CLOCK_SAMPLES);
}

function roughLags(channel: PairTrack, reference: PairTrack): number[] {
  const a = levelCurve(reference);
  const b = levelCurve(channel);
  const correlation = crossCorrelation(a, b, 0);
  const energyUpTo = (curve: Float64Array) => {
    const sums = new Float64Array(curve.length + 1);
    curve.forEach((value, index) => {
      sums[index + 1] = (sums[index] as number) + value * value;
    });
    return (from: number, to: number) => (sums[Math.max(0, Math.min(curve.length, to))] as number) - (sums[Math.max(0, Math.min(curve.length, from))] as number);
  };
  const energyA = energyUpTo(a);
  const energyB = energyUpTo(b);
  const reach = Math.round(LONGEST_OFFSET_S / ENVELOPE_STEP_S);
  const least = Math.min(Math.round(LEAST_OVERLAP_S / ENVELOPE_STEP_S), Math.floor(Math.min(a.length, b.length) / 2));
  const scored: { lag: number; score: number }[] = [];
  for (let lag = -reach; lag <= reach; lag++) {
    const overlap = Math.min(a.length, b.length - lag) - Math.max(0, -lag);
    if (overlap < least) continue;
    const norm = Math.sqrt(energyA(-lag, b.length - lag) * energyB(lag, a.length + lag));
    // A short overlap agrees by chance more easily.
    const trust = Math.sqrt(overlap / (overlap + 2 * least));
    if (norm > 0) scored.push({ lag, score: (Math.max(0, correlation.at(lag)) / norm) * trust });
  }
  scored.sort((x, y) => y.score - x.score);
  const chosen: number[] = [];
  for (const { lag } of scored) {
    if (chosen.every((other) => Math.abs(other - lag) * ENVELOPE_STEP_S > REACH_S)) chosen.push(lag);
    if (chosen.length === CANDIDATES) break;
  }
  return chosen.map((lag) => lag * ENVELOPE_STEP_S);
}

/** Level over time of the first minute or so, in dB above its own noise, mean taken off. */
function levelCurve(track: PairTrack): Float64Array {
  const perStep = Math.round(track.sampleRateHz * ENVELOPE_STEP_S);
  const steps = Math.floor(Math.min(track.frames, COARSE_S * track.sampleRateHz) / perStep);
  const powers = new Float64Array(steps);
  let last = 0;
  for (let step = 0; step < steps; step++) {
    const samples = track.read(step * perStep, perStep);
    let sum = 0;
    for (const x of samples) {
      // The difference leaves rumble out.
      sum += (x - last) ** 2;
      last = x;
    }
    powers[step] = sum / perStep;
  }
  const floor = Math.max(1e-16, (Float64Array.from(powers).sort()[Math.floor(steps * 0.2)] ?? 0) * 2);
  const levels = powers.map((power) => Math.log10(power + floor));
  const mean = levels.reduce((sum, level) => sum + level, 0) / Math.max(1, steps);
  return levels.map((level) => level - mean);
}

interface Anchor {
  atS: number;
  lagS: number;
  sign: 1 | -1;
}

/**
 * The alignment near a lag that is known to some hundredths of a second; null where no two stretches agree on one.
 * @param most so many stretches at most are looked at
 */
export function exact(channel: PairTrack, reference: PairTrack, roughS: number, most = MOST_ANCHORS): Supported | null {
  const lengthOf = (track: PairTrack) => track.frames / track.sampleRateHz;
  const fromS = Math.max(0, -roughS);
  const toS = Math.min(lengthOf(reference), lengthOf(channel) - roughS);
  const windowS = Math.min(ANCHOR_S, toS - fromS);
  if (windowS < 0.2) return null;
  const count = Math.max(1, Math.min(most, Math.floor((toS - fromS) / windowS)));
  const anchors: Anchor[] = [];
  let expectedS = roughS;
  for (let index = 0; index < count; index++) {
    const atS = fromS + (count === 1 ? 0 : ((toS - fromS - windowS) * index) / (count - 1));
    const anchor = anchorAt(channel, reference, atS, windowS, expectedS);
    if (!anchor) continue;
    anchors.push(anchor);
    // With a drift the lag wanders; the last one found is the better guess.
    expectedS = anchor.lagS;
  }
  if (anchors.length < Math.max(1, count * 0.25)) return null;
  const { latencyS, drift, kept } = line(anchors);
  // Noise has peaks as well, but nowhere the same: lags of one performance lie on a line.
  const agreeing = kept.filter(({ atS, lagS }) => Math.abs(lagS - latencyS - drift * atS) <= AGREE_S).length;
  if (count > 1 && agreeing < 2) return null;
  const sign = kept.reduce((sum, anchor) => sum + anchor.sign, 0);
  return { latencyS, drift, polarity: sign < 0 ? -1 : 1, support: agreeing, of: count };
}

function anchorAt(channel: PairTrack, reference: PairTrack, atS: number, windowS: number, expectedS: number): Anchor | null {
  const rateHz = reference.sampleRateHz;
  const start = Math.round(atS * rateHz);
  const length = Math.round(windowS * rateHz);
  const reach = Math.round(REACH_S * rateHz);
  const a = reference.read(start, length);
  const energy = a.reduce((sum, x) => sum + x * x, 0);
  if (energy === 0) return null;
  const b = readAtTimes(channel, start / rateHz + expectedS - reach / rateHz, 1 / rateHz, length + 2 * reach);
  const { lag, sign, prominence } = peakOf(crossCorrelation(a, b, SHARPNESS), 0, 2 * reach);
  if (prominence < LEAST_PROMINENCE) return null;
  return { atS: start / rateHz + windowS / 2, lagS: expectedS + (lag - reach) / rateHz, sign };
}

/** A line through the lags that outliers do not pull: the median slope first, then least squares on what lies near it. */
function line(anchors: readonly Anchor[]): { latencyS: number; drift: number; kept: Anchor[] } {
  const slopes: number[] = [];
  anchors.forEach((a, index) => {
    for (const b of anchors.slice(index + 1)) slopes.push((b.lagS - a.lagS) / (b.atS - a.atS));
  });
  const slope = slopes.length > 0 ? median(slopes) : 0;
  const offset = median(anchors.map(({ atS, lagS }) => lagS - slope * atS));
  const distances = anchors.map(({ atS, lagS }) => Math.abs(lagS - offset - slope * atS));
  const limit = Math.max(2e-5, 3 * median(distances));
  const kept = anchors.filter((_, index) => (distances[index] as number) <= limit);
  if (kept.length < 3) return { latencyS: offset, drift: slope, kept: [...anchors] };
  const meanAt = kept.reduce((sum, { atS }) => sum + atS, 0) / kept.length;
  const meanLag = kept.reduce((sum, { lagS }) => sum + lagS, 0) / kept.length;
  const variance = kept.reduce((sum, { atS }) => sum + (atS - meanAt) ** 2, 0);
  const drift = kept.reduce((sum, { atS, lagS }) => sum + (atS - meanAt) * (lagS - meanLag), 0) / variance;
  return { latencyS: meanLag - drift * meanAt, drift, kept };
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? (sorted[middle] as number) : ((sorted[middle - 1] as number) + (sorted[middle] as number)) / 2;
}
