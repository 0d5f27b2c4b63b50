import { type BiquadCoefficients, highShelf } from '../audio/biquad.ts';

/** How a capsule hears directions: the share of pressure in a first-order pattern, and the length of an interference tube. */
export interface MicrophonePattern {
  /** 1 omnidirectional, 0.5 cardioid, 0.37 supercardioid, 0.25 hypercardioid, 0 figure of eight. */
  pressureShare: number;
  /** 0 where there is no tube. */
  tubeM: number;
}

const SPEED_OF_SOUND_MS = 343;

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

/**
 * Proximity effect on axis as a low shelf: the gradient part of the pattern meets a spherical wave,
 * whose particle velocity grows by 1 + c / (j 2π f r) close up. Given as its gain at 100 Hz against
 * that at 1 kHz, in dB.
 */
export function proximityDb({ pressureShare }: MicrophonePattern, distanceM: number, frequencyHz = 100): number {
  const gain = (hz: number) => {
    const near = SPEED_OF_SOUND_MS / (2 * Math.PI * hz * distanceM);
    const gradient = 1 - pressureShare;
    return Math.hypot(pressureShare + gradient, gradient * near);
  };
  return 20 * Math.log10(gain(frequencyHz) / gain(1000));
}

/** The proximity effect as a section; above the corner it does nothing. */
export function proximitySection(pattern: MicrophonePattern, distanceM: number, rateHz: number): BiquadCoefficients {
  const liftDb = proximityDb(pattern, distanceM);
  const shelf = highShelf(180, -liftDb, rateHz);
  const up = 10 ** (liftDb / 20);
  return { ...shelf, b0: shelf.b0 * up, b1: shelf.b1 * up, b2: shelf.b2 * up };
}
