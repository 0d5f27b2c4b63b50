import type { Cascade } from '../../audio/biquad.ts';
import { filled } from '../../audio/filled.ts';
import { GrowingArray } from '../../audio/growingArray.ts';

/** Length of the frames in which energies are kept, in seconds. */
export const FRAME_S = 0.01;
/** Length of the fine frames, in which breaks are sought. Five make one of {@link FRAME_S}. */
export const FINE_FRAME_S = 0.002;

/** The middles of so many frames, in seconds. */
export const frameTimesS = (count: number, startS: number): Float64Array => filled(count, (frame) => startS + (frame + 0.5) * FRAME_S);

/**
 * Mean squares of consecutive frames. Where a frame is not a whole number of samples, its borders fall
 * on the nearest sample, so that frames do not drift against the clock.
 */
export class FrameEnergies {
  private readonly means = new GrowingArray();
  private sum = 0;
  private inFrame = 0;
  private length: number;
  private finished = 0;

  /** @param filter what the samples pass before they are squared */
  constructor(
    private readonly sampleRateHz: number,
    private readonly frameS = FRAME_S,
    private readonly filter: Cascade | null = null,
  ) {
    this.length = this.nextLength();
  }

  private nextLength(): number {
    const step = this.frameS * this.sampleRateHz;
    return Math.round((this.finished + 1) * step) - Math.round(this.finished * step);
  }

  push(samples: Float64Array, frames: number): void {
    let at = 0;
    while (at < frames) {
      const end = Math.min(at + this.length - this.inFrame, frames);
      this.inFrame += end - at;
      this.sum += this.filter ? this.filter.energy(samples, at, end) : energyOf(samples, at, end);
      at = end;
      if (this.inFrame === this.length) {
        this.means.push(this.sum / this.length);
        this.finished++;
        this.sum = 0;
        this.inFrame = 0;
        this.length = this.nextLength();
      }
    }
  }

  /** Mean squares since the start or the last `clear`; an unfinished last frame is left out. */
  view(): Float64Array {
    return this.means.view();
  }

  /** Forgets the frames that were kept; the grid goes on. */
  clear(): void {
    this.means.clear();
  }
}

function energyOf(samples: Float64Array, from: number, to: number): number {
  let sum = 0;
  for (let index = from; index < to; index++) {
    const x = samples[index] as number;
    sum += x * x;
  }
  return sum;
}

/** Mean of a run of frames. */
export function meanOf(values: Float64Array, start: number, end: number): number {
  let sum = 0;
  for (let index = start; index < end; index++) sum += values[index] as number;
  return end > start ? sum / (end - start) : 0;
}

/** Means of `factor` frames each; a last incomplete one is left out. */
export function coarser(values: Float64Array, factor: number): Float64Array {
  return filled(Math.floor(values.length / factor), (index) => meanOf(values, index * factor, (index + 1) * factor));
}

/** Levels of frames in dB after a moving mean over `length` frames (odd), -150 at the lowest. */
export function smoothedDb(powers: Float64Array, length: number): Float64Array {
  const levels = new Float64Array(powers.length);
  const reach = (length - 1) / 2;
  let sum = 0;
  let count = 0;
  for (let index = -reach; index < powers.length; index++) {
    const enters = index + reach;
    const leaves = index - reach - 1;
    if (enters < powers.length) {
      sum += powers[enters] as number;
      count++;
    }
    if (leaves >= 0) {
      sum -= powers[leaves] as number;
      count--;
    }
    if (index >= 0) levels[index] = 10 * Math.log10(Math.max(sum / count, 1e-15));
  }
  return levels;
}

/** The value that a share of the values stays under, by rank. */
export function quantile(sorted: Float64Array, share: number): number {
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? -150;
}

/** Below this a file holds digital silence, which says nothing of a place. */
export const NOTHING_DB = -130;

/** The level that a share of the moments stays under, those of digital silence apart. */
export function usualLevel(levels: Float64Array, share: number): number {
  return quantile(Float64Array.from(levels.filter((level) => level > NOTHING_DB)).sort(), share);
}
