import type { Acoustics } from '../domain/station.ts';

/** A surface and the share of energy that it takes up, in octave bands from 125 Hz to 4 kHz. */
export interface Surface {
  id: string;
  name: string;
  absorption: readonly [number, number, number, number, number, number];
}

/**
 * Usual surfaces: F. A. Everest, Master Handbook of Acoustics, 2001, appendix; an opening lets all through. Real ones differ:
 * a tenth of a second is soon wrong, a room that is bare or dull is not.
 */
export const SURFACES: readonly Surface[] = [
  { id: 'concrete', name: 'concrete, stone', absorption: [0.01, 0.01, 0.015, 0.02, 0.02, 0.02] },
  { id: 'brick', name: 'brick', absorption: [0.03, 0.03, 0.03, 0.04, 0.05, 0.07] },
  { id: 'painted brick', name: 'painted brick, tiles', absorption: [0.01, 0.01, 0.02, 0.02, 0.02, 0.03] },
  { id: 'plaster', name: 'plaster on lath', absorption: [0.14, 0.1, 0.06, 0.05, 0.04, 0.03] },
  { id: 'gypsum', name: 'gypsum board on studs', absorption: [0.29, 0.1, 0.05, 0.04, 0.07, 0.09] },
  { id: 'plywood', name: 'plywood panels', absorption: [0.28, 0.22, 0.17, 0.09, 0.1, 0.11] },
  { id: 'wood floor', name: 'wooden floor', absorption: [0.15, 0.11, 0.1, 0.07, 0.06, 0.07] },
  { id: 'linoleum', name: 'linoleum on concrete', absorption: [0.02, 0.03, 0.03, 0.03, 0.03, 0.02] },
  { id: 'carpet', name: 'heavy carpet on concrete', absorption: [0.02, 0.06, 0.14, 0.37, 0.6, 0.65] },
  { id: 'window', name: 'window glass', absorption: [0.35, 0.25, 0.18, 0.12, 0.07, 0.04] },
  { id: 'plate glass', name: 'large panes', absorption: [0.18, 0.06, 0.04, 0.03, 0.02, 0.02] },
  { id: 'light drapes', name: 'light drapes', absorption: [0.03, 0.04, 0.11, 0.17, 0.24, 0.35] },
  { id: 'medium drapes', name: 'medium drapes, in folds', absorption: [0.07, 0.31, 0.49, 0.75, 0.7, 0.6] },
  { id: 'heavy drapes', name: 'heavy drapes, in folds', absorption: [0.14, 0.35, 0.55, 0.72, 0.7, 0.65] },
  { id: 'open', name: 'open', absorption: [0.99, 0.99, 0.99, 0.99, 0.99, 0.99] },
];

/** What a box room is made of. */
export interface RoomSurfaces {
  floor: string;
  ceiling: string;
  walls: string;
  /** What hangs on or opens in the walls, and over which share of them, 0 to 1. */
  onWalls: string;
  onWallsShare: number;
  /** Who else stands in it. */
  people: number;
  /** Upholstery, in m² of what is seen of it. */
  upholsteryM2: number;
}

/** What a square metre of upholstered seats that are empty takes up (L. L. Beranek, Music, Acoustics and Architecture, 1962). */
export const UPHOLSTERY = [0.19, 0.37, 0.56, 0.67, 0.61, 0.59] as const;

/** What one person who stands takes up, in m² (H. Kuttruff, Room Acoustics, 2009, table of audiences: standing, without a coat). */
export const PERSON_M2 = [0.12, 0.24, 0.59, 0.98, 1.13, 1.12] as const;

const absorptionOf = (id: string) => (SURFACES.find((surface) => surface.id === id) ?? (SURFACES[0] as Surface)).absorption;

/** The mean share of energy that all surfaces of a box take up, by their areas, in octave bands from 125 Hz to 4 kHz. */
export function meanAbsorption(sizeM: NonNullable<Acoustics['sizeM']>, { floor, ceiling, walls, onWalls, onWallsShare, people, upholsteryM2 }: RoomSurfaces): number[] {
  const [length, width, height] = sizeM;
  const ground = length * width;
  const sides = 2 * (length + width) * height;
  const parts: [readonly number[], number][] = [
    [absorptionOf(floor), ground],
    [absorptionOf(ceiling), ground],
    [absorptionOf(walls), sides * (1 - onWallsShare)],
    [absorptionOf(onWalls), sides * onWallsShare],
  ];
  return PERSON_M2.map((person, band) => {
    const taken = parts.reduce((sum, [absorption, area]) => sum + (absorption[band] as number) * area, people * person + upholsteryM2 * (UPHOLSTERY[band] as number));
    return Math.min(0.99, taken / (2 * ground + sides));
  });
}
