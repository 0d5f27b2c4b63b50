import type { PlacementDraft } from '../domain/placement.ts';
import { type BodyPlace, type SpotCarrier, spotOf } from '../domain/spot.ts';
import { SPEED_OF_SOUND_MS } from '../simulate/microphone.ts';
import { HEAD_RADIUS_M, OPENING_RAD } from './mouth.ts';

/** On the sphere itself the sum converges slowly; a capsule lies some millimetres off it anyway. */
const LEAST_OFF_M = 0.004;
const TERMS = 120;

/**
 * Pressure that a mouth makes at a place near it, against what the same small source would make in the open at 1 m.
 * The mouth is a piston in a rigid sphere, as far away; near it the outgoing waves stand for themselves:
 * p = Σ (2n + 1) wn Pn(cos θ) hn(kr) / hn'(ka) / (k a²), wn the opening's share of each term (P. M. Morse and K. U. Ingard,
 * Theoretical Acoustics, 1968, chapter 7). Ratios of Hankel functions are carried on instead of the functions, which overflow.
 * @param angleRad from straight ahead, seen from the middle of the head
 * @param radiusM from the middle of the head; inside the head it counts as on it
 * @returns a factor of pressure; far away it tends to sphereGain / r
 */
export function nearMouthGain(angleRad: number, radiusM: number, frequencyHz: number, openingRad = OPENING_RAD): number {
  const k = (2 * Math.PI * frequencyHz) / SPEED_OF_SOUND_MS;
  const a = k * HEAD_RADIUS_M;
  const r = k * Math.max(radiusM, HEAD_RADIUS_M + LEAST_OFF_M);
  // h1 / h0 = 1 / x - i for the outgoing wave h0 = -i exp(ix) / x (time as exp(-iωt)).
  let atHead: Complex = [1 / a, -1];
  let atPlace: Complex = [1 / r, -1];
  // hn(kr) / hn(ka), to begin with n = 0.
  let carried: Complex = turned(a / r, r - a);
  const cosine = Math.cos(angleRad);
  const rim = Math.cos(openingRad);
  let [p0, p1] = [1, cosine];
  let [before, r0, r1] = [1, 1, rim];
  let [re, im] = [0, 0];
  for (let n = 0; n < TERMS; n++) {
    // hn'(ka) / hn(ka) = n / ka - h(n+1) / hn
    const term = divided(carried, [n / a - atHead[0], -atHead[1]]);
    const weight = (p0 * (before - r1)) / (1 - rim);
    re += weight * term[0];
    im += weight * term[1];
    carried = divided(times(carried, atPlace), atHead);
    const odd = 2 * n + 3;
    atHead = minus(odd / a, divided([1, 0], atHead));
    atPlace = minus(odd / r, divided([1, 0], atPlace));
    [p0, p1] = [p1, (odd * cosine * p1 - (n + 1) * p0) / (n + 2)];
    [before, r0, r1] = [r0, r1, (odd * rim * r1 - (n + 1) * r0) / (n + 2)];
  }
  return Math.hypot(re, im) / (a * HEAD_RADIUS_M);
}

type Complex = readonly [re: number, im: number];
const turned = (size: number, angle: number): Complex => [size * Math.cos(angle), size * Math.sin(angle)];
const times = (x: Complex, y: Complex): Complex => [x[0] * y[0] - x[1] * y[1], x[0] * y[1] + x[1] * y[0]];
const minus = (x: number, y: Complex): Complex => [x - y[0], -y[1]];
function divided(x: Complex, y: Complex): Complex {
  const size = y[0] ** 2 + y[1] ** 2;
  return [(x[0] * y[0] + x[1] * y[1]) / size, (x[1] * y[0] - x[0] * y[1]) / size];
}

/** From the middle of the head, which lies behind the mouth: how far, and how far from straight ahead. */
export function fromHead({ forwardM, leftM, upM }: BodyPlace): { radiusM: number; angleRad: number } {
  const ahead = forwardM + HEAD_RADIUS_M;
  const radiusM = Math.hypot(ahead, leftM, upM);
  return { radiusM, angleRad: radiusM === 0 ? 0 : Math.acos(ahead / radiusM) };
}

/** The same place of the trunk, seen from a head that has turned to the wearer's left; what the head carries turns with it. */
export function withHeadTurned({ forwardM, leftM, upM }: BodyPlace, carrier: SpotCarrier, turnRad: number): BodyPlace {
  if (carrier === 'head') return { forwardM, leftM, upM };
  const ahead = forwardM + HEAD_RADIUS_M;
  return {
    forwardM: ahead * Math.cos(turnRad) + leftM * Math.sin(turnRad) - HEAD_RADIUS_M,
    leftM: leftM * Math.cos(turnRad) - ahead * Math.sin(turnRad),
    upM,
  };
}

/** What a chin is under the mouth, in a grown face. */
const CHIN_UP_M = -0.045;

/** The numbers of a placement that follow from where it was drawn on a body. */
export function placementNumbers(at: BodyPlace): Pick<PlacementDraft, 'distanceM' | 'offAxisDeg' | 'belowChinM'> {
  const distanceM = Math.max(0.01, Math.hypot(at.forwardM, at.leftM, at.upM));
  const hundredth = (value: number) => Math.round(100 * value) / 100;
  return {
    distanceM: hundredth(distanceM),
    offAxisDeg: Math.round((Math.acos(Math.max(-1, Math.min(1, at.forwardM / distanceM))) * 180) / Math.PI),
    belowChinM: hundredth(CHIN_UP_M - at.upM),
  };
}

/** Where a placement is on a body: where it was drawn, or its usual spot; null where neither is known. */
export function placeOnBody({ at, spot, on }: Pick<PlacementDraft, 'at' | 'spot' | 'on'>): BodyPlace | null {
  return on === 'body' ? (at ?? (spot ? spotOf(spot).at : null)) : null;
}
