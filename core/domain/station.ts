import { z } from 'zod';
import { nameSchema, remarkSchema } from './identity.ts';

export const hazardSchema = z.enum(['road', 'platform', 'water', 'vehicle', 'height', 'overhead line']);
export type Hazard = z.infer<typeof hazardSchema>;

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
  remark: remarkSchema,
  position: z.number().int().nonnegative().default(0),
});
export type StationDraft = z.infer<typeof stationDraftSchema>;
export interface Station extends StationDraft {
  id: string;
  trialId: string;
}
