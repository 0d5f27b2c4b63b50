import { Biquad } from '../audio/biquad.ts';
import { kWeighting } from '../audio/weighting.ts';
import type { ChannelContext, Family } from './family.ts';
import { FrameEnergies, meanOf } from './frames.ts';
import type { LoudnessGroup } from './report.types.ts';

const MOMENTARY_FRAMES = 40;
const SHORT_TERM_FRAMES = 300;
const HOP_FRAMES = 10;
const ABSOLUTE_GATE_LUFS = -70;
const OFFSET_LUFS = -0.691;

/** Two mono loudspeakers instead of one. */
export const DUAL_MONO_LU = 10 * Math.log10(2);

const loudnessOf = (power: number) => OFFSET_LUFS + 10 * Math.log10(power);

/** K-weighted energies of one channel; its loudness when it is judged as one front channel. */
export class Loudness implements Family<LoudnessGroup> {
  private readonly sections: Biquad[];
  private readonly energies: FrameEnergies;
  private readonly scratch = new Float64Array(16_384);
  private readonly gain: number;

  constructor({ sampleRateHz, options }: ChannelContext) {
    this.sections = kWeighting(sampleRateHz).map((section) => new Biquad(section));
    this.energies = new FrameEnergies(sampleRateHz);
    this.gain = options.dualMono ? 2 : 1;
  }

  push(samples: Float64Array, frames: number): void {
    let input = samples;
    for (const section of this.sections) {
      section.process(input, this.scratch, frames);
      input = this.scratch;
    }
    this.energies.push(this.scratch, frames);
  }

  finish(_before: unknown, warn: (message: string) => void): LoudnessGroup {
    return loudnessFigures(this.energies.view(), this.gain, warn);
  }

  /** K-weighted mean squares of 10 ms frames, for the programme's sum over channels. */
  frames(): Float64Array {
    return this.energies.view();
  }
}

/**
 * Loudness from K-weighted frame energies, channels already summed with their weights.
 * ITU-R BS.1770-5 Annex 1 (400 ms blocks, 75 % overlap, gates at -70 LUFS and -10 LU), EBU Tech 3341
 * (momentary 0.4 s, short-term 3 s, not gated) and Tech 3342 (loudness range). Maxima are taken at
 * every 10 ms, so that they do not depend on where a block happens to start.
 * @param gain factor on all energies
 */
export function loudnessFigures(frames: Float64Array, gain: number, warn: (message: string) => void): LoudnessGroup {
  if (frames.length < MOMENTARY_FRAMES) {
    warn('shorter than 0.4 s: loudness needs at least one block of 400 ms');
    return { integratedLufs: null, momentaryMaxLufs: null, shortTermMaxLufs: null, loudnessRangeLu: null };
  }
  const integratedLufs = integrated(frames, gain);
  if (integratedLufs === null) warn('nothing is louder than -70 LUFS: there is no integrated loudness');
  if (frames.length < SHORT_TERM_FRAMES) warn('shorter than 3 s: there is no short-term loudness and no loudness range');
  return {
    integratedLufs,
    momentaryMaxLufs: slidingMaximum(frames, MOMENTARY_FRAMES, gain),
    shortTermMaxLufs: frames.length < SHORT_TERM_FRAMES ? null : slidingMaximum(frames, SHORT_TERM_FRAMES, gain),
    loudnessRangeLu: frames.length < SHORT_TERM_FRAMES ? null : loudnessRange(frames, gain),
  };
}

function blockPowers(frames: Float64Array, length: number, gain: number): number[] {
  const powers: number[] = [];
  for (let start = 0; start + length <= frames.length; start += HOP_FRAMES) powers.push(meanOf(frames, start, start + length) * gain);
  return powers;
}

function gatedMean(powers: readonly number[], gateLufs: number): number | null {
  let sum = 0;
  let count = 0;
  for (const power of powers) {
    if (power > 0 && loudnessOf(power) > gateLufs) {
      sum += power;
      count++;
    }
  }
  return count > 0 ? sum / count : null;
}

function integrated(frames: Float64Array, gain: number): number | null {
  const powers = blockPowers(frames, MOMENTARY_FRAMES, gain);
  const ungated = gatedMean(powers, ABSOLUTE_GATE_LUFS);
  if (ungated === null) return null;
  const gated = gatedMean(powers, Math.max(ABSOLUTE_GATE_LUFS, loudnessOf(ungated) - 10));
  return gated === null ? null : loudnessOf(gated);
}

function slidingMaximum(frames: Float64Array, length: number, gain: number): number | null {
  let sum = 0;
  let largest = 0;
  for (let index = 0; index < frames.length; index++) {
    sum += frames[index] as number;
    if (index >= length) sum -= frames[index - length] as number;
    if (index >= length - 1 && sum > largest) largest = sum;
  }
  return largest > 0 ? loudnessOf((largest / length) * gain) : null;
}

/** EBU Tech 3342: spread of the short-term loudness between its 10th and 95th percentile, gated at -20 LU. */
function loudnessRange(frames: Float64Array, gain: number): number | null {
  const powers = blockPowers(frames, SHORT_TERM_FRAMES, gain);
  const ungated = gatedMean(powers, ABSOLUTE_GATE_LUFS);
  if (ungated === null) return null;
  const gate = Math.max(ABSOLUTE_GATE_LUFS, loudnessOf(ungated) - 20);
  const levels = powers
    .filter((power) => power > 0)
    .map(loudnessOf)
    .filter((level) => level > gate)
    .sort((a, b) => a - b);
  if (levels.length === 0) return null;
  const at = (fraction: number) => levels[Math.round((levels.length - 1) * fraction)] as number;
  return at(0.95) - at(0.1);
}

/** Weight of a channel in the programme: 1.41 for surround positions and 0 for LFE, where a mask says so. */
export function channelWeights(channelMask: number, channels: number): number[] {
  const LFE = 0x8;
  const SURROUND = 0x10 | 0x20 | 0x200 | 0x400;
  const positions: number[] = [];
  for (let bit = 1; bit <= 0x20000 && positions.length < channels; bit <<= 1) if (channelMask & bit) positions.push(bit);
  return Array.from({ length: channels }, (_, index) => {
    const position = positions[index] ?? 0;
    if (position & LFE) return 0;
    return position & SURROUND ? 1.41 : 1;
  });
}
