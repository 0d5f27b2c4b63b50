import { type BiquadCoefficients, highShelf, peaking } from '../audio/biquad.ts';

/** Where a small microphone sits on a body. */
export type Placement = 'open' | 'breastbone' | 'collar' | 'hairline' | 'lapel';

/**
 * Colour of a place on the body: the chest lifts the low-mids where the microphone lies on it, the chin
 * shades the top where it looks over the microphone's head, the forehead does little.
 */
export function placementSections(placement: Placement, rateHz: number): BiquadCoefficients[] {
  switch (placement) {
    case 'open':
      return [];
    case 'breastbone':
      return [peaking(650, 5, 0.9, rateHz), highShelf(3500, -6, rateHz)];
    case 'collar':
      return [peaking(800, 4, 1, rateHz), highShelf(3000, -9, rateHz)];
    case 'hairline':
      return [peaking(300, -2, 0.8, rateHz), highShelf(7000, -2, rateHz)];
    case 'lapel':
      return [peaking(700, 3, 0.9, rateHz), highShelf(4000, -4, rateHz)];
  }
}
