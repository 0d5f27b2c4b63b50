import { Cascade } from '../biquad.ts';
import { HISTORY, MOST_IN_FRAME, MOST_SAMPLES, type SampleBlock, STRETCH, TAPS, THROUGH } from './sampleBlock.types.ts';

/** Puts a block behind the last samples of the one before. */
export function taking(all: Float64Array): SampleBlock['take'] {
  let before = 0;
  return (samples, frames) => {
    all.copyWithin(0, before, before + HISTORY);
    all.set(frames === samples.length ? samples : samples.subarray(0, frames), HISTORY);
    before = frames;
  };
}

/** The samples of a channel in plain TypeScript. */
export function plainSampleBlock(): SampleBlock {
  const all = new Float64Array(HISTORY + MOST_SAMPLES);
  const samples = all.subarray(HISTORY);
  const [most, least] = [new Float64Array(MOST_SAMPLES / STRETCH), new Float64Array(MOST_SAMPLES / STRETCH)];
  const frame = new Float64Array(MOST_IN_FRAME);
  const results = new Float64Array(3);
  const changes = new Float64Array(MOST_SAMPLES);
  let filters: [Cascade, Cascade] = [new Cascade([THROUGH]), new Cascade([THROUGH])];
  let phases: readonly Float64Array[] = [];
  return {
    samples,
    most,
    least,
    results,
    changes,
    take: taking(all),
    differ(count) {
      for (let at = 0; at < count; at++) changes[at] = (all[at + HISTORY] as number) - (all[at + HISTORY - 1] as number);
    },
    extremes(count) {
      for (let from = 0, stretch = 0; from < count; from += STRETCH, stretch++) {
        const to = Math.min(count, from + STRETCH);
        let [high, low] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
        for (let index = from; index < to; index++) {
          const x = samples[index] as number;
          if (x > high) high = x;
          if (x < low) low = x;
        }
        most[stretch] = high;
        least[stretch] = low;
      }
    },
    sums(from, to) {
      let [sum, magnitude, squares] = [0, 0, 0];
      for (let at = from; at < to; at++) {
        const x = samples[at] as number;
        sum += x;
        magnitude += Math.abs(x);
        squares += x * x;
      }
      results.set([sum, magnitude, squares]);
    },
    breaks(from, to) {
      let [largest, squares] = [0, 0];
      for (let at = from + HISTORY; at < to + HISTORY; at++) {
        const error = Math.abs((all[at] as number) - (all[at - 3] as number) + 3 * ((all[at - 2] as number) - (all[at - 1] as number)));
        if (error > largest) largest = error;
        squares += error * error;
      }
      results.set([largest, squares]);
    },
    setFilters(one, other) {
      filters = [new Cascade(one), new Cascade(other)];
    },
    weighted(from, to) {
      results[0] = filters[0].energy(samples, from, to);
      results[1] = filters[1].energy(samples, from, to);
    },
    setPhases(given) {
      phases = given;
    },
    peak(from, to) {
      let peak = 0;
      for (const phase of phases) {
        for (let start = from + HISTORY - TAPS + 1; start < to + HISTORY - TAPS + 1; start++) {
          let sum = 0;
          for (let tap = 0; tap < TAPS; tap++) sum += (all[start + tap] as number) * (phase[tap] as number);
          peak = Math.max(peak, Math.abs(sum));
        }
      }
      return peak;
    },
    gather(from, count, into) {
      frame.set(samples.subarray(from, from + count), into);
    },
    crests(count) {
      let [high, low] = [0, 0];
      for (let index = 0; index < count; index++) {
        const x = frame[index] as number;
        if (x > high) high = x;
        else if (x < low) low = x;
      }
      results.set([high, low]);
    },
    over(count, threshold, sign) {
      let found = 0;
      for (let index = 0; index < count; index++) if ((frame[index] as number) * sign > threshold) found++;
      return found;
    },
  };
}
