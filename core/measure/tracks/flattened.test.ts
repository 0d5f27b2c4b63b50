import { describe, expect, it } from 'vitest';
import { Cascade, lowPass } from '../../audio/biquad.ts';
import { openSampleBlock } from '../../audio/kernels/sampleBlock.ts';
import { resample } from '../../audio/resample.ts';
import { randomSource } from '../../simulate/random.ts';
import { mixed, whiteNoise } from '../../testing/signals.ts';
import { Crests, Flattened } from './flattened.ts';

const RATE_HZ = 48_000;

/** Vowels of changing loudness and pitch: pulses that ring in three formants, as a voice makes them. */
function voice(seed: number, lengthS = 12): Float64Array {
  const random = randomSource(seed);
  const out = new Float64Array(lengthS * RATE_HZ);
  let next = 0;
  let loudness = 1;
  for (let index = 0; index < out.length; index++) {
    if (index % (RATE_HZ / 4) === 0) loudness = 10 ** ((-26 * random.uniform()) / 20);
    if (index < next) continue;
    next = index + Math.round(RATE_HZ / (105 + 60 * random.uniform()));
    for (const [hz, level, ring] of [
      [550, 1, 0.004],
      [1500, 0.5, 0.002],
      [2600, 0.3, 0.0015],
    ] as const) {
      for (let after = 0; after < 700 && index + after < out.length; after++) {
        const at = after / RATE_HZ;
        out[index + after] = (out[index + after] as number) + 0.2 * loudness * level * Math.exp(-at / ring) * Math.sin(2 * Math.PI * hz * at);
      }
    }
  }
  return out;
}

function shareOf(samples: Float64Array, rateHz = RATE_HZ): number {
  const crests = new Crests(rateHz);
  const block = openSampleBlock();
  for (let start = 0; start < samples.length; start += 1000) {
    const count = Math.min(1000, samples.length - start);
    block.take(samples.subarray(start, start + count), count);
    crests.push(block, count);
  }
  const flattened = new Flattened();
  crests.levelsDbfs().forEach((level, frame) => {
    flattened.add(level, crests.nearShares()[frame] as number);
  });
  return flattened.share() ?? -1;
}

/** The loudest share of the samples held at the level that they pass. */
function clipped(samples: Float64Array, share: number): Float64Array {
  const limit = samples.map(Math.abs).sort()[Math.floor((1 - share) * samples.length)] as number;
  return samples.map((x) => Math.max(-limit, Math.min(limit, x)));
}

describe('peaks that were flattened in an earlier stage', () => {
  it.each([1, 2, 3, 4])('none on a clean voice, whatever its level (%i)', (seed) => {
    for (const gain of [1, 0.03]) expect(shareOf(voice(seed).map((x) => x * gain))).toBeLessThan(0.05);
  });

  it.each([1, 2, 3])('found after noise, a low-pass and resampling (%i)', (seed) => {
    const over = clipped(voice(seed), 0.06);
    const filtered = Float64Array.from(over);
    new Cascade([lowPass(12_000, Math.SQRT1_2, RATE_HZ)]).process(filtered, filtered, filtered.length);
    expect(shareOf(mixed(over, whiteNoise(-60, 12, seed)))).toBeGreaterThan(0.1);
    expect(shareOf(filtered)).toBeGreaterThan(0.1);
    expect(shareOf(resample(over, RATE_HZ, 44_100), 44_100)).toBeGreaterThan(0.1);
  });

  it('too little to judge is said to be so', () => {
    expect(new Flattened().share()).toBeNull();
  });
});
