import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bufferSource } from '../../audio/byteSource.ts';
import { readWavHeader } from '../../audio/readWavHeader.ts';
import { writeWav } from '../../audio/writeWav.ts';
import type { LevelSeries } from '../../measure/report.types.ts';
import { concat, mixed, sine, whiteNoise } from '../../testing/signals.ts';
import { fileLevels } from './fileLevels.ts';
import { cutsAtPauses, pausesOf, SHORTEST_PASSAGE_S, SNAP_S, snapped, spansBetween } from './passages.ts';

const levelsOf = (channels: Float64Array[]) => {
  const source = bufferSource(writeWav(channels, { encoding: 'float', bitDepth: 32, sampleRateHz: 48_000 }));
  return fileLevels(source, readWavHeader(source));
};
/** Words at -25 dBFS, parted by pauses at -60. */
const words = (seed: number, lengthS: number) => whiteNoise(-25, lengthS, seed);
const pause = (seed: number, lengthS: number) => whiteNoise(-60, lengthS, seed);

describe('the level of a whole file', () => {
  it('is that of a sine, 3.01 dB under its peak', () => {
    const { stepS, rmsDbfs } = levelsOf([sine(1000, -20, 2)]);
    expect(stepS).toBe(0.05);
    expect(rmsDbfs).toHaveLength(40);
    for (const level of rmsDbfs) expect(level).toBeCloseTo(-23, 1);
  });

  it('is that of the loudest channel, whichever that is', () => {
    const [quiet, loud] = [sine(1000, -60, 1), sine(1000, -20, 1)];
    const { rmsDbfs } = levelsOf([concat(quiet, loud), concat(loud, quiet)]);
    expect(Math.min(...rmsDbfs)).toBeGreaterThan(-23.2);
  });

  it('has a last step that is shorter, and says silence as -120', () => {
    const { rmsDbfs } = levelsOf([concat(sine(1000, -20, 1.02), new Float64Array(4800))]);
    expect(rmsDbfs).toHaveLength(23);
    expect(rmsDbfs.at(-1)).toBe(-120);
  });
});

describe('a cut', () => {
  const levels = levelsOf([concat(words(1, 10), pause(2, 0.6), words(3, 10))]);

  it.each([9.6, 10.3, 11.2])('set at %f s lies in the pause from 10 to 10.6 s', (atS) => {
    const cut = snapped(atS, levels);
    expect(cut).toBeGreaterThan(10.05);
    expect(cut).toBeLessThan(10.55);
  });

  it('goes no further than a second', () => {
    expect(Math.abs(snapped(8.4, levels) - 8.4)).toBeLessThanOrEqual(SNAP_S + 0.1);
    expect(snapped(8.4, levels)).toBeLessThan(9.6);
  });

  it('stays within the file, wherever it is set', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -120, max: 0, noNaN: true }), { minLength: 4, maxLength: 300 }), fc.double({ min: 0, max: 15, noNaN: true }), (rmsDbfs, atS) => {
        const series: LevelSeries = { stepS: 0.05, rmsDbfs };
        const cut = snapped(Math.min(atS, rmsDbfs.length * 0.05), series);
        expect(cut).toBeGreaterThanOrEqual(0);
        expect(cut).toBeLessThanOrEqual(rmsDbfs.length * 0.05 + 1e-9);
      }),
    );
  });
});

describe('pauses', () => {
  const passages = concat(words(1, 4), pause(2, 1.2), words(3, 3), pause(4, 2.5), words(5, 4), pause(6, 3));

  it('are found where they are, the end of the file none of them', () => {
    const found = pausesOf(levelsOf([passages]), 1);
    expect(found.map(([from, to]) => [Number(from.toFixed(1)), Number(to.toFixed(1))])).toEqual([
      [4, 5.2],
      [8.2, 10.7],
    ]);
    expect(cutsAtPauses(levelsOf([passages]), 2)).toHaveLength(1);
  });

  it('are none in steady noise, however loud, and none in what never pauses', () => {
    expect(pausesOf(levelsOf([whiteNoise(-30, 20)]), 0.3)).toEqual([]);
    expect(pausesOf(levelsOf([mixed(whiteNoise(-30, 20), sine(80, -20, 20))]), 0.3)).toEqual([]);
  });
});

describe('passages between cuts', () => {
  it('cover the file without a gap, each long enough for a word', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 60, noNaN: true }), { maxLength: 30 }), fc.double({ min: 1, max: 60, noNaN: true }), (cuts, lengthS) => {
        const spans = spansBetween(
          cuts.filter((atS) => atS < lengthS),
          lengthS,
        );
        expect(spans[0]?.[0]).toBe(0);
        expect(spans.at(-1)?.[1]).toBe(lengthS);
        for (const [index, [from, to]] of spans.entries()) {
          expect(to - from).toBeGreaterThanOrEqual(SHORTEST_PASSAGE_S);
          if (index > 0) expect(from).toBe(spans[index - 1]?.[1]);
        }
      }),
    );
  });
});
