import { eyringS, type Walls } from '../simulate/imageRoom.ts';
import { diffusePower, type MicrophonePattern } from '../simulate/microphone.ts';

/** Octave bands in which a room is told. */
export const ROOM_OCTAVES_HZ = [125, 250, 500, 1000, 2000, 4000] as const;

/** Decay of a room in one octave band. */
export interface DecayOfBand {
  hz: number;
  sabineS: number;
  eyringS: number;
}

const surfaceOf = ([x, y, z]: Walls['sizeM']) => 2 * (x * y + y * z + x * z);
const volumeOf = ([x, y, z]: Walls['sizeM']) => x * y * z;

/** Reverberation by Sabine's formula 0.161 V / (S α) and by Eyring's 0.161 V / (-S ln(1 - α)), band by band. */
export function decaysOf(walls: Walls): DecayOfBand[] {
  const eyring = eyringS(walls);
  return ROOM_OCTAVES_HZ.map((hz, band) => ({
    hz,
    sabineS: (0.161 * volumeOf(walls.sizeM)) / (surfaceOf(walls.sizeM) * (walls.absorption[band] as number)),
    eyringS: eyring[band] as number,
  }));
}

/**
 * Distance at which a voice and the room's own sound are equally strong at a microphone: the square root of
 * R / (16 π D), with R = Sα / (1 - α) and D the pattern's mean power over the sphere (H. Kuttruff, Room Acoustics, chapter 5). The
 * source sends alike in all directions; a mouth that looks at the microphone reaches a little farther.
 */
export function criticalDistanceM(walls: Walls, pattern: MicrophonePattern, band: number): number {
  const share = walls.absorption[band] as number;
  const constant = (surfaceOf(walls.sizeM) * share) / (1 - share);
  return Math.sqrt(constant / (16 * Math.PI * diffusePower(pattern, ROOM_OCTAVES_HZ[band] as number)));
}

/** Direct sound over the room's own at a distance, in dB. */
export const directAtDb = (criticalM: number, distanceM: number): number => 20 * Math.log10(criticalM / distanceM);

/**
 * The share that all surfaces of a room take up, by a decay that was measured in it: Eyring's formula turned round,
 * α = 1 - exp(-0.161 V / (S T)). One figure for all bands, since speech tells one.
 * @param decayS for 60 dB
 */
export function absorptionOfDecay(sizeM: Walls['sizeM'], decayS: number): number[] {
  const share = 1 - Math.exp((-0.161 * volumeOf(sizeM)) / (surfaceOf(sizeM) * decayS));
  return ROOM_OCTAVES_HZ.map(() => Math.max(0.01, Math.min(0.99, share)));
}

/** How much less of a diffuse field a tube takes in than its capsule alone, by octave, in dB: nothing where waves are longer than it. */
export function tubeWinsDb(pattern: MicrophonePattern): number[] {
  return ROOM_OCTAVES_HZ.map((hz) => 10 * Math.log10(diffusePower({ ...pattern, tubeM: 0 }, hz) / diffusePower(pattern, hz)));
}

/** In rooms smaller than this a tube hears so much from its sides, all at once, that it is hardly a tube. */
const SMALL_ROOM_M3 = 60;
const PARALLEL_AND_BARE = 0.08;

/** What is worth a word about a room, each with its reason. */
export function roomRemarks(walls: Walls): string[] {
  const remarks: string[] = [];
  const mid = ((walls.absorption[2] as number) + (walls.absorption[3] as number)) / 2;
  const volume = volumeOf(walls.sizeM);
  if (volume < SMALL_ROOM_M3 && mid < 0.2)
    remarks.push(
      `Small and hard (${volume.toFixed(0)} m³, surfaces take up ${(100 * mid).toFixed(0)} %): under its tube’s own length in waves a long tube is no more than its capsule, and reflections come from its sides within some milliseconds. A short supercardioid or hypercardioid is worth hearing first; others say a tube is fine where it is near.`,
    );
  if (mid < PARALLEL_AND_BARE)
    remarks.push('Bare parallel walls ring between each other: clap and listen for a flutter, and keep microphone and mouth out of the line square between them.');
  const [x, y, z] = [...walls.sizeM].sort((a, b) => a - b) as [number, number, number];
  if (Math.abs(y / x - 1) < 0.06 || Math.abs(z / y - 1) < 0.06)
    remarks.push('Two sides are nearly as long as each other: their low resonances fall together, and a corner is the worst place for a microphone.');
  return remarks;
}
