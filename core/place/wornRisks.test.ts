import { describe, expect, it } from 'vitest';
import { CLOTHS } from '../domain/clothLayer.ts';
import { placementDraftSchema, spotByName } from '../domain/placement.ts';
import { rigRecordDraftSchema } from '../domain/rigRecord.ts';
import type { SpotId } from '../domain/spot.ts';
import { wornRisks } from './wornRisks.ts';

const risk = (kind: string, spot: SpotId | null, rig: object | null, at?: object) =>
  wornRisks({ placement: placementDraftSchema.parse({ name: 'x', spot, ...(at ? { at } : {}) }), rig: rig && rigRecordDraftSchema.parse({ name: 'rig', ...rig }) }).find(
    (each) => each.kind === kind,
  )?.level;
const cloth = (name: string) => CLOTHS.filter((each) => each.name === name);

describe('what may be heard of a worn microphone', () => {
  it.each([
    ['right before the mouth', { forwardM: 0.05, leftM: 0, upM: 0 }, {}, 'high'],
    ['right before it, in foam', { forwardM: 0.05, leftM: 0, upM: 0 }, { cover: 'foam' }, 'some'],
    ['at the corner', { forwardM: 0.005, leftM: 0.04, upM: 0 }, {}, 'low'],
    ['under the nose, facing up', { forwardM: -0.02, leftM: 0, upM: -0.11 }, { faces: 'up' }, 'some'],
    ['under the nose, facing down', { forwardM: -0.02, leftM: 0, upM: -0.11 }, { faces: 'down' }, 'low'],
    ['low on the chest', { forwardM: 0, leftM: 0, upM: -0.24 }, {}, 'low'],
  ])('breath %s', (_, at, rig, level) => {
    expect(risk('breath', 'tie knot', rig, at)).toBe(level);
  });

  it.each([
    ['nothing over it', {}, 'low'],
    ['one soft layer, taped', { layers: cloth('wool knit'), fixing: 'tape triangle' }, 'low'],
    ['two layers, taped', { layers: [...cloth('wool knit'), ...cloth('silk')], fixing: 'tape triangle' }, 'some'],
    ['a soft layer over a clip', { layers: cloth('wool knit'), fixing: 'clip' }, 'high'],
    ['crisp nylon', { layers: cloth('windproof nylon'), fixing: 'tape triangle' }, 'high'],
    ['an unnamed cloth over a clip', { clothLayers: 1, fixing: 'clip' }, 'high'],
  ])('rub with %s', (_, rig, level) => {
    expect(risk('rub', 'lapel', rig)).toBe(level);
  });

  it('rub of an arm and of hair is told whatever the rig', () => {
    expect(risk('rub', 'wrist', { layers: cloth('wool knit'), fixing: 'tape' })).toBe('high');
    expect(risk('rub', 'hairline', {})).toBe('some');
  });

  it('what is not noted is not known, and never low', () => {
    expect(risk('cable', 'lapel', {})).toBe('not known');
    expect(risk('cable', 'lapel', { strainRelief: false })).toBe('high');
    expect(risk('rub', 'lapel', null)).toBe('not known');
    expect(risk('breath', null, {})).toBe('not known');
  });

  it('sweat is told on skin alone', () => {
    expect(risk('sweat', 'lapel', { onSkin: true })).toBe('some');
    expect(risk('sweat', 'lapel', {})).toBeUndefined();
  });
});

describe('a spot by its name', () => {
  it.each([
    ['breastbone, under the jumper', 'breastbone high'],
    ['breastbone low', 'breastbone low'],
    ['clip behind the button', 'behind a button'],
    ['Under the collar', 'collar'],
    ['behind the ear', 'behind an ear'],
    ['from above, out of frame', null],
    ['gear bag', null],
    ['', null],
  ])('%s', (name, spot) => {
    expect(spotByName(name)).toBe(spot);
  });
});
