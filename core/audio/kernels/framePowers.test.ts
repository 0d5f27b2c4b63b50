import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { filled } from '../filled.ts';
import { type FramePowers, hannWindow, kernelFramePowers, plainFramePowers } from './framePowers.ts';

const noise = (size: number, seed: number) => {
  const random = randomSource(seed);
  return filled(2 * size, () => 2 * random.uniform() - 1);
};
const run = (powers: FramePowers, frames: Float64Array) => {
  powers.frames.set(frames);
  powers.run(1);
  return [Float64Array.from(powers.first), Float64Array.from(powers.second)] as const;
};

/** The transform as it is defined, term by term: slow, and beyond doubt. */
function powersByDefinition(frame: Float64Array): Float64Array {
  const size = frame.length;
  const window = hannWindow(size);
  return filled(size / 2 + 1, (bin) => {
    let [re, im] = [0, 0];
    for (let n = 0; n < size; n++) {
      re += (window[n] as number) * (frame[n] as number) * Math.cos((2 * Math.PI * bin * n) / size);
      im -= (window[n] as number) * (frame[n] as number) * Math.sin((2 * Math.PI * bin * n) / size);
    }
    return (re * re + im * im) * (bin === 0 || bin === size / 2 ? 2 : 4);
  });
}
const furthest = (one: Float64Array, other: Float64Array) => one.reduce((most, value, index) => Math.max(most, Math.abs(value - (other[index] as number))), 0);

describe.each([
  ['plain', plainFramePowers],
  ['with SIMD', kernelFramePowers],
] as const)('powers of two frames, %s', (_, open) => {
  it.each([8, 16, 32, 64, 128])('are those of the definition at %i samples', (size) => {
    const frames = noise(size, size);
    const powers = run(open(size)!, frames);
    [0, 1].forEach((frame) => {
      expect(furthest(powers[frame]!, powersByDefinition(frames.slice(frame * size, (frame + 1) * size)))).toBeLessThan(1e-9);
    });
  });
});

describe('the kernel', () => {
  it.each([256, 1024, 2048, 4096, 8192])('and its plain form agree within 1e-9 of the largest at %i samples', (size) => {
    const [plain, kernel] = [plainFramePowers(size), kernelFramePowers(size)!];
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const frames = noise(size, seed);
        const [one, other] = [run(plain, frames), run(kernel, frames)];
        const most = Math.max(...one[0], ...one[1]);
        for (const frame of [0, 1]) expect(furthest(one[frame]!, other[frame]!) / most).toBeLessThan(1e-9);
      }),
      { numRuns: 10 },
    );
  });

  it('is what its source compiles to', async () => {
    const { compiledKernel, KERNELS } = (await import('../../../scripts/kernels.mjs' as string)) as { compiledKernel(name: string): Promise<string>; KERNELS: string[] };
    for (const name of KERNELS) expect(readFileSync(new URL(`./${name}.wasm.ts`, import.meta.url), 'utf8')).toBe(await compiledKernel(name));
  });
});
