import { describe, expect, it } from 'vitest';
import { openSampleBlock } from '../../audio/kernels/sampleBlock.ts';
import { sine } from '../../testing/signals.ts';
import { FlatTops } from './flatTops.ts';

/** Flat tops of a signal that comes in blocks. */
function flatTopsOf(samples: Float64Array, pieces = 1024): FlatTops {
  const flats = new FlatTops();
  const block = openSampleBlock();
  for (let at = 0; at < samples.length; at += pieces) {
    const part = samples.subarray(at, Math.min(samples.length, at + pieces));
    block.take(part, part.length);
    block.extremes(part.length);
    flats.push(block, part.length);
  }
  return flats;
}
const clipped = (level: number, samples: Float64Array) => samples.map((value) => Math.max(-level, Math.min(level, value)));

describe('flat tops', () => {
  it('of a wave that is clipped stand in every crest, on both sides', () => {
    const flats = flatTopsOf(clipped(0.5, sine(100, 0, 0.1)));
    expect(flats.above.runs).toBe(10);
    expect(flats.below.runs).toBe(10);
    expect(flats.above.extreme).toBeCloseTo(0.5, 9);
  });

  it('are not in a whole wave, however loud', () => {
    expect(flatTopsOf(sine(997, 0, 0.5)).above.runs).toBe(0);
  });

  it('found early do not count once the wave goes further', () => {
    const samples = Float64Array.from([...clipped(0.3, sine(100, 0, 0.05)), ...sine(440, 0, 0.05)]);
    const flats = flatTopsOf(samples);
    expect(flats.above.runs).toBe(0);
    expect(flats.spells(0.9, 48_000)).toEqual([]);
  });

  it('are the same in blocks of any size', () => {
    const samples = clipped(0.7, sine(220, 0, 0.2));
    const runs = [256, 1024, 4096].map((block) => [flatTopsOf(samples, block).above.runs, flatTopsOf(samples, block).below.samples]);
    expect(new Set(runs.map(String)).size).toBe(1);
  });

  it('near each other are one spell, and apart are two', () => {
    const samples = new Float64Array(48_000);
    samples.set(clipped(0.5, sine(200, 0, 0.02)), 4800);
    samples.set(clipped(0.5, sine(200, 0, 0.02)), 30_000);
    const spells = flatTopsOf(samples).spells(0.1, 48_000);
    expect(spells).toHaveLength(2);
    expect(spells[0]?.startSample).toBeGreaterThanOrEqual(4800);
    expect(spells[0]?.endSample).toBeLessThanOrEqual(4800 + 960);
    expect(flatTopsOf(samples).spells(0.1, 48_000, 1)).toHaveLength(1);
  });

  it('of a wave that was cut deeper would have gone further', () => {
    const overshoot = (level: number) =>
      Math.max(
        ...flatTopsOf(clipped(level, sine(200, 0, 0.1)))
          .spells(0.01, 48_000)
          .map((spell) => spell.overshoot),
      );
    expect(overshoot(0.5)).toBeGreaterThan(overshoot(0.8));
    expect(overshoot(0.8)).toBeGreaterThan(overshoot(0.98));
  });
});
