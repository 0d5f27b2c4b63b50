import FFT from 'fft.js';
import { filled } from '../audio/filled.ts';
import type { RandomSource } from './random.ts';

/** Envelope that rises with one time and falls with another. */
function follower(rateHz: number, attackS: number, releaseS: number): (x: number) => number {
  const up = 1 - Math.exp(-1 / (attackS * rateHz));
  const down = 1 - Math.exp(-1 / (releaseS * rateHz));
  let held = 0;
  return (x) => {
    const magnitude = Math.abs(x);
    held += (magnitude > held ? up : down) * (magnitude - held);
    return held;
  };
}

/**
 * Automatic level: gain falls at once when the voice passes the target and comes back at a steady rate,
 * up to a limit, so that room tone rises between words.
 * @returns the samples and the gain of each, in dB
 */
export function automaticLevel(
  samples: Float64Array,
  rateHz: number,
  { targetDbfs, recoveryDbPerS, mostGainDb }: { targetDbfs: number; recoveryDbPerS: number; mostGainDb: number },
): { samples: Float64Array; gainDb: Float64Array } {
  const level = follower(rateHz, 0.005, 0.05);
  const target = 10 ** (targetDbfs / 20);
  const step = recoveryDbPerS / rateHz;
  let gain = mostGainDb;
  const gainDb = new Float64Array(samples.length);
  const out = samples.map((x, index) => {
    const wanted = Math.min(mostGainDb, 20 * Math.log10(target / Math.max(level(x), 1e-9)));
    gain = wanted < gain ? Math.max(wanted, gain - 400 / rateHz) : Math.min(wanted, gain + step);
    gainDb[index] = gain;
    return x * 10 ** (gain / 20);
  });
  return { samples: out, gainDb };
}

/** The loudest share of the samples held at the level that they pass: an input stage that was set too hot. */
export function flattened(samples: Float64Array, share: number): Float64Array {
  const loud = samples.map(Math.abs).sort();
  const limit = loud[Math.floor((1 - share) * loud.length)] as number;
  return samples.map((x) => Math.max(-limit, Math.min(limit, x)));
}

/**
 * A gate that closes some time after the sound that opens it is over.
 * @param key what opens it: the sound itself, or the voice in it
 */
export function gated(
  samples: Float64Array,
  key: Float64Array,
  rateHz: number,
  { opensAtDbfs, depthDb, holdS, releaseS }: { opensAtDbfs: number; depthDb: number; holdS: number; releaseS: number },
): Float64Array {
  const open = 10 ** (opensAtDbfs / 20);
  const closed = 10 ** (-depthDb / 20);
  const step = closed ** (1 / (releaseS * rateHz));
  let held = 0;
  let gain = closed;
  return samples.map((x, index) => {
    held = Math.abs(key[index] ?? 0) > open ? holdS * rateHz : held - 1;
    gain = held > 0 ? 1 : Math.max(closed, gain * step);
    return x * gain;
  });
}

/** Peak limiter with a short look ahead: nothing passes the ceiling, and nothing is flattened. */
export function limited(samples: Float64Array, rateHz: number, ceilingDbfs: number): Float64Array {
  const ceiling = 10 ** (ceilingDbfs / 20);
  const ahead = Math.round(0.002 * rateHz);
  const release = Math.exp(-1 / (0.08 * rateHz));
  const wanted = samples.map((x) => Math.min(1, ceiling / Math.max(Math.abs(x), 1e-12)));
  let gain = 1;
  return samples.map((x, index) => {
    let least = 1;
    for (let near = index; near < Math.min(samples.length, index + ahead); near++) least = Math.min(least, wanted[near] as number);
    gain = Math.min(least, 1 - (1 - gain) * release);
    return x * gain;
  });
}

/**
 * Noise reduction by spectral gating: in frames of 21 ms every bin that does not stand out of the noise
 * is turned down, which leaves the noise lower and the ends of words thinner.
 * @param noise a stretch of room tone to learn from
 */
export function spectrallyGated(samples: Float64Array, noise: Float64Array, reductionDb: number): Float64Array {
  const size = 1024;
  const half = size / 2;
  const fft = new FFT(size);
  const window = filled(size, (index) => Math.sin((Math.PI * (index + 0.5)) / size));
  const block = fft.createComplexArray() as number[];
  const spectrum = fft.createComplexArray() as number[];
  const transform = (from: Float64Array, start: number) => {
    for (let index = 0; index < size; index++) {
      block[2 * index] = (from[start + index] ?? 0) * (window[index] as number);
      block[2 * index + 1] = 0;
    }
    fft.transform(spectrum, block);
  };
  const floor = new Float64Array(size);
  let frames = 0;
  for (let start = 0; start + size <= noise.length; start += half) {
    transform(noise, start);
    for (let bin = 0; bin < size; bin++) floor[bin] = (floor[bin] as number) + magnitudeAt(spectrum, bin);
    frames++;
  }
  const least = 10 ** (-reductionDb / 20);
  const gains = new Float64Array(size).fill(1);
  const out = new Float64Array(samples.length);
  for (let start = -half; start < samples.length; start += half) {
    transform(samples, start);
    for (let bin = 0; bin < size; bin++) {
      const magnitude = magnitudeAt(spectrum, bin);
      const wanted = Math.max(least, 1 - (1.6 * (floor[bin] as number)) / Math.max(1, frames) / Math.max(magnitude, 1e-12));
      gains[bin] = 0.5 * (gains[bin] as number) + 0.5 * wanted;
      spectrum[2 * bin] = (spectrum[2 * bin] as number) * (gains[bin] as number);
      spectrum[2 * bin + 1] = (spectrum[2 * bin + 1] as number) * (gains[bin] as number);
    }
    fft.inverseTransform(block, spectrum);
    for (let index = 0; index < size; index++) {
      const at = start + index;
      if (at >= 0 && at < out.length) out[at] = (out[at] as number) + (block[2 * index] as number) * (window[index] as number);
    }
  }
  return out;
}

function magnitudeAt(spectrum: readonly number[], bin: number): number {
  const re = spectrum[2 * bin] as number;
  const im = spectrum[2 * bin + 1] as number;
  return Math.sqrt(re * re + im * im);
}

/** What a converter stores: whole steps with dither, held at full scale. 32-bit float keeps what is over full scale. */
export function converted(samples: Float64Array, word: 16 | 24 | 'float', random: RandomSource): { samples: Float64Array; clippedSamples: number } {
  if (word === 'float') return { samples: samples.map(Math.fround), clippedSamples: 0 };
  const steps = 2 ** (word - 1);
  let clippedSamples = 0;
  const out = samples.map((x) => {
    const dither = random.uniform() + random.uniform() - 1;
    const step = Math.round(x * steps + dither);
    if (step >= steps - 1 || step <= -steps) clippedSamples++;
    return Math.max(-steps, Math.min(steps - 1, step)) / steps;
  });
  return { samples: out, clippedSamples };
}

/** The same signal on a second track, recorded lower in case the first one clips. */
export function safetyTrack(samples: Float64Array, lowerDb: number): Float64Array {
  const gain = 10 ** (-lowerDb / 20);
  return samples.map((x) => x * gain);
}
