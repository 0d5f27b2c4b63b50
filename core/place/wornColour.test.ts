import { describe, expect, it } from 'vitest';
import { CLOTHS } from '../domain/clothLayer.ts';
import { placementDraftSchema } from '../domain/placement.ts';
import { rigRecordDraftSchema } from '../domain/rigRecord.ts';
import { SPOTS, type SpotId } from '../domain/spot.ts';
import { clothLossDb } from './clothLoss.ts';
import { boomDb, colourOf, voiceGainDb, WORN_BANDS_HZ, wornDb, wornFigures } from './wornColour.ts';

const placement = (spot: SpotId) => placementDraftSchema.parse({ name: spot, spot });
const rig = (given: object) => rigRecordDraftSchema.parse({ name: 'rig', ...given });
const band = (hz: number) => WORN_BANDS_HZ.findIndex((each) => Math.abs(each / hz - 1) < 0.05);
const BOOM = { distanceM: 0.6, offAxisRad: 0 };

describe('a worn microphone', () => {
  it('is louder than a boom by about the ratio of their distances, less what the mouth sends aside', () => {
    const chest = wornFigures({ placement: placement('breastbone high'), rig: null }, BOOM)!;
    expect(chest.distanceM).toBeCloseTo(0.163, 2);
    // 20 log (0.6 / 0.163) = 11.3 dB ahead; aside of it less.
    expect(chest.levelDb).toBeGreaterThan(4);
    expect(chest.levelDb).toBeLessThan(13);
  });

  it('loses its top against a boom ahead the more, the more the head is in between', () => {
    const top = (spot: SpotId) => wornFigures({ placement: placement(spot), rig: null }, BOOM)!.colourDb[band(8000)] as number;
    expect(top('breastbone high')).toBeLessThan(-2);
    expect(top('breastbone high')).toBeLessThan(top('chin bar'));
    expect(top('behind an ear')).toBeLessThan(top('breastbone high') - 6);
    expect(top('back of the neck')).toBeLessThan(top('behind an ear'));
  });

  it('under cloth differs from the bare one by the cloth alone, band by band', () => {
    const layers = CLOTHS.filter(({ name }) => name === 'denim' || name === 'cotton shirt');
    const bare = wornDb({ placement: placement('lapel'), rig: rig({}) })!;
    const under = wornDb({ placement: placement('lapel'), rig: rig({ layers }) })!;
    WORN_BANDS_HZ.forEach((hz, index) => {
      expect((bare[index] as number) - (under[index] as number)).toBeCloseTo(clothLossDb(layers, hz), 9);
    });
  });

  it('under a cloth of which only the loss was noted loses that at the top and nothing of the lows', () => {
    const bare = wornDb({ placement: placement('collar'), rig: null })!;
    const under = wornDb({ placement: placement('collar'), rig: rig({ clothLayers: 2, clothLossDb: 4 }) })!;
    expect((bare[band(10_000)] as number) - (under[band(10_000)] as number)).toBeCloseTo(8, 1);
    expect((bare[band(250)] as number) - (under[band(250)] as number)).toBe(0);
  });

  it('with a cap has its top lifted', () => {
    const lifted = wornDb({ placement: placement('lapel'), rig: rig({ capLiftDb: 6 }) })!;
    const plain = wornDb({ placement: placement('lapel'), rig: null })!;
    expect((lifted[band(12_500)] as number) - (plain[band(12_500)] as number)).toBeCloseTo(6, 1);
  });

  it('on one shoulder changes when the head turns, on the head it does not', () => {
    const shoulder = wornFigures({ placement: placement('shoulder'), rig: null }, BOOM)!;
    expect(shoulder.turned.find(({ side }) => side === 'left')!.levelDb).toBeGreaterThan(1);
    expect(shoulder.turned.find(({ side }) => side === 'right')!.levelDb).toBeLessThan(-1);
    const glasses = wornFigures({ placement: placement('glasses'), rig: null }, BOOM)!;
    for (const { levelDb, topDb } of glasses.turned) expect([levelDb, topDb]).toEqual([0, 0]);
  });

  it('in the middle changes alike to both sides', () => {
    const [left, right] = wornFigures({ placement: placement('tie knot'), rig: null }, BOOM)!.turned;
    expect(left!.levelDb).toBeCloseTo(right!.levelDb, 9);
  });

  it.each(SPOTS)('has finite figures at $name', ({ id }) => {
    const figures = wornFigures({ placement: placement(id), rig: null }, BOOM)!;
    expect([figures.levelDb, ...figures.colourDb].every(Number.isFinite)).toBe(true);
  });

  it('of which the spot is not known has none', () => {
    expect(wornFigures({ placement: placementDraftSchema.parse({ name: 'somewhere' }), rig: null }, BOOM)).toBeNull();
  });

  it('that hangs a metre straight ahead of the mouth is the reference itself, in every band', () => {
    const ahead = placementDraftSchema.parse({ name: 'ahead', at: { forwardM: 1, leftM: 0, upM: 0 }, spot: 'glasses' });
    for (const db of wornDb({ placement: ahead, rig: null })!) expect(db).toBeCloseTo(0, 9);
    const figures = wornFigures({ placement: ahead, rig: null }, { distanceM: 1, offAxisRad: 0 })!;
    expect(figures.levelDb).toBeCloseTo(0, 9);
  });

  it('twice as far a boom is 6.02 dB softer and of the same colour', () => {
    const [near, far] = [boomDb(0.5, 0.6), boomDb(1, 0.6)];
    expect(voiceGainDb(near) - voiceGainDb(far)).toBeCloseTo(6.02, 2);
    colourOf(near).forEach((db, index) => expect(db).toBeCloseTo(colourOf(far)[index] as number, 9));
  });
});
