import { z } from 'zod';
import { idSchema, instantMsSchema } from './identity.ts';

export const WALK_SIDES = ['facing', 'turned'] as const;
export type WalkSide = (typeof WALK_SIDES)[number];
export const WALK_HEADINGS = ['out', 'back'] as const;
export type WalkHeading = (typeof WALK_HEADINGS)[number];
export const LINK_STATES = ['broke up', 'unusable', 'back again'] as const;
export type LinkState = (typeof LINK_STATES)[number];

/** How a distance was known. */
export const MARK_WAYS = ['peg', 'paces'] as const;

const latitudeDeg = z.number().min(-90).max(90);
const longitudeDeg = z.number().min(-180).max(180);
const said = z.string().trim().min(1, 'Say what it was').max(120, 'Use at most 120 characters');

/** Something that was pressed on a range walk. */
export const walkPressSchema = z.discriminatedUnion('what', [
  /** The talker passes a distance from the receiver. */
  z.object({
    what: z.literal('mark'),
    distanceM: z.number({ error: 'A distance is a number of metres' }).min(0, 'A distance is 0 to 5,000 m').max(5000, 'A distance is 0 to 5,000 m'),
    by: z.enum(MARK_WAYS).default('peg'),
  }),
  /** From here on the talker faces the receiver or turns the back to it, and walks out or back. */
  z.object({ what: z.literal('leg'), side: z.enum(WALK_SIDES), heading: z.enum(WALK_HEADINGS) }),
  /** What was heard of links. */
  z.object({ what: z.literal('link'), setupIds: z.array(idSchema).min(1).max(64), state: z.enum(LINK_STATES) }),
  /** What stands between here. */
  z.object({ what: z.literal('in the way'), text: said }),
  /** What else is on air here, and how strong where it was read. */
  z.object({
    what: z.literal('on air'),
    text: said,
    levelDbm: z.number().min(-140, 'A radio level is -140 to 30 dBm').max(30, 'A radio level is -140 to 30 dBm').nullable().default(null),
  }),
  /** Where the receiver stands. */
  z.object({ what: z.literal('receiver'), latitudeDeg, longitudeDeg }),
]);
export type WalkPress = z.infer<typeof walkPressSchema>;

export const walkEntrySchema = z.intersection(z.object({ id: idSchema, atMs: instantMsSchema }), walkPressSchema);
export type WalkEntry = z.infer<typeof walkEntrySchema>;

/** Where somebody was at a moment. */
export const trackPointSchema = z.object({
  atMs: instantMsSchema,
  latitudeDeg,
  longitudeDeg,
  /** How far off it may be; null where that is not known. */
  accuracyM: z.number().min(0).max(100_000).nullable().default(null),
});
export type TrackPoint = z.infer<typeof trackPointSchema>;

/** Where a walk stands: the last that was said of leg and distance. */
export interface WalkNow {
  side: WalkSide;
  heading: WalkHeading;
  distanceM: number | null;
}

/** @param entries in the order of their time */
export function walkNow(entries: readonly WalkEntry[]): WalkNow {
  const now: WalkNow = { side: 'facing', heading: 'out', distanceM: null };
  for (const entry of entries) {
    if (entry.what === 'leg') Object.assign(now, { side: entry.side, heading: entry.heading });
    if (entry.what === 'mark') now.distanceM = entry.distanceM;
  }
  return now;
}

/** How the link of a setup stands: what was said of it last. */
export function linkNow(entries: readonly WalkEntry[], setupId: string): LinkState | null {
  const own = entries.flatMap((entry) => (entry.what === 'link' && entry.setupIds.includes(setupId) ? [entry.state] : []));
  return own.at(-1) ?? null;
}
