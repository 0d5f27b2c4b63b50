import { z } from 'zod';
import { CLOTHS, clothLayerSchema } from './clothLayer.ts';
import { idSchema, nameSchema, OWNED, remarkSchema } from './identity.ts';

/** How a microphone is fixed and covered. Null is not known. */
export const rigRecordDraftSchema = z.object({
  name: nameSchema,
  fixing: z
    .enum(['clip', 'tape', 'loop and tape', 'loop and knot', 'tape triangle', 'pad', 'cage', 'pin', 'vampire clip', 'headset', 'magnet', 'suspension', 'none'])
    .default('clip'),
  /** What is over the capsule itself. */
  cover: z.enum(['none', 'foam', 'fur', 'cage']).default('none'),
  /** Layers of cloth over it, and what one of them takes away above some 3 kHz. */
  clothLayers: z.number().int('Whole layers only').min(0, 'Layers are 0 to 6').max(6, 'Layers are 0 to 6').default(0),
  clothLossDb: z.number().min(0, 'A loss is 0 to 30 dB').max(30, 'A loss is 0 to 30 dB').nullable().default(null),
  cloth: z.string().trim().max(80, 'Use at most 80 characters').default(''),
  /** The cloths over it, the outermost first; where they are known their loss is worked out. */
  layers: z.array(clothLayerSchema).max(6, 'Layers are 0 to 6').default([]),
  /** Where the opening of the microphone looks. */
  faces: z.enum(['up', 'down', 'out', 'in']).nullable().default(null),
  address: z.enum(['end', 'side']).nullable().default(null),
  /** Lift of a cap over the capsule above some 6 kHz. */
  capLiftDb: z.number().min(-12, 'A cap lifts -12 to 20 dB').max(20, 'A cap lifts -12 to 20 dB').nullable().default(null),
  strainRelief: z.boolean().nullable().default(null),
  onSkin: z.boolean().default(false),
  remark: remarkSchema,
});
export type RigRecordDraft = z.infer<typeof rigRecordDraftSchema>;

/** A rig of a trial, or of the library where it belongs to none. */
export const rigRecordSchema = rigRecordDraftSchema.extend({ ...OWNED, trialId: idSchema.nullable() });
export type RigRecord = z.infer<typeof rigRecordSchema>;

const cloth = (name: string) => CLOTHS.filter((each) => each.name === name);

/** Usual ways to fix and to hide, to start from. */
export const USUAL_RIGS: readonly RigRecordDraft[] = [
  { name: 'exposed', fixing: 'clip' },
  { name: 'hidden under one layer', fixing: 'loop and tape', clothLayers: 1, clothLossDb: 4, layers: cloth('cotton shirt'), cloth: 'cotton shirt', strainRelief: true },
  {
    name: 'hidden under wool',
    fixing: 'loop and tape',
    clothLayers: 2,
    clothLossDb: 5,
    cloth: 'wool',
    layers: [...cloth('wool knit'), ...cloth('cotton shirt')],
    strainRelief: true,
  },
  { name: 'taped on skin', fixing: 'tape', clothLayers: 1, clothLossDb: 4, onSkin: true },
].map((draft) => rigRecordDraftSchema.parse(draft));
