import { SPEED_OF_SOUND_MS } from '../simulate/microphone.ts';

/** Radius of the sphere that stands for a head. */
export const HEAD_RADIUS_M = 0.0875;
/** Half the width of an opening of some five square centimetres, as vowels have it. */
export const MOUTH_RADIUS_M = 0.0125;
/** Terms of the sum beyond the size of the sphere in wavelengths, after which nothing changes. */
const MORE_TERMS = 12;

/**
 * Sound pressure far from a small source on a rigid sphere, against the same source without it: the mouth of a head.
 * H(θ) = (1 / (ka)²) Σ (2n + 1) (-i)^(n-1) Pn(cos θ) / hn'(ka), with hn' the derivative of the spherical Hankel
 * function (P. M. Morse and K. U. Ingard, Theoretical Acoustics, 1968, chapter 7; by reciprocity the response of a
 * sphere in R. O. Duda and W. L. Martens, Range dependence of the response of a spherical head model, 1998). It tends to 1 for
 * long waves and, from a point, to 2 in front for short ones. An opening that moves as one piece weighs the terms by
 * (Pn-1(cos α) - Pn+1(cos α)) / ((2n + 1)(1 - cos α)), α half the angle it takes.
 * @param angleRad from the source's own direction
 * @param ka circumference of the sphere in wavelengths
 * @param openingRad half the angle of the opening, seen from the middle of the sphere; 0 is a point
 */
export function sphereGain(angleRad: number, ka: number, openingRad = 0): number {
  const cosine = Math.cos(angleRad);
  let [re, im] = [0, 0];
  // Spherical Bessel functions of both kinds by upward recurrence: beyond the size of the sphere the second kind, which is stable, rules.
  let [j0, j1] = [Math.sin(ka) / ka, Math.sin(ka) / ka ** 2 - Math.cos(ka) / ka];
  let [y0, y1] = [-Math.cos(ka) / ka, -Math.cos(ka) / ka ** 2 - Math.sin(ka) / ka];
  let [p0, p1] = [1, cosine];
  const rim = Math.cos(openingRad);
  let [before, r0, r1] = [1, 1, rim];
  for (let n = 0; n <= ka + MORE_TERMS; n++) {
    // hn' = (n / x) hn - h(n+1)
    const slopeRe = (n / ka) * j0 - j1;
    const slopeIm = (n / ka) * y0 - y1;
    const size = slopeRe ** 2 + slopeIm ** 2;
    const opening = openingRad === 0 ? 1 : (before - r1) / ((2 * n + 1) * (1 - rim));
    const factor = ((2 * n + 1) * p0 * opening) / size;
    // 1 / hn' = conj / |hn'|², turned by (-i)^(n - 1).
    const [a, b] = [slopeRe * factor, -slopeIm * factor];
    const [turnedRe, turnedIm] = TURNS[(n + 3) % 4]!(a, b);
    re += turnedRe;
    im += turnedIm;
    [p0, p1] = [p1, ((2 * n + 3) * cosine * p1 - (n + 1) * p0) / (n + 2)];
    [before, r0, r1] = [r0, r1, ((2 * n + 3) * rim * r1 - (n + 1) * r0) / (n + 2)];
    [j0, j1] = [j1, ((2 * n + 3) / ka) * j1 - j0];
    [y0, y1] = [y1, ((2 * n + 3) / ka) * y1 - y0];
  }
  return Math.hypot(re, im) / ka ** 2;
}

/** Multiplication by (-i) to the power of the index. */
const TURNS: ((re: number, im: number) => [number, number])[] = [(re, im) => [re, im], (re, im) => [im, -re], (re, im) => [-re, -im], (re, im) => [-im, re]];

/** Half the angle that the opening takes, seen from the middle of the head. */
export const OPENING_RAD = Math.asin(MOUTH_RADIUS_M / HEAD_RADIUS_M);

/**
 * How much less of a voice goes in a direction than straight ahead, in dB: a piston in a sphere, which was held against a
 * mannequin's mouth by J. L. Flanagan, Analog measurements of sound radiation from the mouth, 1960. Computed; no body below the head.
 */
export function mouthDb(angleRad: number, frequencyHz: number): number {
  const ka = (2 * Math.PI * frequencyHz * HEAD_RADIUS_M) / SPEED_OF_SOUND_MS;
  return 20 * Math.log10(sphereGain(angleRad, ka, OPENING_RAD) / sphereGain(0, ka, OPENING_RAD));
}
