import { Cascade, highPass, lowPass } from '../audio/biquad.ts';
import { filled } from '../audio/filled.ts';
import type { Dropout } from './radioLink.ts';
import type { RandomSource } from './random.ts';

/** A radio link that fades. */
export interface FadingLink {
  /** Mean received level over the receiver's threshold, in dB; distance and free view are in it. */
  marginDb: number;
  /** What a body between the aerials takes away. */
  bodyLossDb: number;
  /** How fast the field changes, in fades a second: walking makes a few. */
  fadesPerS: number;
  /** A digital receiver mutes; an analogue one is drowned in noise, and its compander breathes. */
  kind: 'digital' | 'analogue';
}

const STEP_S = 0.001;
/** Shorter breaks are bridged by the receiver. */
const SHORTEST_BREAK_S = 0.008;
const MUTE_RAMP_S = 0.0008;
const QUIET_NOISE_DBFS = -95;

/**
 * The envelope of the field over its mean, in dB, every millisecond: two independent slow noises as the
 * two halves of a field that comes by many ways (Rayleigh fading).
 */
export function fieldDb(lengthS: number, fadesPerS: number, random: RandomSource): Float64Array {
  const steps = Math.ceil(lengthS / STEP_S) + 1;
  const warmUp = Math.round(2 / STEP_S);
  const part = () => {
    const noise = new Float64Array(steps + warmUp);
    for (let step = 0; step < noise.length; step++) noise[step] = random.normal();
    new Cascade([lowPass(fadesPerS, Math.SQRT1_2, 1 / STEP_S), lowPass(fadesPerS, Math.SQRT1_2, 1 / STEP_S)]).process(noise, noise, noise.length);
    let power = 0;
    for (let step = warmUp; step < noise.length; step++) power += (noise[step] as number) ** 2 / steps;
    const scale = 1 / Math.sqrt(2 * power);
    for (let step = warmUp; step < noise.length; step++) noise[step] = scale * (noise[step] as number);
    return noise.subarray(warmUp);
  };
  const a = part();
  const b = part();
  return a.map((x, index) => 10 * Math.log10(Math.max(1e-9, x * x + (b[index] as number) ** 2)));
}

/** Sends a signal over a link that fades; breaks are where the field is under the threshold. */
export function throughFading(samples: Float64Array, rateHz: number, link: FadingLink, random: RandomSource): { samples: Float64Array; dropouts: Dropout[] } {
  const field = fieldDb(samples.length / rateHz, link.fadesPerS, random);
  const over = field.map((level) => level + link.marginDb - link.bodyLossDb);
  const dropouts: Dropout[] = [];
  for (let step = 0; step < over.length; step++) {
    if ((over[step] as number) >= 0) continue;
    const start = step;
    while (step < over.length && (over[step] as number) < 0) step++;
    if ((step - start) * STEP_S >= SHORTEST_BREAK_S) dropouts.push({ startS: start * STEP_S, endS: step * STEP_S });
  }
  const out = link.kind === 'digital' ? muted(samples, rateHz, dropouts, random) : companded(samples, rateHz, over, random);
  return { samples: out, dropouts };
}

function muted(samples: Float64Array, rateHz: number, dropouts: readonly Dropout[], random: RandomSource): Float64Array {
  const out = Float64Array.from(samples);
  const hiss = 10 ** (QUIET_NOISE_DBFS / 20);
  for (const { startS, endS } of dropouts) {
    for (let index = Math.round(startS * rateHz); index < Math.min(out.length, Math.round(endS * rateHz)); index++) {
      const open = Math.max(0, 1 - (index / rateHz - startS) / MUTE_RAMP_S, 1 - (endS - index / rateHz) / MUTE_RAMP_S);
      out[index] = (out[index] as number) * open + hiss * random.normal();
    }
  }
  return out;
}

/** Two to one compression before the air, one to two expansion behind it: noise of the air follows the voice. */
function companded(samples: Float64Array, rateHz: number, over: Float64Array, random: RandomSource): Float64Array {
  const up = 1 - Math.exp(-1 / (0.003 * rateHz));
  const down = 1 - Math.exp(-1 / (0.08 * rateHz));
  let sent = 1e-4;
  let heard = 1e-4;
  const noise = filled(samples.length, () => random.normal());
  new Cascade([highPass(3000, Math.SQRT1_2, rateHz)]).process(noise, noise, noise.length);
  return samples.map((x, index) => {
    const margin = over[Math.min(over.length - 1, Math.floor(index / rateHz / STEP_S))] as number;
    sent += (Math.abs(x) > sent ? up : down) * (Math.abs(x) - sent);
    const onAir = x / Math.sqrt(Math.max(sent, 1e-5));
    const share = margin >= 6 ? 1 : Math.max(0, margin / 6);
    const arrived = onAir * share + (noise[index] as number) * 10 ** ((-62 + 55 * (1 - share)) / 20);
    heard += (Math.abs(arrived) > heard ? up : down) * (Math.abs(arrived) - heard);
    return arrived * Math.max(heard, 3e-3);
  });
}
