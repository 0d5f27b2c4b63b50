import type { FrameCamera } from '../domain/frame.ts';
import { type Place, radians } from './point.ts';

/** Half the angles that a camera sees, across and up, in radians. */
export interface HalfAngles {
  acrossRad: number;
  upRad: number;
}

/**
 * What a camera sees: half the recorded part of its sensor over the focal length is the tangent of half the angle. A
 * squeeze widens it across; the sensor is cropped, across or up, to the aspect that is delivered.
 * @example halfAngles({ sensorWidthMm: 36, sensorHeightMm: 24, focalMm: 36, squeeze: 1, aspect: 1.5, ... }).acrossRad // atan(0.5)
 */
export function halfAngles({ sensorWidthMm, sensorHeightMm, focalMm, squeeze, aspect }: FrameCamera): HalfAngles {
  const seenWidthMm = sensorWidthMm * squeeze;
  const widthMm = Math.min(seenWidthMm, sensorHeightMm * aspect);
  const heightMm = Math.min(sensorHeightMm, seenWidthMm / aspect);
  return { acrossRad: Math.atan(widthMm / 2 / focalMm), upRad: Math.atan(heightMm / 2 / focalMm) };
}

/** Where the edges of the picture are at a distance along the ground: heights of its top and bottom in the middle, and half its width there at the height of the axis. */
export function edgesAt(camera: FrameCamera, awayM: number): { topM: number; bottomM: number; halfWidthM: number } {
  const { acrossRad, upRad } = halfAngles(camera);
  const tilt = radians(camera.tiltDeg);
  return {
    topM: camera.heightM + awayM * Math.tan(tilt + upRad),
    bottomM: camera.heightM + awayM * Math.tan(tilt - upRad),
    halfWidthM: (awayM / Math.cos(tilt)) * Math.tan(acrossRad),
  };
}

/** Which edge of the picture a place is nearest to leaving by, or has left by. */
export type FrameEdge = 'top' | 'bottom' | 'left' | 'right' | 'behind';

/**
 * How far a place is out of the picture, in metres square to the edge that it is beyond; negative within. The picture is
 * a pyramid from the lens: each of its sides is a plane.
 */
export function outOfFrame(camera: FrameCamera, place: Place): { clearM: number; edge: FrameEdge } {
  const { acrossRad, upRad } = halfAngles(camera);
  const tilt = radians(camera.tiltDeg);
  const up = place.heightM - camera.heightM;
  // Seen from the lens: forward along its axis, up square to it, and to the right.
  const forward = place.awayM * Math.cos(tilt) + up * Math.sin(tilt);
  const upward = up * Math.cos(tilt) - place.awayM * Math.sin(tilt);
  const right = place.acrossM;
  if (forward <= 0) return { clearM: Math.max(-forward, 0), edge: 'behind' };
  const sides: [FrameEdge, number][] = [
    ['top', upward * Math.cos(upRad) - forward * Math.sin(upRad)],
    ['bottom', -upward * Math.cos(upRad) - forward * Math.sin(upRad)],
    ['left', -right * Math.cos(acrossRad) - forward * Math.sin(acrossRad)],
    ['right', right * Math.cos(acrossRad) - forward * Math.sin(acrossRad)],
  ];
  const [edge, clearM] = sides.reduce((most, side) => (side[1] > most[1] ? side : most));
  return { clearM, edge };
}
