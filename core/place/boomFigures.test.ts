import { describe, expect, it } from 'vitest';
import { type FrameBoom, type FrameDraft, frameBoomSchema, frameDraftSchema } from '../domain/frame.ts';
import { boomFigures, directOverRoomDb, handMeasures, voiceOverNoiseDb } from './boomFigures.ts';
import { clearOfFrame, nearestOut } from './boomPlace.ts';
import { mouthDb } from './mouth.ts';

const ID = '00000000-0000-4000-8000-000000000001';
const talker = { id: ID, name: 'Ferrier', awayM: 3, mouthHeightM: 1.5 };
const frame = (given: object = {}): FrameDraft =>
  frameDraftSchema.parse({ name: 'Two-hander', talkers: [talker], camera: { sensorWidthMm: 36, sensorHeightMm: 24, focalMm: 50, aspect: 1.5, heightM: 1.5 }, ...given });
const boom = (given: object): FrameBoom => frameBoomSchema.parse({ id: ID, from: 'above', awayM: 2, heightM: 1.5, pressureShare: 1, ...given });

describe('a voice at a microphone', () => {
  it('1 m straight ahead of the mouth is what all is told against', () => {
    const [heard] = boomFigures(frame(), boom({})).talkers;
    expect(heard).toMatchObject({ distanceM: 1, microphoneOffDeg: 0, mouthOffDeg: 0 });
    for (const level of [heard?.chestDb, heard?.wordsDb, heard?.sibilantsDb]) expect(level).toBeCloseTo(0, 9);
  });

  it('is 6 dB up at half the distance, by the inverse square', () => {
    expect(boomFigures(frame(), boom({ awayM: 2.5 })).talkers[0]?.wordsDb).toBeCloseTo(20 * Math.log10(2), 9);
  });

  it('overhead is off the mouth’s axis: sibilants lose more than words, and chest hardly any', () => {
    const { chestDb, wordsDb, sibilantsDb, mouthOffDeg } = boomFigures(frame(), boom({ awayM: 3, heightM: 2.5 })).talkers[0]!;
    expect(mouthOffDeg).toBeCloseTo(90, 6);
    expect(sibilantsDb).toBeLessThan(wordsDb - 2);
    expect(wordsDb).toBeLessThan(chestDb);
    expect(chestDb).toBeGreaterThan(-1.2);
  });

  it('a cardioid that looks away by a right angle hears the other talker 6 dB weaker, which a cue gives back', () => {
    // The microphone between two talkers, one ahead of it and one to its side, both a metre away and looking at it.
    const two = frame({
      talkers: [
        { id: ID, name: 'A', awayM: 3, mouthHeightM: 1.5, looksDeg: 0 },
        { id: ID, name: 'B', awayM: 2, acrossM: 1, mouthHeightM: 1.5, looksDeg: -90 },
      ],
    });
    const { cues, talkers } = boomFigures(two, boom({ pressureShare: 0.5 }));
    expect(cues[0]).toMatchObject({ talker: 1 });
    expect(cues[0]?.swingDeg).toBeCloseTo(90, 6);
    expect(cues[0]?.lostDb).toBeCloseTo(20 * Math.log10(2), 6);
    expect(talkers[1]?.microphoneOffDeg).toBeCloseTo(90, 6);
  });
});

describe('what a boom costs', () => {
  it.each([
    ['supercardioid', 0.37, 20 * Math.log10(0.26)],
    ['hypercardioid', 0.25, 20 * Math.log10(0.5)],
    ['omnidirectional', 1, 0],
  ])('the rear of a %s takes in so much', (_, pressureShare, db) => {
    expect(boomFigures(frame(), boom({ pressureShare })).rearDb).toBeCloseTo(db, 6);
  });

  it('a cardioid takes in nothing from behind', () => {
    expect(boomFigures(frame(), boom({ pressureShare: 0.5 })).rearDb).toBeNull();
  });

  it('straight over the head its rear looks at the ceiling, as far as is left to it', () => {
    const { rear } = boomFigures(frame({ ceilingM: 2.6 }), boom({ awayM: 3, heightM: 2.1, lengthM: 0.2 }));
    expect(rear?.at).toBe('ceiling');
    expect(rear?.distanceM).toBeCloseTo(0.3, 9);
    expect(boomFigures(frame(), boom({ awayM: 3, heightM: 2.1 })).rear).toBeNull();
    expect(boomFigures(frame(), boom({ awayM: 3, heightM: 0.9, from: 'below' })).rear?.at).toBe('ground');
  });

  it('a pole is weighed by its lever: microphone at its end, itself at its half', () => {
    // Hands and tail at one height, two metres apart along the ground.
    const held = frame({ operator: { awayM: 3, acrossM: 2, handsM: 2.3, poleM: 3, poleKg: 0.6 } });
    const { pole } = boomFigures(held, boom({ awayM: 3, heightM: 2.1, lengthM: 0.2, massKg: 0.5 }));
    expect(pole?.neededM).toBeCloseTo(1.8, 9);
    expect(pole?.momentNm).toBeCloseTo(9.81 * (0.5 * 2 + 0.6 * 1), 9);
    expect(pole?.reaches).toBe(true);
    expect(boomFigures(frame({ operator: { awayM: 3, acrossM: 6, handsM: 2 } }), boom({ awayM: 3, heightM: 2.1 })).pole?.reaches).toBe(false);
    expect(boomFigures(frame(), boom({ from: 'planted' })).pole).toBeNull();
  });

  it('a restless head costs a narrow microphone more than a wide one, and a still head costs nothing', () => {
    const restless = frame({ talkers: [{ ...talker, leanM: 0.3, turnDeg: 60 }] });
    const near = { awayM: 2.6, heightM: 1.8 };
    const wide = boomFigures(restless, boom({ ...near, pressureShare: 0.7 })).moves;
    const narrow = boomFigures(restless, boom({ ...near, pressureShare: 0.25, tubeM: 0.25 })).moves;
    expect(narrow.worstDb).toBeLessThan(wide.worstDb);
    const still = boomFigures(frame({ talkers: [{ ...talker, leanM: 0, turnDeg: 0 }] }), boom(near)).moves;
    expect(still.worstDb).toBeCloseTo(0, 9);
  });
});

it('a microphone laid on the mouth has figures still, not what is no number', () => {
  const { talkers, pole, rear, moves, clearM } = boomFigures(frame({ ceilingM: 2.5 }), boom({ awayM: 3, heightM: 1.5 }));
  for (const value of [...Object.values(talkers[0]!), pole?.neededM, moves.worstDb, clearM]) expect(Number.isFinite(value)).toBe(true);
  expect(rear).toBeNull();
});

describe('just out of frame', () => {
  const kinds = { id: ID, aimsAt: 0, pressureShare: 0.37, tubeM: 0, lengthM: 0.2, screenM: 0.06, massKg: 0.4 };

  it.each(['above', 'below', 'side'] as const)('%s: all of it is out by the margin, and a hand nearer it is not', (from) => {
    const given = frame({ marginM: 0.08 });
    const found = nearestOut(given, from, kinds)!;
    expect(clearOfFrame(given, found).clearM).toBeCloseTo(0.08, 6);
    const nearer = { ...found, heightM: found.heightM + (from === 'above' ? -0.1 : from === 'below' ? 0.1 : 0), acrossM: found.acrossM - (from === 'side' ? 0.1 : 0) };
    expect(clearOfFrame(given, nearer).clearM).toBeLessThan(0.08);
  });

  it('below is farther than above where the picture reaches farther down', () => {
    const tiltedDown = frame({ camera: { ...frame().camera, focalMm: 70, tiltDeg: -4 } });
    const distance = (from: 'above' | 'below') => boomFigures(tiltedDown, nearestOut(tiltedDown, from, kinds)!).talkers[0]!.distanceM;
    expect(distance('below')).toBeGreaterThan(distance('above'));
  });

  it('from below it stands on the ground at the most, and never in it', () => {
    const heights = [20, 24, 28, 32, 40, 60].flatMap((focalMm) => nearestOut(frame({ camera: { ...frame().camera, focalMm } }), 'below', kinds)?.heightM ?? []);
    expect(heights.length).toBeGreaterThan(1);
    for (const heightM of heights) expect(heightM).toBeGreaterThanOrEqual(kinds.lengthM);
  });

  it('a wide picture down to the floor leaves no place below', () => {
    expect(nearestOut(frame({ camera: { ...frame().camera, focalMm: 18 } }), 'below', kinds)).toBeNull();
  });
});

describe('a voice in a room', () => {
  const room = { sizeM: [6, 5, 3] as const, absorption: [0.1, 0.1, 0.2, 0.2, 0.2, 0.2] };
  // By hand: surface 126 m², R = 126 · 0.2 / 0.8; the mouth's factor by Simpson's rule over the sphere.
  const constant = (126 * 0.2) / 0.8;
  const factor = (() => {
    const n = 200;
    let sum = 0;
    for (let k = 0; k <= n; k++) {
      const angle = (Math.PI * k) / n;
      sum += (k === 0 || k === n ? 1 : k % 2 ? 4 : 2) * 10 ** (mouthDb(angle, 1000) / 10) * Math.sin(angle);
    }
    return 2 / ((sum * Math.PI) / n / 3);
  })();

  it('stands as far over the room as its distance against the critical one', () => {
    const criticalM = Math.sqrt((factor * constant) / (16 * Math.PI));
    expect(directOverRoomDb(frame(), boom({ awayM: 3 - criticalM }), room)).toBeCloseTo(0, 2);
  });

  it('falls by 6 dB with twice the distance; a cardioid is 4.8 dB better, a hypercardioid 6', () => {
    const at = (given: object) => directOverRoomDb(frame(), boom(given), room)!;
    expect(at({ awayM: 2 }) - at({ awayM: 1 })).toBeCloseTo(20 * Math.log10(2), 6);
    expect(at({ pressureShare: 0.5 }) - at({})).toBeCloseTo(10 * Math.log10(3), 2);
    expect(at({ pressureShare: 0.25 }) - at({})).toBeCloseTo(10 * Math.log10(4), 2);
  });

  it('an unknown room is said to be unknown', () => {
    expect(directOverRoomDb(frame(), boom({}), { sizeM: null, absorption: null })).toBeNull();
    expect(voiceOverNoiseDb({ wordsDb: 0 }, boom({}), null)).toBeNull();
  });

  it('a normal voice at 1 m stands 10 dB over a place of 50 dB A, and a cardioid keeps 4.8 dB of the noise away', () => {
    expect(voiceOverNoiseDb({ wordsDb: 0 }, boom({}), 50)).toBeCloseTo(10, 6);
    expect(voiceOverNoiseDb({ wordsDb: 0 }, boom({ pressureShare: 0.5 }), 50)).toBeCloseTo(10 + 10 * Math.log10(3), 2);
  });
});

describe('by hand', () => {
  it.each([
    [0.44, '2 spans'],
    [0.55, '2.5 spans'],
    [1.2, '4 feet'],
    [6, '8 paces'],
  ])('%f m is %s', (metres, text) => {
    expect(handMeasures(metres)).toBe(text);
  });
});
