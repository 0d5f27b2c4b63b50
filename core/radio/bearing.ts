/** A place on the earth. */
export interface Place {
  latitudeDeg: number;
  longitudeDeg: number;
}

/** Mean radius of the earth, IUGG 1980. */
const EARTH_M = 6_371_008.8;
const RADIANS = Math.PI / 180;

/** Metres east and north of a place, on a plane through it: right to a millimetre over a kilometre. */
export function fromPlace(origin: Place, place: Place): { eastM: number; northM: number } {
  const turned = ((((place.longitudeDeg - origin.longitudeDeg + 180) % 360) + 360) % 360) - 180;
  return {
    eastM: EARTH_M * turned * RADIANS * Math.cos(((origin.latitudeDeg + place.latitudeDeg) / 2) * RADIANS),
    northM: EARTH_M * (place.latitudeDeg - origin.latitudeDeg) * RADIANS,
  };
}

/** Metres between two places, as far as a radio microphone reaches. */
export function metresBetween(a: Place, b: Place): number {
  const { eastM, northM } = fromPlace(a, b);
  return Math.hypot(eastM, northM);
}

/** The place so many metres east and north of another. */
export function placeFrom(origin: Place, eastM: number, northM: number): Place {
  const latitudeDeg = origin.latitudeDeg + northM / EARTH_M / RADIANS;
  const cosine = Math.cos(((origin.latitudeDeg + latitudeDeg) / 2) * RADIANS);
  return { latitudeDeg, longitudeDeg: origin.longitudeDeg + eastM / EARTH_M / RADIANS / cosine };
}
