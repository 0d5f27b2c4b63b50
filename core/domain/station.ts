import { z } from 'zod';
import { idSchema, nameSchema, OWNED, remarkSchema } from './identity.ts';

export const hazardSchema = z.enum(['road', 'platform', 'water', 'vehicle', 'height', 'overhead line']);
export type Hazard = z.infer<typeof hazardSchema>;

const levelDba = z.number().min(0, 'A level is 0 to 150 dB A').max(150, 'A level is 0 to 150 dB A');
const lengthM = z.number().min(0.5, 'A room measures 0.5 to 500 m').max(500, 'A room measures 0.5 to 500 m');
const share = z.number().min(0.01, 'Absorption is 0.01 to 0.99').max(0.99, 'Absorption is 0.01 to 0.99');

/** A machine that is heard at a station. */
export const humSchema = z.object({ fundamentalHz: z.number().min(5, 'A fundamental is 5 to 2,000 Hz').max(2000, 'A fundamental is 5 to 2,000 Hz'), levelDba });

export const NOISE_KINDS = ['road', 'engine', 'ventilation', 'water', 'crowd', 'generator', 'refrigerator', 'own'] as const;
export type NoiseKind = (typeof NOISE_KINDS)[number];

/** Something at a station that is heard, and where it is from the talker's mark: away from the camera, to its right, up. */
export const noiseSourceSchema = z.object({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(NOISE_KINDS).default('engine'),
  awayM: z.number().min(-200, 'A source is at most 200 m away').max(200, 'A source is at most 200 m away'),
  acrossM: z.number().min(-200, 'A source is at most 200 m away').max(200, 'A source is at most 200 m away'),
  heightM: z.number().min(0, 'A source is 0 to 100 m over the ground').max(100, 'A source is 0 to 100 m over the ground').default(1),
  /** At 1 m from it; what was read farther away is more by 20 log of the metres. */
  levelDba,
  /** Passing by, so that it is now nearer and now farther. */
  moving: z.boolean().default(false),
  /** Its own spectrum in octaves from 63 Hz to 8 kHz, any level, where it was measured. */
  octavesDb: z.array(z.number().min(-200).max(200)).length(8, 'A spectrum has eight octaves, 63 Hz to 8 kHz').nullable().default(null),
});
export type NoiseSource = z.infer<typeof noiseSourceSchema>;

/**
 * What a station sounds like, in the numbers that a simulated room is built from. Null is not known.
 * Absorption is the share of energy that all surfaces take up, in octave bands from 125 Hz to 4 kHz.
 */
export const acousticsSchema = z.object({
  sizeM: z.tuple([lengthM, lengthM, lengthM]).nullable().default(null),
  absorption: z.array(share).length(6, 'Absorption has six bands, 125 Hz to 4 kHz').nullable().default(null),
  noiseDba: levelDba.nullable().default(null),
  noiseSlopeDb: z.number().min(-12, 'A slope is -12 to 3 dB an octave').max(3, 'A slope is -12 to 3 dB an octave').nullable().default(null),
  hum: humSchema.nullable().default(null),
  windMs: z.number().min(0, 'Wind is 0 to 60 m/s').max(60, 'Wind is 0 to 60 m/s').nullable().default(null),
  sources: z.array(noiseSourceSchema).max(12, 'A station has at most twelve sources').default([]),
});
export type Acoustics = z.infer<typeof acousticsSchema>;

/** A spot on location. */
export const stationDraftSchema = z.object({
  name: nameSchema,
  surfaces: z.string().trim().max(200, 'Use at most 200 characters').default(''),
  noise: z.string().trim().max(200, 'Use at most 200 characters').default(''),
  indoors: z.boolean().default(false),
  /** Position for sunset and calendar; north and east are positive. */
  latitudeDeg: z.number().min(-90, 'Latitude is -90 to 90 degrees').max(90, 'Latitude is -90 to 90 degrees').nullable().default(null),
  longitudeDeg: z.number().min(-180, 'Longitude is -180 to 180 degrees').max(180, 'Longitude is -180 to 180 degrees').nullable().default(null),
  /** Cannot be worked at, or not safely, without daylight. */
  needsDaylight: z.boolean().default(false),
  hazards: z.array(hazardSchema).default([]),
  acoustics: acousticsSchema.prefault({}),
  remark: remarkSchema,
  position: z.number().int().nonnegative().default(0),
});
export type StationDraft = z.infer<typeof stationDraftSchema>;
export const stationSchema = stationDraftSchema.extend(OWNED);
/** As it is stored and answered. */
export type StoredStation = z.infer<typeof stationSchema>;
export type Station = StationDraft & { id: string; trialId: string };
