import type { BiquadCoefficients } from '../audio/biquad.ts';

export const SPEED_OF_SOUND_MS = 343;

/** How a capsule hears directions: the share of pressure in a first-order pattern, and the length of an interference tube. */
export interface MicrophonePattern {
  /** 1 omnidirectional, 0.5 cardioid, 0.37 supercardioid, 0.25 hypercardioid, 0 figure of eight. */
  pressureShare: number;
  /** 0 where there is no tube. */
  tubeM: number;
}

/**
 * Gain for a direction and frequency. First order: a + (1 - a) cos θ. An interference tube adds up
 * what enters along its length, sin(x)/x with x = π L (1 - cos θ) / λ, so that it narrows as the
 * wave gets short against it and stays a first-order microphone below.
 */
export function patternGain({ pressureShare, tubeM }: MicrophonePattern, angleRad: number, frequencyHz: number): number {
  const cosine = Math.cos(angleRad);
  const firstOrder = pressureShare + (1 - pressureShare) * cosine;
  const x = (Math.PI * tubeM * frequencyHz * (1 - cosine)) / SPEED_OF_SOUND_MS;
  return firstOrder * (x === 0 ? 1 : Math.sin(x) / x);
}

const STEPS = 512;
/** Means that were worked out already: one pattern is asked for in every band and for every source. */
const powers = new Map<string, number>();
const MOST_KEPT = 1000;

/**
 * Power of sound from all directions that a pattern takes in, against what it would on axis: the mean of
 * the squared pattern over the sphere, 1 / the directivity factor Q. A cardioid has 1/3, a hypercardioid 1/4.
 */
export function diffusePower(pattern: MicrophonePattern, frequencyHz: number): number {
  // Without a tube all frequencies are alike.
  const key = `${pattern.pressureShare}/${pattern.tubeM}/${pattern.tubeM === 0 ? 0 : frequencyHz}`;
  let power = powers.get(key);
  if (power === undefined) {
    // A midpoint rule in cos θ, in which the sphere is even.
    let sum = 0;
    for (let step = 0; step < STEPS; step++) sum += patternGain(pattern, Math.acos(1 - (2 * step + 1) / STEPS), frequencyHz) ** 2;
    power = sum / STEPS;
    if (powers.size >= MOST_KEPT) powers.clear();
    powers.set(key, power);
  }
  return power;
}

/**
 * Proximity effect on axis, in dB against a plane wave: the gradient part of a first-order pattern meets a
 * spherical wave whose particle velocity is greater by 1 + c / (j 2π f r), so that the whole is
 * |1 + (1 - a) c / (j 2π f r)|. None for a pressure capsule.
 */
export function proximityDb({ pressureShare }: MicrophonePattern, distanceM: number, frequencyHz: number): number {
  return 20 * Math.log10(Math.hypot(1, ((1 - pressureShare) * SPEED_OF_SOUND_MS) / (2 * Math.PI * frequencyHz * distanceM)));
}

/** Where the lows of a gradient microphone end; without an end the proximity effect would grow without one. */
export const GRADIENT_LOW_END_HZ = 20;

/**
 * The proximity effect as a section: 1 + (1 - a) c / (s r) over the capsule's own low end, which is
 * (s + k) / (s + ω) with k = (1 - a) c / r, brought to the sample rate by the bilinear transform.
 */
export function proximitySection({ pressureShare }: MicrophonePattern, distanceM: number, rateHz: number): BiquadCoefficients {
  const twice = 2 * rateHz;
  const zero = ((1 - pressureShare) * SPEED_OF_SOUND_MS) / distanceM;
  const pole = 2 * Math.PI * GRADIENT_LOW_END_HZ;
  return { b0: (twice + zero) / (twice + pole), b1: (zero - twice) / (twice + pole), b2: 0, a1: (pole - twice) / (twice + pole), a2: 0 };
}
