import { Biquad } from '../audio/biquad.ts';
import { filled } from '../audio/filled.ts';
import { diffusePower, type MicrophonePattern, patternGain, proximitySection, SPEED_OF_SOUND_MS } from './microphone.ts';
import { ROOM_BANDS_HZ, sumOfBands } from './octaveBands.ts';
import type { RandomSource } from './random.ts';

export type Point = readonly [number, number, number];

/** The walls of a box. */
export interface Walls {
  /** Length, width and height in metres. */
  sizeM: Point;
  /** Share of the energy that all surfaces take up, one an octave band from 125 Hz to 4 kHz. */
  absorption: readonly number[];
}

/** A box with a talker and a microphone in it, in metres from one corner; the microphone points at the talker. */
export interface ImageRoom extends Walls {
  talkerM: Point;
  microphoneM: Point;
  pattern: MicrophonePattern;
}

/** Reverberation time by Eyring's formula, one an octave band, in seconds. */
export function eyringS({ sizeM, absorption }: Walls): number[] {
  const { volume, surface } = measuresOf(sizeM);
  return absorption.map((share) => (0.161 * volume) / (-surface * Math.log(1 - share)));
}

function measuresOf([x, y, z]: Point) {
  const volume = x * y * z;
  const surface = 2 * (x * y + y * z + x * z);
  return { volume, surface, meanFreePathM: (4 * volume) / surface };
}

/** Walls are met this often, on average, when single reflections begin and end to merge into a tail. */
const [MERGING_FROM, MERGED_AT] = [2, 5];
/** How far the tail is followed, in parts of the longest reverberation time. */
const TAIL_SHARE = 1.1;

/**
 * Impulse response of a box room, from the mouth to the capsule: the direct sound at gain 1 / distance
 * with the proximity effect; single reflections from image sources; and, once walls were met a few
 * times, a diffuse tail, since images of a perfect box would go on to ring along its walls for longer
 * than any real room does. The tail has the energy that a diffuse field has, 4πc/V of the direct sound
 * at 1 m a second, falls in each octave band as Eyring's formula tells, and reaches the capsule from all
 * around.
 * @returns the response, as long as the room is heard
 */
export function roomResponse(room: ImageRoom, rateHz: number, random: RandomSource): Float64Array {
  const response = reflectionsOf(room, rateHz, random);
  const distanceM = distanceOf(room.talkerM, room.microphoneM);
  const direct = new Float64Array(response.length);
  direct[Math.round((distanceM / SPEED_OF_SOUND_MS) * rateHz)] = 1 / distanceM;
  if (room.pattern.pressureShare < 1) new Biquad(proximitySection(room.pattern, distanceM, rateHz)).process(direct, direct, direct.length);
  return response.map((x, index) => x + (direct[index] as number));
}

/** The same without its direct sound: what the room alone answers. */
export function reflectionsOf(room: ImageRoom, rateHz: number, random: RandomSource): Float64Array {
  const decaysS = eyringS(room);
  const arrivalS = distanceOf(room.talkerM, room.microphoneM) / SPEED_OF_SOUND_MS;
  const length = Math.ceil((arrivalS + TAIL_SHARE * Math.max(...decaysS)) * rateHz);
  const pathS = measuresOf(room.sizeM).meanFreePathM / SPEED_OF_SOUND_MS;
  const merging = { fromS: arrivalS + MERGING_FROM * pathS, toS: arrivalS + MERGED_AT * pathS };
  const bands = ROOM_BANDS_HZ.map(() => new Float64Array(length));
  layReflections(bands, room, rateHz, merging, random);
  layTail(bands, room, rateHz, merging, random);
  return sumOfBands(bands, rateHz);
}

interface Merging {
  fromS: number;
  toS: number;
}

/** Share of the energy that is still told as single reflections. */
function singleShare({ fromS, toS }: Merging, atS: number): number {
  return Math.cos((Math.PI / 2) * Math.max(0, Math.min(1, (atS - fromS) / (toS - fromS)))) ** 2;
}

/** Every mirror image of the talker sends its sound straight, weakened by its distance, by each wall it passed, and by the pattern. */
function layReflections(bands: readonly Float64Array[], room: ImageRoom, rateHz: number, merging: Merging, random: RandomSource): void {
  const axis = direction(room.microphoneM, room.talkerM);
  const reachM = merging.toS * SPEED_OF_SOUND_MS;
  const [most0, most1, most2] = room.sizeM.map((size) => Math.ceil(reachM / size / 2) + 1) as [number, number, number];
  const imageAlong = (dimension: 0 | 1 | 2, index: number, mirrored: number) => 2 * index * room.sizeM[dimension] + (mirrored ? -1 : 1) * room.talkerM[dimension];
  for (let nx = -most0; nx <= most0; nx++) {
    for (let ny = -most1; ny <= most1; ny++) {
      for (let nz = -most2; nz <= most2; nz++) {
        for (let mirror = 0; mirror < 8; mirror++) {
          const [mx, my, mz] = [mirror & 1, (mirror >> 1) & 1, (mirror >> 2) & 1] as const;
          const hits = Math.abs(2 * nx - mx) + Math.abs(2 * ny - my) + Math.abs(2 * nz - mz);
          if (hits === 0) continue;
          // No real room is so regular that its images would beat: each lies a few centimetres off.
          const at: Point = [imageAlong(0, nx, mx) + 0.04 * random.normal(), imageAlong(1, ny, my) + 0.04 * random.normal(), imageAlong(2, nz, mz) + 0.04 * random.normal()];
          const distanceM = Math.max(0.1, distanceOf(at, room.microphoneM));
          if (distanceM >= reachM) continue;
          const seconds = distanceM / SPEED_OF_SOUND_MS;
          const way = direction(room.microphoneM, at);
          const angle = Math.acos(Math.max(-1, Math.min(1, way[0] * axis[0] + way[1] * axis[1] + way[2] * axis[2])));
          const gain = Math.sqrt(singleShare(merging, seconds)) / distanceM;
          const sample = Math.round(seconds * rateHz);
          bands.forEach((into, band) => {
            if (sample >= into.length) return;
            const kept = (1 - (room.absorption[band] as number)) ** (hits / 2);
            into[sample] = (into[sample] as number) + gain * kept * patternGain(room.pattern, angle, ROOM_BANDS_HZ[band] as number);
          });
        }
      }
    }
  }
}

/** The diffuse field: noise whose energy falls evenly, by 60 dB in each band's reverberation time. */
function layTail(bands: readonly Float64Array[], room: ImageRoom, rateHz: number, merging: Merging, random: RandomSource): void {
  const { volume } = measuresOf(room.sizeM);
  const decaysS = eyringS(room);
  const length = bands[0]?.length ?? 0;
  const start = Math.floor(merging.fromS * rateHz);
  const noise = filled(length, (index) => (index < start ? 0 : random.normal() * Math.sqrt(1 - singleShare(merging, index / rateHz))));
  bands.forEach((into, band) => {
    const gain = Math.sqrt(((4 * Math.PI * SPEED_OF_SOUND_MS) / volume / rateHz) * diffusePower(room.pattern, ROOM_BANDS_HZ[band] as number));
    const perSample = 10 ** (-3 / ((decaysS[band] as number) * rateHz));
    let height = gain * perSample ** start;
    for (let index = start; index < length; index++) {
      into[index] = (into[index] as number) + height * (noise[index] as number);
      height *= perSample;
    }
  });
}

function distanceOf(a: Point, b: Point): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

function direction(from: Point, to: Point): [number, number, number] {
  const distance = Math.max(1e-6, distanceOf(from, to));
  return [(to[0] - from[0]) / distance, (to[1] - from[1]) / distance, (to[2] - from[2]) / distance];
}

const WALL_MARGIN_M = 0.1;
const TURNS = 24;

/**
 * Where a microphone stands at a distance from a talker, turned on until it is within the walls.
 * @param angleRad direction that is tried first, in the horizontal
 * @param upRad how far above the mouth, as an angle; given up where it leads through the ceiling
 * @throws where no direction leads to a place inside the walls
 */
export function microphoneIn(sizeM: Point, talkerM: Point, distanceM: number, angleRad: number, upRad: number): Point {
  for (const up of [upRad, 0]) {
    for (let turn = 0; turn < TURNS; turn++) {
      const angle = angleRad + (2 * Math.PI * turn) / TURNS;
      const at: Point = [talkerM[0] + distanceM * Math.cos(angle) * Math.cos(up), talkerM[1] + distanceM * Math.sin(angle) * Math.cos(up), talkerM[2] + distanceM * Math.sin(up)];
      if (at.every((value, axis) => value >= WALL_MARGIN_M && value <= (sizeM[axis] as number) - WALL_MARGIN_M)) return at;
    }
  }
  throw new Error(`A microphone ${distanceM} m from the talker does not fit into a room of ${sizeM.join(' x ')} m`);
}
