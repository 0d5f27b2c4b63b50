import { GrowingBytes } from '@marvet/core/audio/growingBytes';
import { describe, expect, it } from 'vitest';
import { bandCells, bandPixels } from './bandPixels.ts';

/** Two bands over three steps; a byte is half a decibel. */
function picture() {
  const bytes = new GrowingBytes();
  for (const value of [200, 60, 130, 60, 60, 200]) bytes.push(value);
  return { stepS: 0.05, bandsHz: [100, 1000], levels: bytes.base64() };
}
const opaque = (pixels: Uint8ClampedArray) => Array.from({ length: pixels.length / 4 }, (_, pixel) => pixels[4 * pixel + 3]);

describe('the picture of bands over time', () => {
  it('is darkest where it is loudest, and paper where it is quietest', () => {
    const cells = bandCells(picture());
    expect([...cells.shades]).toEqual([1, 0, 0.5, 0, 0, 1]);
    expect(cells).toMatchObject({ bands: 2, steps: 3, topDbfs: -20, rangeDb: 70 });
  });

  it('has the high band on top and time to the right', () => {
    expect(opaque(bandPixels(bandCells(picture()), [0, 0.15], 3))).toEqual([0, 0, 255, 255, 128, 0]);
  });

  it('shows the loudest of the steps that fall into one column, and a part of it nearer', () => {
    expect(opaque(bandPixels(bandCells(picture()), [0, 0.15], 1))).toEqual([255, 255]);
    expect(opaque(bandPixels(bandCells(picture()), [0.1, 0.15], 2))).toEqual([255, 255, 0, 0]);
  });

  it('of nothing is nothing', () => {
    expect(bandCells({ stepS: 0.05, bandsHz: [], levels: '' }).steps).toBe(0);
  });
});
