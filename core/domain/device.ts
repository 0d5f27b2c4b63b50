import { z } from 'zod';
import { idSchema, nameSchema, OWNED, remarkSchema } from './identity.ts';
import { QUANTITY_IDS } from './quantity.ts';

export const DEVICE_KINDS = ['receiver', 'sound level meter', 'wind meter', 'position', 'recorder', 'other'] as const;
export type DeviceKind = (typeof DEVICE_KINDS)[number];

const host = z
  .string()
  .trim()
  .max(253, 'An address has at most 253 characters')
  .regex(/^[A-Za-z0-9.:-]+$/, 'An address is a name or a number of this network, such as 192.168.0.20');
const port = z.number({ error: 'A port is a number' }).int('A port is a whole number').min(1, 'A port is 1 to 65535').max(65_535, 'A port is 1 to 65535');

/** How readings of a device come in. */
export const deviceWaySchema = z.discriminatedUnion('by', [
  /** Lines of JSON over TCP, as docs/devices.md has them. */
  z.object({ by: z.literal('json lines'), host, port }),
  /** NMEA 0183 sentences over TCP: position. */
  z.object({ by: z.literal('nmea'), host, port }),
  /** The same lines, posted to Marvet by a program of this computer, or by the page itself. */
  z.object({ by: z.literal('posted') }),
]);
export type DeviceWay = z.infer<typeof deviceWaySchema>;

/** One thing that a device tells. Channels of one group belong together: the two aerials of one channel of a receiver. */
export const deviceChannelSchema = z.object({
  id: z.string().trim().min(1).max(40),
  quantity: z.enum(QUANTITY_IDS),
  name: z.string().trim().max(60).default(''),
  group: z.string().trim().max(40).default(''),
});
export type DeviceChannel = z.infer<typeof deviceChannelSchema>;

export const MOST_CHANNELS = 64;

/** What a group of channels tells about: a candidate, a station, or neither. */
export const deviceTieSchema = z.object({ group: z.string().max(40), candidateId: idSchema.nullable().default(null), stationId: idSchema.nullable().default(null) });
export type DeviceTie = z.infer<typeof deviceTieSchema>;

/** A device that was adopted for a trial. */
export const deviceDraftSchema = z.object({
  name: nameSchema,
  kind: z.enum(DEVICE_KINDS).default('other'),
  way: deviceWaySchema,
  /** Whether Marvet listens to it. */
  on: z.boolean().default(true),
  ties: z.array(deviceTieSchema).max(MOST_CHANNELS).default([]),
  /** What is added to every level of a microphone that was set against a known level, in dB; null is not calibrated. */
  calibrationDb: z.number().min(-200, 'A calibration is -200 to 200 dB').max(200, 'A calibration is -200 to 200 dB').nullable().default(null),
  remark: remarkSchema,
  position: z.number().int().nonnegative().default(0),
});
export type DeviceDraft = z.infer<typeof deviceDraftSchema>;

/** What a device said of itself, and how far it was heard: lines of a session up to a number are on the disk. */
export const deviceAboutSchema = z.object({ channels: z.array(deviceChannelSchema).max(MOST_CHANNELS), session: z.string(), lastN: z.number().int().nonnegative() });
export type DeviceAbout = z.infer<typeof deviceAboutSchema>;

export const deviceSchema = deviceDraftSchema.extend({ ...OWNED, about: deviceAboutSchema.nullable().default(null) });
export type Device = z.infer<typeof deviceSchema>;

/** How a device is, as the page is told while it listens. */
export interface DeviceState {
  deviceId: string;
  /** Connecting, heard, silent though connected, or gone. */
  link: 'connecting' | 'live' | 'silent' | 'lost';
  sinceMs: number;
  /** The last value of each channel. */
  values: Record<string, number>;
  atMs: number | null;
  /** What the device says of itself. */
  health: string;
  /** What was wrong with what it sent, the latest first; the same trouble stands once, with its count. */
  troubles: { text: string; count: number; atMs: number }[];
}

/** The group's candidate or station; channels of a group that is not tied belong to what the whole device is tied to. */
export function tieOf(device: Pick<Device, 'ties'>, group: string): DeviceTie | undefined {
  return device.ties.find((tie) => tie.group === group) ?? device.ties.find((tie) => tie.group === '');
}
