import { CLOTHS } from '@marvet/core/domain/clothLayer';
import { frameDraftSchema } from '@marvet/core/domain/frame';
import { placementDraftSchema } from '@marvet/core/domain/placement';
import { rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import { type SpotId, spotOf } from '@marvet/core/domain/spot';
import { wearerDraftSchema } from '@marvet/core/domain/wearer';
import type { BundledTrial } from '@marvet/core/formats/bundle';
import { nearestOut } from '@marvet/core/place/boomPlace';
import { placementNumbers } from '@marvet/core/place/nearMouth';
import { demoId } from './ids.ts';
import { stationId } from './places.ts';

const own = (...words: (string | number)[]) => demoId('loft', ...words);

/** Two in the net loft: the Netmaker sits at the bench, the Ferrier stands in the door. */
export const FRAMES: BundledTrial['frames'] = (() => {
  const draft = frameDraftSchema.parse({
    name: 'At the bench',
    stationId: stationId('loft'),
    camera: { focalMm: 35, aspect: 1.85, heightM: 1.25 },
    ceilingM: 3.5,
    talkers: [
      { id: own('talker', 1), name: 'Netmaker', awayM: 2.6, acrossM: -0.3, mouthHeightM: 1.15, looksDeg: 30, leanM: 0.2, turnDeg: 50 },
      { id: own('talker', 2), name: 'Ferrier', awayM: 3.4, acrossM: 0.7, mouthHeightM: 1.6, looksDeg: -15, leanM: 0.1, turnDeg: 40 },
    ],
    operator: { awayM: 2.2, acrossM: 1.8, handsM: 2, poleM: 3, poleKg: 0.7 },
  });
  const booms = (['above', 'below', 'side'] as const).flatMap((from) => {
    const microphone = { id: own('boom', from), aimsAt: 0, pressureShare: 0.25, tubeM: 0, lengthM: 0.2, screenM: 0.06, massKg: 0.4 };
    return nearestOut(draft, from, microphone) ?? [];
  });
  return [{ ...draft, booms, id: own('frame') }];
})();

/** Where the lavaliers of the day sat. */
export const PLACEMENTS: BundledTrial['placements'] = (
  [
    ['breastbone, under the jumper', 'breastbone high'],
    ['clip behind the button', 'behind a button'],
  ] as [string, SpotId][]
).map(([name, spot], place) => {
  const { at } = spotOf(spot);
  return { ...placementDraftSchema.parse({ name, on: 'body', spot, at, ...placementNumbers(at) }), id: own('placement', place) };
});

const wool = CLOTHS.filter(({ name }) => name === 'wool knit');

export const RIGS: BundledTrial['rigs'] = [
  { name: 'under the wool jumper', fixing: 'loop and tape', layers: wool, clothLayers: 1, clothLossDb: 4.5, cloth: 'wool knit', faces: 'out', strainRelief: true, onSkin: true },
  { name: 'open, on a clip', fixing: 'clip', faces: 'out', strainRelief: true },
].map((draft, place) => ({ ...rigRecordDraftSchema.parse(draft), id: own('rig', place) }));

export const WEARERS: BundledTrial['wearers'] = [
  { name: 'Ferrier', build: 'broad', heightM: 1.81, head: 'bare', transmitterDeg: 150, consent: 'Agreed on the slipway, 13 May: jumper and belt, by the assistant.' },
  { name: 'Netmaker', build: 'slight', heightM: 1.63, hair: 'long', transmitterDeg: 180, consent: '' },
].map((draft, position) => ({ ...wearerDraftSchema.parse({ ...draft, position }), id: own('wearer', position) }));
