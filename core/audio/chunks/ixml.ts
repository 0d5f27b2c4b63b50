import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import { z } from 'zod';

/** What Marvet uses of an iXML chunk. */
export interface Ixml {
  project: string | null;
  scene: string | null;
  take: string | null;
  tape: string | null;
  note: string | null;
  /** Track names by channel of the file, counted from 0. */
  trackNames: (string | null)[];
}

const MOST_TRACKS = 32;
const word = z.coerce
  .string()
  .transform((value) => value.trim() || null)
  .nullish()
  .catch(null);
const trackSchema = z.object({
  CHANNEL_INDEX: z.coerce.number().int().min(1).nullish().catch(null),
  INTERLEAVE_INDEX: z.coerce.number().int().min(1).nullish().catch(null),
  NAME: word,
});
const documentSchema = z.object({
  BWFXML: z.object({
    PROJECT: word,
    SCENE: word,
    TAKE: word,
    TAPE: word,
    NOTE: word,
    TRACK_LIST: z
      .object({ TRACK: z.union([z.array(trackSchema), trackSchema.transform((track) => [track])]).catch([]) })
      .nullish()
      .catch(null),
  }),
});

/** Parses an iXML chunk; null when it is not well-formed XML or not an iXML document. */
export function readIxml(bytes: Uint8Array): Ixml | null {
  const xml = new TextDecoder('utf-8').decode(bytes).replace(/\0+$/, '').trim();
  // Entities are refused outright: an iXML document needs none, and they can be made to explode.
  if (/<!ENTITY/i.test(xml) || XMLValidator.validate(xml) !== true) return null;
  const parsed = documentSchema.safeParse(parseXml(xml));
  if (!parsed.success) return null;
  const root = parsed.data.BWFXML;
  const trackNames: (string | null)[] = [];
  (root.TRACK_LIST?.TRACK ?? []).forEach((track, order) => {
    const channel = (track.INTERLEAVE_INDEX ?? track.CHANNEL_INDEX ?? order + 1) - 1;
    if (channel < MOST_TRACKS) trackNames[channel] = track.NAME ?? null;
  });
  return {
    project: root.PROJECT ?? null,
    scene: root.SCENE ?? null,
    take: root.TAKE ?? null,
    tape: root.TAPE ?? null,
    note: root.NOTE ?? null,
    trackNames: Array.from(trackNames, (name) => name ?? null),
  };
}

/** The document as a tree; null when the parser finds fault where the validator found none, as in a processing instruction without an end. */
function parseXml(xml: string): unknown {
  try {
    return new XMLParser({ ignoreAttributes: true, parseTagValue: false, processEntities: true }).parse(xml);
  } catch (error) {
    if (error instanceof Error) return null;
    throw error;
  }
}

/** Writes an iXML chunk body. */
export function writeIxml(ixml: Omit<Ixml, 'trackNames'> & { trackNames: readonly string[] }): Uint8Array {
  const builder = new XMLBuilder({ format: true, suppressEmptyNode: false });
  const xml = builder.build({
    BWFXML: {
      IXML_VERSION: '2.10',
      PROJECT: ixml.project ?? '',
      SCENE: ixml.scene ?? '',
      TAKE: ixml.take ?? '',
      TAPE: ixml.tape ?? '',
      NOTE: ixml.note ?? '',
      TRACK_LIST: {
        TRACK_COUNT: ixml.trackNames.length,
        TRACK: ixml.trackNames.map((NAME, index) => ({ CHANNEL_INDEX: index + 1, INTERLEAVE_INDEX: index + 1, NAME })),
      },
    },
  });
  return new TextEncoder().encode(`<?xml version="1.0" encoding="UTF-8"?>\n${xml}`);
}
