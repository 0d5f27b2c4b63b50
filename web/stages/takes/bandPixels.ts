import { bytesOf } from '@marvet/core/audio/growingBytes';
import { LOWEST_PICTURE_DBFS, PICTURE_STEP_DB } from '@marvet/core/measure/bandPicture';
import type { BandPicture, Span } from '@marvet/core/measure/report.types';

/** The picture fades into the paper at its quietest twentieth, but not further than this under its loudest. */
const MOST_RANGE_DB = 70;
const QUIET_SHARE = 0.05;

/** How dark each cell of the picture is, 0 to 1, from the lowest band up, step by step. */
export interface BandCells {
  stepS: number;
  bands: number;
  steps: number;
  shades: Float32Array;
  /** Level at which a cell is darkest. */
  topDbfs: number;
  /** How far under that a cell is paper. */
  rangeDb: number;
}

/** Levels as shades: the loudest cell is darkest, the quietest are paper. */
export function bandCells({ stepS, bandsHz, levels }: BandPicture): BandCells {
  const bytes = bytesOf(levels);
  const most = bytes.reduce((peak, value) => Math.max(peak, value), 0);
  const quiet = bytes.slice().sort()[Math.floor(QUIET_SHARE * bytes.length)] ?? 0;
  const range = Math.max(1, Math.min(MOST_RANGE_DB / PICTURE_STEP_DB, most - quiet));
  const shades = Float32Array.from(bytes, (value) => Math.max(0, 1 - (most - value) / range));
  const bands = bandsHz.length;
  return { stepS, bands, steps: bands === 0 ? 0 : bytes.length / bands, shades, topDbfs: LOWEST_PICTURE_DBFS + most * PICTURE_STEP_DB, rangeDb: range * PICTURE_STEP_DB };
}

/**
 * The cells of a stretch as a picture of one pixel a column and a band, the highest band on top; where
 * several steps fall into a column the darkest is shown. All of it is black, more or less opaque: the theme does the rest.
 */
export function bandPixels(cells: BandCells, [fromS, toS]: Span, columns: number): Uint8ClampedArray<ArrayBuffer> {
  const { stepS, bands, steps, shades } = cells;
  const pixels = new Uint8ClampedArray(columns * bands * 4);
  for (let column = 0; column < columns; column++) {
    // A hair is added, since edges of columns and of steps often fall together.
    const at = (share: number) => (fromS + ((toS - fromS) * share) / columns) / stepS + 1e-6;
    const first = Math.max(0, Math.floor(at(column)));
    const end = Math.min(steps, Math.max(first + 1, Math.floor(at(column + 1))));
    for (let band = 0; band < bands; band++) {
      let shade = 0;
      for (let step = first; step < end; step++) shade = Math.max(shade, shades[step * bands + band] as number);
      pixels[((bands - 1 - band) * columns + column) * 4 + 3] = 255 * shade;
    }
  }
  return pixels;
}
