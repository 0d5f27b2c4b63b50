import { describe, expect, it } from 'vitest';
import { frameBoomSchema, frameDraftSchema } from '../domain/frame.ts';
import { newId } from '../domain/identity.ts';
import { acousticsSchema, NOISE_KINDS, type NoiseSource, noiseSourceSchema } from '../domain/station.ts';
import { bestAim } from './bestAim.ts';
import { boomOverNoise, type Listening, movedByAMetre, noiseAt, roomShare, spotsOverNoise } from './noiseAt.ts';
import { aroundOctaves, NOISE_SHAPES, octavesDba, octavesOfThirds, sourceOctaves } from './noiseKinds.ts';
import { windAgainstScreens } from './windFigures.ts';

const source = (given: Partial<NoiseSource>) =>
  noiseSourceSchema.parse({ id: newId(), name: 'fridge', kind: 'refrigerator', awayM: 0, acrossM: 3, heightM: 1.5, levelDba: 50, ...given });
const place = (given: object) => acousticsSchema.parse(given);
const OMNI = { pressureShare: 1, tubeM: 0 };
const at = (given: Partial<Listening> = {}): Listening => ({ at: { awayM: 2, acrossM: 0, heightM: 1.5 }, axis: { awayM: 1, acrossM: 0, heightM: 0 }, pattern: OMNI, ...given });
const MARK = { awayM: 2, acrossM: 0 };

describe('noise of a kind', () => {
  it.each(NOISE_KINDS)('%s has the level that was given, in dB A', (kind) => {
    expect(octavesDba(sourceOctaves(source({ kind, levelDba: 61 })))).toBeCloseTo(61, 9);
    expect(NOISE_SHAPES[kind]).toHaveLength(8);
  });

  it('a spectrum of its own goes before that of its kind', () => {
    const own = sourceOctaves(source({ octavesDb: [0, 0, 0, 0, 30, 0, 0, 0], levelDba: 40 }));
    expect(own[4]).toBeCloseTo(40, 1);
  });

  it('of a take is summed from thirds: three of 40 dB are 44.77 dB an octave, one band is in its own octave, an empty octave is no spectrum', () => {
    const thirds = Array.from({ length: 31 }, () => 40 as number | null);
    for (const octave of octavesOfThirds(thirds)!) expect(octave).toBeCloseTo(44.77, 2);
    // Place 17 is 1 kHz.
    const tone = thirds.map((_, band) => (band === 17 ? 60 : -60));
    expect(octavesOfThirds(tone)!.indexOf(Math.max(...octavesOfThirds(tone)!))).toBe(4);
    expect(octavesOfThirds(thirds.map((db, band) => (band >= 25 && band <= 27 ? null : db)))).toBeNull();
  });

  it('from all around falls by its slope: white by none per hertz, 3 dB more each octave', () => {
    const white = aroundOctaves(40, 0);
    expect((white[5] as number) - (white[4] as number)).toBeCloseTo(3.01, 2);
  });
});

describe('noise at a microphone', () => {
  it('of one source falls by 20 log of its distance in the open: 50 dB A at 1 m are 40.5 at 3 m', () => {
    const found = noiseAt(at(), place({ sources: [source({})] }), MARK);
    expect(found.sources[0]).toMatchObject({ distanceM: 3 });
    expect(found.totalDba).toBeCloseTo(50 - 20 * Math.log10(3), 6);
  });

  it('adds by powers: two equal ones are 3.01 dB more, and one of 0 dB beside 40 adds nothing', () => {
    const one = noiseAt(at(), place({ sources: [source({})] }), MARK).totalDba!;
    expect(noiseAt(at(), place({ sources: [source({}), source({ acrossM: -3 })] }), MARK).totalDba! - one).toBeCloseTo(3.01, 2);
    expect(noiseAt(at(), place({ sources: [source({})], noiseDba: 0 }), MARK).totalDba).toBeCloseTo(one, 2);
  });

  it('by a figure of eight is gone at right angles and whole ahead; a cardioid has 6.02 dB less from its side', () => {
    const from = (pressureShare: number) => noiseAt(at({ pattern: { pressureShare, tubeM: 0 } }), place({ sources: [source({})] }), MARK).totalDba!;
    expect(from(0)).toBeLessThan(from(1) - 60);
    expect(from(0.5) - from(1)).toBeCloseTo(-6.02, 2);
    expect(noiseAt(at({ pattern: { pressureShare: 0, tubeM: 0 } }), place({ sources: [source({ awayM: 3, acrossM: 0 })] }), MARK).totalDba).toBeCloseTo(from(1), 2);
  });

  it('in a room has its diffuse sound as well: far off 16π / R more than at 1 m, whatever the distance', () => {
    const room = { sizeM: [5, 4, 2.5] as [number, number, number], absorption: [0.1, 0.1, 0.1, 0.1, 0.1, 0.1] };
    // S = 85 m², R = 8.5 / 0.9 = 9.44 m², 16π / R = 5.32: 7.26 dB over the direct sound at 1 m.
    expect(roomShare(room, 4)).toBeCloseTo(5.32, 2);
    const far = noiseAt(at(), place({ ...room, sources: [source({ acrossM: 40 })] }), MARK).totalDba!;
    expect(far).toBeCloseTo(50 + 7.26, 1);
  });

  it('from all around is weaker by what the pattern takes in: a cardioid a third, 4.77 dB', () => {
    const omni = noiseAt(at(), place({ noiseDba: 40 }), MARK);
    expect(omni.aroundDba).toBeCloseTo(40, 6);
    expect(noiseAt(at({ pattern: { pressureShare: 0.5, tubeM: 0 } }), place({ noiseDba: 40 }), MARK).aroundDba).toBeCloseTo(40 - 4.77, 2);
  });

  it('holds the hum of a station with its bed, by powers', () => {
    const hum = { fundamentalHz: 43, levelDba: 50 };
    expect(noiseAt(at(), place({ hum }), MARK).totalDba).toBeCloseTo(50, 6);
    expect(noiseAt(at(), place({ hum, noiseDba: 50 }), MARK).totalDba).toBeCloseTo(53.01, 2);
  });

  it('is not known where nothing is known, and never 0', () => {
    expect(noiseAt(at(), place({}), MARK).totalDba).toBeNull();
  });
});

describe('a boom against noise', () => {
  const frame = frameDraftSchema.parse({ name: 'f', talkers: [{ id: newId(), name: 'Ferrier', awayM: 2, mouthHeightM: 1.5 }] });
  const boom = frameBoomSchema.parse({ id: newId(), from: 'above', awayM: 1.6, acrossM: 0, heightM: 1.9, pressureShare: 0.5 });

  it('turns away from a source beside it where the null gains more than the voice loses', () => {
    const loud = place({ sources: [source({ awayM: 0.6, acrossM: 0, heightM: 1.4, levelDba: 60 })] });
    const aim = bestAim(frame, boom, loud)!;
    expect(aim.gainDb).toBeGreaterThan(0.5);
    expect(aim.overDb).toBeGreaterThan(boomOverNoise(frame, boom, loud)!.overDb);
    // It is what the whole reckoning gives for that aim.
    expect(aim.overDb).toBeCloseTo(boomOverNoise(frame, boom, loud, aim.axis)!.overDb, 6);
    const room = { ...loud, sizeM: [5, 4, 3] as [number, number, number], absorption: Array(6).fill(0.9), noiseDba: 20 };
    const inRoom = bestAim(frame, { ...boom, tubeM: 0.2 }, room)!;
    expect(inRoom.overDb).toBeCloseTo(boomOverNoise(frame, { ...boom, tubeM: 0.2 }, room, inRoom.axis)!.overDb, 6);
  });

  it('stays on the mouth where noise comes from all around', () => {
    expect(bestAim(frame, boom, place({ noiseDba: 40 }))).toBeNull();
  });

  it('gains most by moving away from what is loud, and loses by moving to it', () => {
    const moves = movedByAMetre(frame, { ...boom, pressureShare: 1 }, place({ sources: [source({ acrossM: 2, levelDba: 60 })] }));
    expect(moves[0]!.directionDeg).toBe(270);
    expect(moves.at(-1)!.directionDeg).toBe(90);
    // From about 2 m to about 3 m: 3.4 dB.
    expect(moves[0]!.gainDb).toBeCloseTo(20 * Math.log10(Math.hypot(3, 0.4, 0.4) / Math.hypot(2, 0.4, 0.4)), 1);
  });

  it('with noise from all around gains nothing by moving', () => {
    for (const { gainDb } of movedByAMetre(frame, boom, place({ noiseDba: 40 }))) expect(gainDb).toBeCloseTo(0, 9);
  });

  it('puts the sides in order of voice over noise', () => {
    const spots = spotsOverNoise(frame, boom, place({ noiseDba: 40 }));
    expect(spots.length).toBeGreaterThan(1);
    expect([...spots].sort((a, b) => b.overDb - a.overDb)).toEqual(spots);
  });
});

describe('wind against screens', () => {
  it('a screen wins by its loss and a little more, since it leaves the lows; twice the wind is 17 dB more', () => {
    const [bare, foam, fur] = windAgainstScreens(4, 60);
    expect(foam!.overDb - bare!.overDb).toBeGreaterThan(12);
    expect(fur!.overDb - bare!.overDb).toBeGreaterThan(24);
    const [twice] = windAgainstScreens(8, 60);
    expect(bare!.overDb - twice!.overDb).toBeCloseTo(17, 6);
  });

  it('holds to the wind at which 20 dB are left', () => {
    const [, , fur] = windAgainstScreens(3, 66);
    expect(windAgainstScreens(fur!.holdsToMs, 66)[2]!.overDb).toBeCloseTo(20, 6);
  });
});
