/** Samples of a stretch whose extremes are kept. */
export const STRETCH = 32;
const MOST_SAMPLES = 4096;

/** Highest and lowest sample of each stretch of the block last seen, so that whoever seeks peaks can pass over most of it. */
export class Extremes {
  readonly most = new Float64Array(MOST_SAMPLES / STRETCH);
  readonly least = new Float64Array(MOST_SAMPLES / STRETCH);

  push(samples: Float64Array, frames: number): void {
    for (let from = 0, stretch = 0; from < frames; from += STRETCH, stretch++) {
      const to = Math.min(frames, from + STRETCH);
      let most = Number.NEGATIVE_INFINITY;
      let least = Number.POSITIVE_INFINITY;
      for (let index = from; index < to; index++) {
        const value = samples[index] as number;
        if (value > most) most = value;
        if (value < least) least = value;
      }
      this.most[stretch] = most;
      this.least[stretch] = least;
    }
  }
}
