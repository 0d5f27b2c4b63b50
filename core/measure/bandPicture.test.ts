import { describe, expect, it } from 'vitest';
import { bufferSource } from '../audio/byteSource.ts';
import { bytesOf } from '../audio/growingBytes.ts';
import { writeWav } from '../audio/writeWav.ts';
import { concat, silence, sine } from '../testing/signals.ts';
import { LOWEST_PICTURE_DBFS, PICTURE_STEP_DB } from './bandPicture.ts';
import { measureFile } from './report.ts';

function pictureOf(samples: Float64Array) {
  const [series] = measureFile(bufferSource(writeWav([samples], { encoding: 'float', bitDepth: 64, sampleRateHz: 48_000 }))).series;
  const { stepS, bandsHz, levels } = series!.bands!;
  const bytes = bytesOf(levels);
  const dbAt = (seconds: number, hz: number) =>
    LOWEST_PICTURE_DBFS + PICTURE_STEP_DB * bytes[Math.floor(seconds / stepS) * bandsHz.length + bandsHz.findIndex((each) => Math.abs(each / hz - 1) < 0.1)]!;
  return { dbAt, bandsHz, steps: bytes.length / bandsHz.length, stepS };
}

describe('the picture of third-octave levels over time', () => {
  it.each([100, 1000, 8000])('a tone of %i Hz with a peak of -20 dBFS lies in its band while it sounds, and nowhere else', (hz) => {
    const { dbAt } = pictureOf(concat(silence(1), sine(hz, -20, 1), silence(1)));
    expect(Math.abs(dbAt(1.5, hz) + 20 + 3.01)).toBeLessThanOrEqual(0.5);
    expect(dbAt(1.5, hz * 4)).toBeLessThan(-60);
    expect(dbAt(0.4, hz)).toBeLessThan(-80);
    expect(dbAt(2.6, hz)).toBeLessThan(-80);
  });

  it('covers the whole file in steps of 50 ms', () => {
    const { steps, stepS, bandsHz } = pictureOf(sine(440, -30, 3.2));
    expect(stepS).toBe(0.05);
    expect(steps).toBe(64);
    expect(bandsHz).toHaveLength(31);
  });
});
