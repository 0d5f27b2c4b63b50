import type { ByteSource } from './byteSource.ts';
import { closedWavHead, openWavHead } from './growingWav.ts';
import { keptChunks } from './keptChunks.ts';
import { readWavHeader } from './readWavHeader.ts';
import { WavError } from './wavFormat.ts';

/** Files joined to one: what comes before the samples, and where these lie in each of them. */
export interface JoinedWav {
  head: Uint8Array;
  /** In each of the files, in their order. */
  parts: { dataOffset: number; dataBytes: number }[];
  /** 1 where a byte follows the samples, so that the file has an even length. */
  padBytes: 0 | 1;
}

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
  // Its `fact` counts the samples of the first alone.
  const head = openWavHead(keptChunks(sources[0] as ByteSource, ['fact']));
  const parts = layouts.map(({ dataOffset, bytesPerFrame, format }) => ({ dataOffset, dataBytes: format.frames * bytesPerFrame }));
  const dataBytes = parts.reduce((sum, part) => sum + part.dataBytes, 0);
  return { head: closedWavHead(head, dataBytes, first.bytesPerFrame), parts, padBytes: (dataBytes % 2) as 0 | 1 };
}
