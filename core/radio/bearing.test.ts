import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromPlace, metresBetween, placeFrom } from './bearing.ts';

const at = (latitudeDeg: number, longitudeDeg: number) => ({ latitudeDeg, longitudeDeg });

describe('distances between places', () => {
  it.each([
    ['a minute of arc north is a sea mile', at(50, 1), at(50 + 1 / 60, 1), 1852],
    ['a minute of arc east at the equator', at(0, 1), at(0, 1 + 1 / 60), 1853],
    ['at 60 degrees it is half', at(60, 1), at(60, 1 + 1 / 60), 926.5],
    ['over the line where the date changes', at(0, 179.9999), at(0, -179.9999), 22.2],
  ])('%s', (_case, a, b, metres) => expect(metresBetween(a, b)).toBeCloseTo(metres, -Math.log10(metres * 0.004)));

  it('agrees with the great circle to a thousandth over a kilometre', () => {
    const arc = fc.record({
      latitudeDeg: fc.double({ min: -70, max: 70, noNaN: true }),
      east: fc.double({ min: -1000, max: 1000, noNaN: true }),
      north: fc.double({ min: -1000, max: 1000, noNaN: true }),
    });
    fc.assert(
      fc.property(arc, ({ latitudeDeg, east, north }) => {
        const a = at(latitudeDeg, 10);
        const b = placeFrom(a, east, north);
        const r = Math.PI / 180;
        const h =
          Math.sin(((b.latitudeDeg - a.latitudeDeg) * r) / 2) ** 2 +
          Math.cos(a.latitudeDeg * r) * Math.cos(b.latitudeDeg * r) * Math.sin(((b.longitudeDeg - a.longitudeDeg) * r) / 2) ** 2;
        const circle = 2 * 6_371_008.8 * Math.asin(Math.sqrt(h));
        return Math.abs(circle - metresBetween(a, b)) <= 0.001 * circle + 1e-3;
      }),
    );
  });

  it('east and north come back', () => {
    const origin = at(52.1, 1.4);
    const { eastM, northM } = fromPlace(origin, placeFrom(origin, 30, -40));
    expect(eastM).toBeCloseTo(30, 3);
    expect(northM).toBeCloseTo(-40, 3);
  });
});
