/** A place against the mouth of somebody who stands upright: out from it, to the wearer's left, and up, in metres. */
export interface BodyPlace {
  forwardM: number;
  leftM: number;
  upM: number;
}

/** What a spot is fixed to: it turns with the head, stays with the trunk, or moves with an arm. */
export type SpotCarrier = 'head' | 'trunk' | 'arm';

/** A usual spot for a small microphone, where it is, and which way the surface under it looks. */
export interface Spot {
  id: SpotId;
  name: string;
  carrier: SpotCarrier;
  at: BodyPlace;
  /** Out of the surface; its length does not matter. */
  outward: BodyPlace;
}

export const SPOT_IDS = [
  'breastbone high',
  'breastbone low',
  'collar',
  'lapel',
  'tie knot',
  'behind a button',
  'under a brim',
  'hairline',
  'behind an ear',
  'cheek',
  'chin bar',
  'glasses',
  'shoulder',
  'bra or binder',
  'wrist',
  'back of the neck',
  'corner of the mouth',
] as const;
export type SpotId = (typeof SPOT_IDS)[number];

const spot = (id: SpotId, carrier: SpotCarrier, [forwardM, leftM, upM]: [number, number, number], [forward, left, up]: [number, number, number], name: string = id): Spot => ({
  id,
  name,
  carrier,
  at: { forwardM, leftM, upM },
  outward: { forwardM: forward, leftM: left, upM: up },
});

/** Usual spots on a grown person of middle build, taken from a tape measure and a mirror; each may be moved. */
export const SPOTS: readonly Spot[] = [
  spot('breastbone high', 'trunk', [-0.03, 0, -0.16], [1, 0, 0.15], 'breastbone, high'),
  spot('breastbone low', 'trunk', [-0.01, 0, -0.24], [1, 0, 0.1], 'breastbone, low'),
  spot('collar', 'trunk', [-0.05, 0.05, -0.1], [1, 0.4, 0.3]),
  spot('lapel', 'trunk', [-0.02, 0.08, -0.2], [1, 0.2, 0.1]),
  spot('tie knot', 'trunk', [-0.02, 0, -0.115], [1, 0, 0.2]),
  spot('behind a button', 'trunk', [-0.015, 0, -0.21], [1, 0, 0], 'behind a button'),
  spot('under a brim', 'head', [0.06, 0, 0.11], [0, 0, -1]),
  spot('hairline', 'head', [-0.035, 0.02, 0.125], [0.7, 0, 0.7]),
  spot('behind an ear', 'head', [-0.12, 0.077, 0.03], [-0.3, 1, 0]),
  spot('cheek', 'head', [-0.02, 0.06, 0.005], [0.7, 0.7, 0], 'cheek pad of a helmet'),
  spot('chin bar', 'head', [0.045, 0, -0.045], [-1, 0, 0.3], 'chin bar of a helmet'),
  spot('glasses', 'head', [-0.005, 0.055, 0.075], [1, 0.4, 0], 'temple of glasses'),
  spot('shoulder', 'trunk', [-0.07, 0.16, -0.15], [0.2, 0.3, 1]),
  spot('bra or binder', 'trunk', [0.0, 0, -0.3], [1, 0, 0]),
  spot('wrist', 'arm', [0.22, 0.18, -0.4], [0, 0, 1]),
  spot('back of the neck', 'trunk', [-0.165, 0, -0.08], [-1, 0, 0.2]),
  spot('corner of the mouth', 'head', [0.005, 0.04, -0.005], [0.8, 0.6, 0], 'headset, corner of the mouth'),
];

/** A usual spot by its id. */
export const spotOf = (id: SpotId): Spot => SPOTS.find((each) => each.id === id) as Spot;
