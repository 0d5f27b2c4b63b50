import { describe, expect, it } from 'vitest';
import { frameCameraSchema } from '../domain/frame.ts';
import { edgesAt, halfAngles, outOfFrame } from './frameView.ts';
import { degrees } from './point.ts';

const camera = (given: object) => frameCameraSchema.parse(given);

describe('what a camera sees', () => {
  // By hand: half of what is recorded over the focal length.
  it.each([
    ['full frame at 36 mm, whole', { sensorWidthMm: 36, sensorHeightMm: 24, focalMm: 36, aspect: 1.5 }, 26.565, 18.435],
    ['the same cropped to 2.4: less up', { sensorWidthMm: 36, sensorHeightMm: 24, focalMm: 36, aspect: 2.4 }, 26.565, 11.768],
    ['the same cropped to 1: less across', { sensorWidthMm: 36, sensorHeightMm: 24, focalMm: 36, aspect: 1 }, 18.435, 18.435],
    ['a squeeze of 2 sees twice as wide', { sensorWidthMm: 20, sensorHeightMm: 20, focalMm: 40, squeeze: 2, aspect: 2 }, 26.565, 14.036],
  ])('%s', (_, given, across, up) => {
    const { acrossRad, upRad } = halfAngles(camera(given));
    expect(degrees(acrossRad)).toBeCloseTo(across, 2);
    expect(degrees(upRad)).toBeCloseTo(up, 2);
  });

  it('at three metres, level, 1.5 m up: the picture is as high as similar triangles have it', () => {
    const level = camera({ sensorWidthMm: 36, sensorHeightMm: 24, focalMm: 36, aspect: 1.5, heightM: 1.5 });
    const { topM, bottomM, halfWidthM } = edgesAt(level, 3);
    expect(topM).toBeCloseTo(2.5, 9);
    expect(bottomM).toBeCloseTo(0.5, 9);
    expect(halfWidthM).toBeCloseTo(1.5, 9);
  });

  it('tilted up by half its angle, its lower edge runs level', () => {
    const { upRad } = halfAngles(camera({}));
    expect(edgesAt(camera({ tiltDeg: degrees(upRad), heightM: 1 }), 7).bottomM).toBeCloseTo(1, 9);
  });
});

describe('out of the picture', () => {
  const level = camera({ sensorWidthMm: 36, sensorHeightMm: 24, focalMm: 36, aspect: 1.5, heightM: 1.5 });

  it('on the edge there is nothing to spare, whichever edge it is', () => {
    expect(outOfFrame(level, { awayM: 3, acrossM: 0, heightM: 2.5 })).toMatchObject({ edge: 'top' });
    for (const place of [
      { awayM: 3, acrossM: 0, heightM: 2.5 },
      { awayM: 3, acrossM: 0, heightM: 0.5 },
      { awayM: 3, acrossM: 1.5, heightM: 1.5 },
      { awayM: 3, acrossM: -1.5, heightM: 1.5 },
    ])
      expect(outOfFrame(level, place).clearM).toBeCloseTo(0, 9);
  });

  it('a hand over the edge is as far out as square to the edge, which is less than straight up', () => {
    expect(outOfFrame(level, { awayM: 3, acrossM: 0, heightM: 2.6 }).clearM).toBeCloseTo(0.1 * Math.cos(Math.atan(1 / 3)), 9);
  });

  it('in the middle it is deep within, and behind the lens it is out', () => {
    expect(outOfFrame(level, { awayM: 3, acrossM: 0, heightM: 1.5 }).clearM).toBeLessThan(-0.9);
    expect(outOfFrame(level, { awayM: -0.5, acrossM: 0, heightM: 1.5 })).toEqual({ clearM: 0.5, edge: 'behind' });
  });

  it('tilting the camera tilts the edges with it', () => {
    const up = camera({ ...level, tiltDeg: 20 });
    expect(outOfFrame(up, { awayM: 3, acrossM: 0, heightM: 2.6 }).clearM).toBeLessThan(0);
    expect(outOfFrame(up, { awayM: 3, acrossM: 0, heightM: 0.9 })).toMatchObject({ edge: 'bottom' });
  });
});
