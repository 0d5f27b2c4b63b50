/** A place in metres: away from the camera along the ground, across to its right, and up from the ground. */
export interface Place {
  awayM: number;
  acrossM: number;
  heightM: number;
}

/** From one place to another. */
export function between(from: Place, to: Place): Place {
  return { awayM: to.awayM - from.awayM, acrossM: to.acrossM - from.acrossM, heightM: to.heightM - from.heightM };
}

export function lengthOf({ awayM, acrossM, heightM }: Place): number {
  return Math.hypot(awayM, acrossM, heightM);
}

export const distanceBetween = (a: Place, b: Place): number => lengthOf(between(a, b));

/** Angle between two directions, in radians; 0 where one of them has no length. */
export function angleBetween(a: Place, b: Place): number {
  const lengths = lengthOf(a) * lengthOf(b);
  if (lengths === 0) return 0;
  const cosine = (a.awayM * b.awayM + a.acrossM * b.acrossM + a.heightM * b.heightM) / lengths;
  return Math.acos(Math.max(-1, Math.min(1, cosine)));
}

/** A place so far along a direction; the same place where the direction has no length. */
export function along(from: Place, direction: Place, distanceM: number): Place {
  const length = lengthOf(direction);
  const share = length === 0 ? 0 : distanceM / length;
  return { awayM: from.awayM + share * direction.awayM, acrossM: from.acrossM + share * direction.acrossM, heightM: from.heightM + share * direction.heightM };
}

export const degrees = (radians: number): number => (radians * 180) / Math.PI;
export const radians = (degreesOf: number): number => (degreesOf * Math.PI) / 180;
