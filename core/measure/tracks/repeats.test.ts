import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filled } from '../../audio/filled.ts';
import { openSampleBlock } from '../../audio/kernels/sampleBlock.ts';
import { mixed, silence, sine, whiteNoise } from '../../testing/signals.ts';
import { type Repeat, Repeats } from './repeats.ts';

const RATE_HZ = 48_000;

function repeatsIn(samples: Float64Array, pieces = 4096): readonly Repeat[] {
  const repeats = new Repeats(RATE_HZ);
  const block = openSampleBlock();
  for (let start = 0; start < samples.length; start += pieces) {
    const part = samples.subarray(start, Math.min(samples.length, start + pieces));
    block.take(part, part.length);
    repeats.push(block, part.length);
  }
  repeats.flush();
  return repeats.view();
}

/** The last block of a link again, `times` over. */
function withRepeat(samples: Float64Array, atS: number, blockS: number, times: number): Float64Array {
  const out = Float64Array.from(samples);
  const [start, block] = [Math.round(atS * RATE_HZ), Math.round(blockS * RATE_HZ)];
  for (let index = 0; index < block * times; index++) out[start + index] = out[start - block + (index % block)] as number;
  return out;
}

/** Harmonics of 118 Hz that come and go, over room tone: exactly itself again in every period but for the noise. */
const buzz = mixed(
  filled(3 * RATE_HZ, (n) => {
    const at = n / RATE_HZ;
    let sum = 0;
    for (let harmonic = 1; harmonic < 20; harmonic++) sum += (0.1 / harmonic) * Math.sin(2 * Math.PI * 118 * harmonic * at + harmonic);
    return sum * Math.sin((Math.PI * (at % 0.4)) / 0.4) ** 2;
  }),
  whiteNoise(-66, 3, 8),
);

describe('blocks that a link plays again', () => {
  it.each([
    ['a voice', buzz],
    ['noise', whiteNoise(-50, 3, 2)],
  ])('are found in %s, from where they begin to where they end', (_what, sound) => {
    for (const [atS, blockS, times] of [
      [1.1, 0.006, 2],
      [1.53, 0.01, 3],
      [1.2, 0.02, 4],
    ] as const) {
      const found = repeatsIn(withRepeat(sound, atS, blockS, times));
      expect(found).toHaveLength(1);
      expect(Math.abs((found[0]?.startSample ?? 0) / RATE_HZ - atS)).toBeLessThan(0.002);
      expect(Math.abs((found[0]?.endSample ?? 0) / RATE_HZ - atS - blockS * times)).toBeLessThan(0.002);
    }
  });

  it('there are none in a voice, in noise, on a tone or in silence', () => {
    for (const sound of [buzz, whiteNoise(-40, 3, 5), sine(220, -20, 3), sine(1000, -20, 3), silence(2)]) expect(repeatsIn(sound)).toEqual([]);
  });

  it('there are none in hum of any mains or in a tone, however long, and one that follows a tone is found', () => {
    for (const hz of [50, 60, 100, 440, 1000]) expect(repeatsIn(sine(hz, -14, 8))).toEqual([]);
    const noise = whiteNoise(-40, 1, 5);
    const afterTone = filled(4 * RATE_HZ, (n) => (n < 3 * RATE_HZ ? 0.2 * Math.sin((2 * Math.PI * 997 * n) / RATE_HZ) : (noise[n - 3 * RATE_HZ] as number)));
    expect(repeatsIn(withRepeat(afterTone, 3.2, 0.012, 2))).toHaveLength(1);
  });

  it('are found alike however the samples come', () => {
    const sound = withRepeat(buzz, 1.1, 0.01, 3);
    fc.assert(
      fc.property(fc.integer({ min: 64, max: 4096 }), (block) => {
        expect(repeatsIn(sound, block)).toEqual(repeatsIn(sound));
      }),
      { numRuns: 10 },
    );
  });
});
