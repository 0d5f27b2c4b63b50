import type { ByteSource } from './byteSource.ts';
import { readBext, writeBext } from './chunks/bext.ts';
import { writeIxml } from './chunks/ixml.ts';
import { chunkBody, keptChunks } from './keptChunks.ts';
import { readWavHeader, wavChunks } from './readWavHeader.ts';
import { chunksBytes, putChunks, putId } from './wavParts.ts';

/** What is written into a copy of a file. Empty where it is not known: then what the file says itself stays. */
export interface CopyNames {
  project: string;
  scene: string;
  take: string;
  note: string;
  /** A name a channel. */
  trackNames: readonly string[];
}

/** A copy of a WAVE file with names written into it: what comes before its samples, and where these lie in the file. */
export interface NamedCopy {
  head: Uint8Array<ArrayBuffer>;
  dataOffset: number;
  dataBytes: number;
  /** 1 where a byte follows the samples, so that the file has an even length. */
  padBytes: 0 | 1;
}

const LARGEST_RIFF_BYTES = 0xffffffff;

/**
 * A copy of a WAVE file whose bext (EBU Tech 3285) and iXML chunks say slate, take and candidates. Its samples are the same, and so is
 * every other chunk; what its own bext says of time and recorder stays.
 * @returns null for a file of RF64 and BW64, or one that would pass 4 GiB: those are left as they are
 * @throws WavError where it is no WAVE file
 */
export function namedCopy(source: ByteSource, names: CopyNames): NamedCopy | null {
  const { format } = readWavHeader(source);
  const { container, chunks } = wavChunks(source);
  const data = chunks.find(({ id }) => id === 'data');
  if (container !== 'RIFF' || !data) return null;
  const before = chunks.find(({ id }) => id === 'bext');
  const bext = before ? readBext(chunkBody(source, before)) : null;
  const [scene, take, tape] = [names.scene || (format.scene ?? ''), names.take || (format.take ?? ''), format.tape ?? ''];
  const trackNames = names.trackNames.map((name, channel) => name || (format.trackNames[channel] ?? ''));
  const told = [`sSCENE=${scene}`, `sTAKE=${take}`, `sTAPE=${tape}`, ...trackNames.map((name, channel) => `sTRK${channel + 1}=${name}`), names.note];
  const fresh = [
    {
      id: 'bext',
      body: writeBext({
        description: told.join('\r\n'),
        originator: bext?.originator ?? '',
        originationDate: bext?.originationDate ?? '',
        originationTime: bext?.originationTime ?? '',
        timeReferenceSamples: bext?.timeReferenceSamples ?? 0,
      }),
    },
    { id: 'iXML', body: writeIxml({ project: names.project, scene, take, tape, note: names.note, trackNames }) },
  ];
  const all = [...keptChunks(source, ['bext', 'iXML']), ...fresh];
  const padBytes = (data.presentBytes % 2) as 0 | 1;
  const head = new Uint8Array(12 + chunksBytes(all) + 8);
  const sizeBytes = head.byteLength + data.presentBytes + padBytes;
  if (sizeBytes > LARGEST_RIFF_BYTES) return null;
  const view = new DataView(head.buffer);
  putId(head, 'RIFF', 0);
  view.setUint32(4, sizeBytes - 8, true);
  putId(head, 'WAVE', 8);
  const at = putChunks(head, 12, all);
  putId(head, 'data', at);
  view.setUint32(at + 4, data.presentBytes, true);
  return { head, dataOffset: data.offset, dataBytes: data.presentBytes, padBytes };
}
