import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { openSampleBlock } from '../../audio/kernels/sampleBlock.ts';
import { MOST_SAMPLES } from '../../audio/kernels/sampleBlock.types.ts';
import { sine, whiteNoise } from '../../testing/signals.ts';
import { Moments } from './moments.ts';

/** Sums of a signal that comes in blocks of these sizes. */
function inBlocks(samples: Float64Array, sizes: readonly number[], rateHz = 48_000) {
  const moments = new Moments(rateHz);
  const block = openSampleBlock();
  const magnitudes: number[] = [];
  let at = 0;
  for (let piece = 0; at < samples.length; piece++) {
    const size = Math.min(sizes[piece % sizes.length] as number, samples.length - at);
    block.take(samples.subarray(at, at + size), size);
    moments.push(block, size);
    magnitudes.push(...moments.magnitudesOfBlock());
    at += size;
  }
  return { moments, magnitudes, meanSquares: [...moments.meanSquares()] };
}

describe('sums of a channel', () => {
  it('are the same however it is cut into blocks', () => {
    const samples = whiteNoise(-20, 0.3, 5);
    const whole = inBlocks(samples, [MOST_SAMPLES]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: MOST_SAMPLES }), { minLength: 1, maxLength: 6 }), (sizes) => {
        const { moments, magnitudes, meanSquares } = inBlocks(samples, sizes);
        expect(moments.count).toBe(samples.length);
        expect(moments.sum).toBeCloseTo(whole.moments.sum, 9);
        expect(moments.sumOfSquares).toBeCloseTo(whole.moments.sumOfSquares, 9);
        expect(magnitudes).toHaveLength(whole.magnitudes.length);
        magnitudes.forEach((value, index) => expect(value).toBeCloseTo(whole.magnitudes[index] as number, 12));
        meanSquares.forEach((value, index) => expect(value).toBeCloseTo(whole.meanSquares[index] as number, 12));
      }),
      { numRuns: 30 },
    );
  });

  it.each([8000, 44_100, 48_000, 96_000])('have a bin each millisecond and a frame each 10 ms at %i Hz', (rateHz) => {
    const samples = sine(100, -6, 1, rateHz);
    const { magnitudes, meanSquares } = inBlocks(samples, [4096], rateHz);
    expect(magnitudes).toHaveLength(1000);
    expect(meanSquares).toHaveLength(100);
  });

  it('of a sine at -6 dBFS have its mean square in every frame of whole periods', () => {
    const amplitude = 10 ** (-6 / 20);
    const { moments, meanSquares } = inBlocks(sine(100, -6, 0.5), [1000]);
    for (const value of meanSquares) expect(value).toBeCloseTo(amplitude ** 2 / 2, 6);
    expect(moments.sum / moments.count).toBeCloseTo(0, 9);
  });
});
