import { Cascade } from '../audio/biquad.ts';
import { kWeighting } from '../audio/weighting.ts';
import { ABSOLUTE_GATE_POWER, loudnessOf } from '../measure/loudness.ts';
import { LoudnessHistogram } from '../measure/loudnessHistogram.ts';
import type { Span } from '../measure/report.types.ts';
import { FrameEnergies } from '../measure/tracks/frames.ts';

const BLOCK_S = 0.4;
const HOP_S = 0.1;
const HOPS_A_BLOCK = BLOCK_S / HOP_S;
/** Noise between the words never takes more of the voice than this leaves. */
const LEAST_SHARE = 0.05;

/** Loudness of the voice alone in a passage that comes piece by piece. */
export class VoiceLoudness {
  private readonly energies: FrameEnergies;

  constructor(sampleRateHz: number) {
    this.energies = new FrameEnergies(sampleRateHz, HOP_S, new Cascade(kWeighting(sampleRateHz)));
  }

  push(samples: Float64Array): void {
    this.energies.push(samples, samples.length);
  }

  /**
   * In LUFS: that of ITU-R BS.1770-5 with both its gates, over the words only, less the power of what lies between them. Without
   * words it is that of all of the passage. A whole file's loudness would judge slates, room tone and engines along with the voice.
   * @param words stretches of words in seconds of the passage
   * @returns null where nothing reaches the absolute gate
   */
  lufs(words: readonly Span[]): number | null {
    const hops = this.energies.view();
    const spoken = new LoudnessHistogram(ABSOLUTE_GATE_POWER);
    let between = 0;
    let blocksBetween = 0;
    for (let at = 0; at < Math.max(1, hops.length - HOPS_A_BLOCK + 1); at++) {
      const block = hops.subarray(at, at + HOPS_A_BLOCK);
      if (block.length === 0) break;
      const power = block.reduce((sum, value) => sum + value, 0) / block.length;
      const [fromS, toS] = [at * HOP_S, at * HOP_S + BLOCK_S];
      const mostlyWords = words.some(([startS, endS]) => Math.min(endS, toS) - Math.max(startS, fromS) > BLOCK_S / 2);
      if (mostlyWords || words.length === 0) spoken.add(power);
      else if (words.every(([startS, endS]) => startS >= toS || endS <= fromS)) {
        between += power;
        blocksBetween++;
      }
    }
    const voice = spoken.gatedMean();
    if (voice === null) return null;
    const noise = blocksBetween > 0 ? between / blocksBetween : 0;
    return loudnessOf(Math.max(voice - noise, voice * LEAST_SHARE));
  }
}

/** Loudness of the voice alone in a passage that is at hand as a whole, see {@link VoiceLoudness.lufs}. */
export function voiceLoudnessLufs(samples: Float64Array, sampleRateHz: number, words: readonly Span[]): number | null {
  const voice = new VoiceLoudness(sampleRateHz);
  voice.push(samples);
  return voice.lufs(words);
}

/**
 * Loudness of channels that are heard together beside mono, which plays from both loudspeakers: the mean of their powers. Null where
 * none is heard.
 */
export function meanLoudnessLufs(channels: readonly (number | null)[]): number | null {
  const powers = channels.flatMap((lufs) => (lufs === null ? [] : [10 ** (lufs / 10)]));
  return powers.length === 0 ? null : 10 * Math.log10(powers.reduce((sum, power) => sum + power, 0) / channels.length);
}
