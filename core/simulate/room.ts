import type { RandomSource } from './random.ts';

const LINES = 8;

/**
 * Late sound of a room by a feedback delay network: eight delay lines with mutually prime lengths,
 * mixed by a Householder matrix, each losing what the reverberation time asks for, a little more of it
 * at the top. RMS of the result is that of the input when the room is fed steadily.
 * @param reverberationS time for the sound to fall by 60 dB
 */
export function reverberant(dry: Float64Array, rateHz: number, reverberationS: number, random: RandomSource): Float64Array {
  const lengths = Array.from({ length: LINES }, (_, line) => nextPrime(Math.round(rateHz * (0.011 + 0.0057 * line + 0.002 * random.uniform()))));
  const gains = lengths.map((length) => 10 ** ((-3 * length) / (rateHz * reverberationS)));
  const buffers = lengths.map((length) => new Float64Array(length));
  const at = new Int32Array(LINES);
  const memory = new Float64Array(LINES);
  const taps = new Float64Array(LINES);
  const signs = lengths.map(() => (random.uniform() < 0.5 ? -1 : 1));
  const damping = 0.22;
  const wet = new Float64Array(dry.length);
  let inPower = 0;
  let outPower = 0;
  for (let index = 0; index < dry.length; index++) {
    let sum = 0;
    let out = 0;
    for (let line = 0; line < LINES; line++) {
      const tap = (buffers[line] as Float64Array)[at[line] as number] as number;
      const value = (memory[line] as number) * damping + tap * (1 - damping);
      memory[line] = value;
      taps[line] = value * (gains[line] as number);
      sum += taps[line] as number;
      out += value * (signs[line] as number);
    }
    const feed = (2 / LINES) * sum;
    const input = dry[index] as number;
    for (let line = 0; line < LINES; line++) {
      const place = at[line] as number;
      (buffers[line] as Float64Array)[place] = input + (taps[line] as number) - feed;
      at[line] = place + 1 === (lengths[line] as number) ? 0 : place + 1;
    }
    wet[index] = out;
    inPower += input * input;
    outPower += out * out;
  }
  const scale = outPower > 0 ? Math.sqrt(inPower / outPower) : 0;
  for (let index = 0; index < wet.length; index++) wet[index] = (wet[index] as number) * scale;
  return wet;
}

function nextPrime(from: number): number {
  for (let candidate = from; ; candidate++) {
    let prime = candidate > 1;
    for (let divisor = 2; divisor * divisor <= candidate && prime; divisor++) prime = candidate % divisor !== 0;
    if (prime) return candidate;
  }
}
