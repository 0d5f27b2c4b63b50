import { describe, expect, it } from 'vitest';
import { frameBoomSchema, frameDraftSchema } from '../domain/frame.ts';
import { newId } from '../domain/identity.ts';
import { boomShadow } from './boomShadow.ts';

const frame = (light: object | null, camera: object = {}) =>
  frameDraftSchema.parse({ name: 'f', talkers: [{ id: newId(), name: 'Ferrier', awayM: 3, mouthHeightM: 1.5 }], light, camera: { heightM: 1.5, ...camera } });
const boom = (given: object) => frameBoomSchema.parse({ id: newId(), from: 'above', awayM: 2.6, acrossM: 0, heightM: 2, lengthM: 0.02, ...given });

describe('the shadow of a microphone', () => {
  it('of a light behind the camera at 45 degrees falls 0.4 m lower on who stands 0.4 m behind it: on the face', () => {
    expect(boomShadow(frame({ fromDeg: 0, upDeg: 45 }), boom({}))).toEqual({ on: 'Ferrier', inFrame: true });
  });

  it('of a steep light falls before the talker on the ground, and out of a close frame', () => {
    expect(boomShadow(frame({ fromDeg: 0, upDeg: 89 }, { focalMm: 85 }), boom({}))).toEqual({ on: 'the ground', inFrame: false });
  });

  it('on the ground within a wide frame is seen', () => {
    expect(boomShadow(frame({ fromDeg: 0, upDeg: 80 }, { focalMm: 8 }), boom({ awayM: 2.2 }))).toEqual({ on: 'the ground', inFrame: true });
  });

  it('of a light from the right passes to the left of who stands straight behind it', () => {
    expect(boomShadow(frame({ fromDeg: 80, upDeg: 20 }), boom({ heightM: 1.9 }))?.on).toBe('the ground');
  });

  it('of a light from behind the talker falls towards the camera and not on the talker', () => {
    expect(boomShadow(frame({ fromDeg: 180, upDeg: 45 }), boom({}))?.on).toBe('the ground');
  });

  it('without a light there is none', () => {
    expect(boomShadow(frame(null), boom({}))).toBeNull();
  });
});
