import { z } from 'zod';
import { idSchema, nameSchema, OWNED, remarkSchema } from './identity.ts';

/** Sensor formats to start from, in millimetres across and up; what counts is the part that is recorded. */
export const SENSOR_FORMATS = [
  { name: 'Full frame, 36 x 24 mm', widthMm: 36, heightMm: 24 },
  { name: 'Super 35, 24.9 x 18.7 mm', widthMm: 24.9, heightMm: 18.7 },
  { name: 'Micro four thirds, 17.3 x 13 mm', widthMm: 17.3, heightMm: 13 },
  { name: 'One inch, 13.2 x 8.8 mm', widthMm: 13.2, heightMm: 8.8 },
  { name: 'Two thirds inch, 9.6 x 5.4 mm', widthMm: 9.6, heightMm: 5.4 },
] as const;

/** A camera over a point of the ground, looking along it. */
export const frameCameraSchema = z.object({
  sensorWidthMm: z.number().min(2, 'A sensor is 2 to 70 mm wide').max(70, 'A sensor is 2 to 70 mm wide').default(24.9),
  sensorHeightMm: z.number().min(1.5, 'A sensor is 1.5 to 55 mm high').max(55, 'A sensor is 1.5 to 55 mm high').default(18.7),
  focalMm: z.number().min(2, 'A focal length is 2 to 1,200 mm').max(1200, 'A focal length is 2 to 1,200 mm').default(35),
  /** How much a lens squeezes the picture across: 1 where it does not. */
  squeeze: z.number().min(1, 'A squeeze is 1 to 2').max(2, 'A squeeze is 1 to 2').default(1),
  /** Width against height of what is delivered; the sensor is cropped to it. */
  aspect: z.number().min(0.4, 'An aspect is 0.4 to 4').max(4, 'An aspect is 0.4 to 4').default(1.85),
  heightM: z.number().min(0, 'A camera is 0 to 20 m high').max(20, 'A camera is 0 to 20 m high').default(1.5),
  /** Up is positive. */
  tiltDeg: z.number().min(-80, 'A tilt is -80 to 80 degrees').max(80, 'A tilt is -80 to 80 degrees').default(0),
});
export type FrameCamera = z.infer<typeof frameCameraSchema>;

const acrossM = z.number().min(-20, 'Across is -20 to 20 m').max(20, 'Across is -20 to 20 m').default(0);

/** Somebody in the frame. Across is positive to the right of the camera. */
export const frameTalkerSchema = z.object({
  id: idSchema,
  name: nameSchema,
  awayM: z.number().min(0.3, 'A talker is 0.3 to 60 m from the camera').max(60, 'A talker is 0.3 to 60 m from the camera').default(2.5),
  acrossM,
  mouthHeightM: z.number().min(0.1, 'A mouth is 0.1 to 3 m over the ground').max(3, 'A mouth is 0.1 to 3 m over the ground').default(1.55),
  /** Where the talker looks: 0 is to the camera, positive turns to the camera's right. */
  looksDeg: z.number().min(-180, 'A direction is -180 to 180 degrees').max(180, 'A direction is -180 to 180 degrees').default(0),
  /** How far the head may lean, in every direction, and turn, to either side. */
  leanM: z.number().min(0, 'A lean is 0 to 1.5 m').max(1.5, 'A lean is 0 to 1.5 m').default(0.15),
  turnDeg: z.number().min(0, 'A turn is 0 to 180 degrees').max(180, 'A turn is 0 to 180 degrees').default(45),
});
export type FrameTalker = z.infer<typeof frameTalkerSchema>;

export const BOOM_SIDES = ['above', 'below', 'side', 'planted'] as const;
export type BoomSide = (typeof BOOM_SIDES)[number];

/** A microphone on a pole or a stand; where its tip is, and whose mouth it looks at. */
export const frameBoomSchema = z.object({
  id: idSchema,
  from: z.enum(BOOM_SIDES),
  awayM: z.number().min(-5, 'A microphone is -5 to 60 m from the camera').max(60, 'A microphone is -5 to 60 m from the camera'),
  acrossM,
  heightM: z.number().min(0, 'A microphone is 0 to 12 m over the ground').max(12, 'A microphone is 0 to 12 m over the ground'),
  /** Place of the talker among those of the frame. */
  aimsAt: z.number().int().min(0).max(2).default(0),
  /** 1 omnidirectional, 0.5 cardioid, 0.37 supercardioid, 0.25 hypercardioid, 0 figure of eight. */
  pressureShare: z.number().min(0).max(1).default(0.37),
  /** Interference tube; 0 where there is none. */
  tubeM: z.number().min(0, 'A tube is 0 to 1 m long').max(1, 'A tube is 0 to 1 m long').default(0),
  /** Microphone with its mount, and what of a windscreen stands around it. */
  lengthM: z.number().min(0.02, 'A microphone is 0.02 to 1 m long').max(1, 'A microphone is 0.02 to 1 m long').default(0.2),
  screenM: z.number().min(0, 'A windscreen is 0 to 0.4 m thick').max(0.4, 'A windscreen is 0 to 0.4 m thick').default(0.06),
  massKg: z.number().min(0, 'A microphone with its mount weighs 0 to 5 kg').max(5, 'A microphone with its mount weighs 0 to 5 kg').default(0.4),
});
export type FrameBoom = z.infer<typeof frameBoomSchema>;

/** Who holds a pole, and with what. */
export const frameOperatorSchema = z.object({
  awayM: z.number().min(-5).max(60, 'An operator stands -5 to 60 m from the camera').default(3),
  acrossM: z.number().min(-20).max(20, 'Across is -20 to 20 m').default(2),
  handsM: z.number().min(0.5, 'Hands are 0.5 to 2.6 m over the ground').max(2.6, 'Hands are 0.5 to 2.6 m over the ground').default(1.9),
  poleM: z.number().min(0.3, 'A pole is 0.3 to 8 m long').max(8, 'A pole is 0.3 to 8 m long').default(3),
  poleKg: z.number().min(0, 'A pole weighs 0 to 5 kg').max(5, 'A pole weighs 0 to 5 kg').default(0.7),
});
export type FrameOperator = z.infer<typeof frameOperatorSchema>;

export const DANGERS = ['overhead line', 'water', 'path', 'people'] as const;
export type DangerKind = (typeof DANGERS)[number];

/** What is in the way of poles and stands: a line along the picture's width, or a strip of the ground. */
export const frameDangerSchema = z.object({
  id: idSchema,
  kind: z.enum(DANGERS),
  awayM: z.number().min(-20, 'A danger is -20 to 60 m from the camera').max(60, 'A danger is -20 to 60 m from the camera'),
  acrossM,
  /** How far a strip of the ground, or people, reach along and across; a line runs across all of it. */
  deepM: z.number().min(0.1, 'It reaches 0.1 to 60 m').max(60, 'It reaches 0.1 to 60 m').default(1),
  wideM: z.number().min(0.1, 'It reaches 0.1 to 60 m').max(60, 'It reaches 0.1 to 60 m').default(2),
  /** Of a line, over the ground. */
  heightM: z.number().min(0, 'A line is 0 to 60 m high').max(60, 'A line is 0 to 60 m high').default(6),
});
export type FrameDanger = z.infer<typeof frameDangerSchema>;

/** Where the strongest light comes from: round from the camera's own direction, positive to its right, and up. */
export const frameLightSchema = z.object({
  fromDeg: z.number().min(-180, 'A direction is -180 to 180 degrees').max(180, 'A direction is -180 to 180 degrees').default(40),
  upDeg: z.number().min(1, 'A light is 1 to 90 degrees up').max(90, 'A light is 1 to 90 degrees up').default(45),
});

const frameFields = z.object({
  name: nameSchema,
  /** The station whose room, noise and cautions count here. */
  stationId: idSchema.nullable().default(null),
  camera: frameCameraSchema.prefault({}),
  ceilingM: z.number().min(1.5, 'A ceiling is 1.5 to 60 m high').max(60, 'A ceiling is 1.5 to 60 m high').nullable().default(null),
  talkers: z.array(frameTalkerSchema).min(1, 'A frame has at least one talker').max(3, 'A frame has at most three talkers'),
  booms: z.array(frameBoomSchema).max(8, 'A frame has at most eight microphones').default([]),
  operator: frameOperatorSchema.prefault({}),
  /** Null where none throws a shadow that counts. */
  light: frameLightSchema.nullable().default(null),
  dangers: z.array(frameDangerSchema).max(8, 'A frame has at most eight dangers').default([]),
  /** How far out of the picture a microphone stays. */
  marginM: z.number().min(0, 'A margin is 0 to 1 m').max(1, 'A margin is 0 to 1 m').default(0.1),
  remark: remarkSchema,
  position: z.number().int().nonnegative().default(0),
});
/** A frame with who is in it and what hears them, to scale. */
export const frameDraftSchema = frameFields.superRefine(({ booms, talkers }, context) => {
  booms.forEach((boom, index) => {
    if (boom.aimsAt >= talkers.length)
      context.addIssue({ code: 'custom', path: ['booms', index, 'aimsAt'], message: 'A microphone looks at a talker of the frame: choose one of them' });
  });
});
export type FrameDraft = z.infer<typeof frameDraftSchema>;
export const frameSchema = frameFields.extend(OWNED);
/** As it is stored and answered. */
export type StoredFrame = z.infer<typeof frameSchema>;
