import type { RandomSource } from './random.ts';

/** Where a fault was laid. */
interface Laid {
  startS: number;
  endS: number;
}

const between = (random: RandomSource, from: number, to: number) => from + (to - from) * random.uniform();

function span(samples: Float64Array, rateHz: number, atS: number, lengthS: number): { start: number; end: number } & Laid {
  const start = Math.round(atS * rateHz);
  const end = Math.min(samples.length, start + Math.round(lengthS * rateHz));
  return { start, end, startS: start / rateHz, endS: end / rateHz };
}

/** A digital link that lost its data and says nothing. */
export function mute(samples: Float64Array, rateHz: number, atS: number, random: RandomSource): Laid {
  const { start, end, startS, endS } = span(samples, rateHz, atS, between(random, 0.006, 0.06));
  samples.fill(0, start, end);
  return { startS, endS };
}

/** A radio field that falls by 12 dB and comes back. */
export function fade(samples: Float64Array, rateHz: number, atS: number, random: RandomSource): Laid {
  const { start, end, startS, endS } = span(samples, rateHz, atS, between(random, 0.06, 0.25));
  const edge = 0.01 * rateHz;
  for (let index = start; index < end; index++) {
    const depth = Math.min(1, (index - start) / edge, (end - 1 - index) / edge);
    samples[index] = (samples[index] as number) * 10 ** ((-12 * depth) / 20);
  }
  return { startS, endS };
}

/** An analogue link whose squelch lets its noise through. */
export function burst(samples: Float64Array, rateHz: number, atS: number, random: RandomSource): Laid {
  const { start, end, startS, endS } = span(samples, rateHz, atS, between(random, 0.01, 0.06));
  const level = 10 ** (between(random, -26, -16) / 20);
  for (let index = start; index < end; index++) samples[index] = level * random.normal();
  return { startS, endS };
}

/** A digital link that plays its last block again for what is missing. */
export function repeat(samples: Float64Array, rateHz: number, atS: number, random: RandomSource): Laid {
  const block = Math.round(between(random, 0.005, 0.02) * rateHz);
  const { start, end, startS, endS } = span(samples, rateHz, atS, (block * (2 + Math.floor(3 * random.uniform()))) / rateHz);
  for (let index = start; index < end; index++) samples[index] = samples[start - block + ((index - start) % block)] as number;
  return { startS, endS };
}
