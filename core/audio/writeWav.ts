import { chunksBytes, FMT_CHUNK_BYTES, putChunks, putFmt, putId, putSamples, type WavChunks, type WavEncoding } from './wavParts.ts';

/**
 * Writes a RIFF/WAVE file, its samples as {@link putSamples} has them.
 * @param channels one array a channel, equally long, full scale at 1
 * @throws RangeError when channels differ in length or the file would pass 4 GiB
 */
export function writeWav(channels: readonly Float64Array[], format: WavEncoding, chunks: WavChunks = []): Uint8Array {
  const frames = channels[0]?.length ?? 0;
  if (channels.some((channel) => channel.length !== frames)) throw new RangeError('Channels differ in length');
  const width = format.bitDepth / 8;
  const dataBytes = frames * channels.length * width;
  const total = 12 + FMT_CHUNK_BYTES + chunksBytes(chunks) + 8 + dataBytes + (dataBytes % 2);
  if (total > 0xffffffff) throw new RangeError('A RIFF file holds less than 4 GiB');
  const bytes = new Uint8Array(total);
  const data = new DataView(bytes.buffer);
  putId(bytes, 'RIFF', 0);
  data.setUint32(4, total - 8, true);
  putId(bytes, 'WAVE', 8);
  const at = putChunks(bytes, putFmt(bytes, 12, format, channels.length), chunks);
  putId(bytes, 'data', at);
  data.setUint32(at + 4, dataBytes, true);
  channels.forEach((samples, channel) => putSamples(data, at + 8 + channel * width, channels.length * width, samples, format));
  return bytes;
}
