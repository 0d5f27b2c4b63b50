import type { ByteSource } from './byteSource.ts';
import { closedWavHead } from './growingWav.ts';
import { readWavHeader, wavChunks } from './readWavHeader.ts';
import { WavError } from './wavFormat.ts';
import { chunksBytes, putChunks, putId } from './wavParts.ts';

/** Files joined to one: what comes before the samples, and where these lie in each of them. */
export interface JoinedWav {
  head: Uint8Array;
  /** In each of the files, in their order. */
  parts: { dataOffset: number; dataBytes: number }[];
  /** 1 where a byte follows the samples, so that the file has an even length. */
  padBytes: 0 | 1;
}

/** Room for the long sizes of EBU Tech 3306, should the file pass 4 GiB. */
const ROOM = { id: 'JUNK', body: new Uint8Array(28) };
/** Written anew, or only there to fill room; `fact` counts the samples of the first alone. */
const NOT_KEPT = new Set(['data', 'JUNK', 'FLLR', 'PAD ', 'ds64', 'fact']);
/** A larger chunk beside the samples is none of a recorder's notes. */
const LARGEST_KEPT_BYTES = 4 << 20;

/**
 * One WAVE file of several that a recorder split: their samples one after the other as they are stored, and all other
 * chunks of the first, whose time and names hold for the whole. Frames that a file ends in the middle of are left out.
 * @throws WavError where one is no WAVE file, or they are not stored alike
 */
export function joinedWav(sources: readonly ByteSource[]): JoinedWav {
  const layouts = sources.map(readWavHeader);
  const [first] = layouts;
  if (!first) throw new WavError('empty', 'There is no file to be joined');
  for (const { format } of layouts) {
    for (const each of ['encoding', 'bitDepth', 'sampleRateHz', 'channels'] as const) {
      if (format[each] !== first.format[each])
        throw new WavError('unsupported-format', `Only files that are stored alike can be joined: ${format[each]} is not ${first.format[each]}`);
    }
  }
  const source = sources[0] as ByteSource;
  const kept = wavChunks(source).chunks.filter(({ id, presentBytes }) => !NOT_KEPT.has(id) && presentBytes <= LARGEST_KEPT_BYTES);
  const chunks = [
    ROOM,
    ...kept.map(({ id, offset, presentBytes }) => {
      const body = new Uint8Array(presentBytes);
      source.read(offset, body);
      return { id, body };
    }),
  ];
  const head = new Uint8Array(12 + chunksBytes(chunks) + 8);
  putId(head, 'RIFF', 0);
  putId(head, 'WAVE', 8);
  putId(head, 'data', putChunks(head, 12, chunks));
  const parts = layouts.map(({ dataOffset, bytesPerFrame, format }) => ({ dataOffset, dataBytes: format.frames * bytesPerFrame }));
  const dataBytes = parts.reduce((sum, part) => sum + part.dataBytes, 0);
  return { head: closedWavHead(head, dataBytes, first.bytesPerFrame), parts, padBytes: (dataBytes % 2) as 0 | 1 };
}
