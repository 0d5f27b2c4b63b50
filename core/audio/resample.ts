import { kaiser } from './kaiser.ts';

const HALF_TAPS = 24;
const PHASES = 512;
const KAISER = 9;

/**
 * Changes the sample rate by a windowed sinc (Kaiser, about 90 dB down), interpolated between 512
 * tabulated phases. Going down, the cut-off moves with the lower rate.
 * @returns the samples at `toHz`; the same array when the rates are equal
 */
export function resample(samples: Float64Array, fromHz: number, toHz: number): Float64Array {
  if (fromHz === toHz) return samples;
  return interpolated(samples, 0, fromHz / toHz, Math.round((samples.length * toHz) / fromHz));
}

/**
 * Reads a signal between its samples: `count` values from place `start` on, `step` samples apart. What
 * lies outside the signal is silence.
 */
export function interpolated(samples: Float64Array, start: number, step: number, count: number): Float64Array {
  const cutoff = Math.min(1, 1 / step) * (Math.abs(step - 1) < 0.001 ? 1 : 0.96);
  const reach = Math.ceil(HALF_TAPS / cutoff);
  const table = sincTable(cutoff, reach);
  const out = new Float64Array(count);
  for (let index = 0; index < count; index++) {
    const at = start + index * step;
    const whole = Math.floor(at);
    const phase = (at - whole) * PHASES;
    const row = Math.floor(phase);
    const between = phase - row;
    let sum = 0;
    const first = Math.max(-reach + 1, -whole);
    const last = Math.min(reach, samples.length - 1 - whole);
    for (let tap = first; tap <= last; tap++) {
      const low = table[row * 2 * reach + tap + reach - 1] as number;
      const high = table[(row + 1) * 2 * reach + tap + reach - 1] as number;
      sum += (samples[whole + tap] as number) * (low + between * (high - low));
    }
    out[index] = sum;
  }
  return out;
}

const tables = new Map<string, Float64Array>();

function sincTable(cutoff: number, reach: number): Float64Array {
  const key = `${cutoff} ${reach}`;
  const known = tables.get(key);
  if (known) return known;
  if (tables.size > 16) tables.clear();
  const table = new Float64Array((PHASES + 1) * 2 * reach);
  for (let phase = 0; phase <= PHASES; phase++) {
    for (let tap = -reach + 1; tap <= reach; tap++) {
      const t = tap - phase / PHASES;
      const x = Math.PI * t * cutoff;
      const window = kaiser(t / reach, KAISER);
      table[phase * 2 * reach + tap + reach - 1] = cutoff * (x === 0 ? 1 : Math.sin(x) / x) * window;
    }
  }
  tables.set(key, table);
  return table;
}
