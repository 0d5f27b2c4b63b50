import { RATE_HZ } from './decoded.ts';

const SEAM_S = 0.3;

/** A piece of music again and again, its end faded into its beginning: a seam that could be heard would be a break. */
export function playedOn(piece: Float64Array, length: number): Float64Array {
  const seam = Math.min(Math.round(SEAM_S * RATE_HZ), piece.length >> 1);
  const out = new Float64Array(length + piece.length);
  for (let start = 0; start < length; start += piece.length - seam) {
    for (let index = 0; index < piece.length; index++) {
      const fromEdge = Math.min(1, (index + 0.5) / seam, (piece.length - index - 0.5) / seam);
      const gain = start === 0 && index < seam ? 1 : Math.sin((Math.PI / 2) * fromEdge);
      out[start + index] = (out[start + index] as number) + gain * (piece[index] as number);
    }
  }
  return out.subarray(0, length);
}
