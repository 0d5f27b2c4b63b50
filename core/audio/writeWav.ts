/** How samples are stored. */
export interface WavEncoding {
  encoding: 'pcm' | 'float';
  bitDepth: 16 | 24 | 32 | 64;
  sampleRateHz: number;
}

/** Extra chunks, by four-character id, written before the samples. */
export type WavChunks = readonly { id: string; body: Uint8Array }[];

/**
 * Writes a RIFF/WAVE file. Integer samples are rounded and held at full scale; no dither is added, so
 * that what is measured is what was rendered.
 * @param channels one array a channel, equally long, full scale at 1
 * @throws RangeError when channels differ in length or the file would pass 4 GiB
 */
export function writeWav(channels: readonly Float64Array[], format: WavEncoding, chunks: WavChunks = []): Uint8Array {
  const frames = channels[0]?.length ?? 0;
  if (channels.some((channel) => channel.length !== frames)) throw new RangeError('Channels differ in length');
  const width = format.bitDepth / 8;
  const dataBytes = frames * channels.length * width;
  const extra = chunks.reduce((sum, chunk) => sum + 8 + chunk.body.byteLength + (chunk.body.byteLength % 2), 0);
  const total = 12 + 24 + extra + 8 + dataBytes + (dataBytes % 2);
  if (total > 0xffffffff) throw new RangeError('A RIFF file holds less than 4 GiB');
  const bytes = new Uint8Array(total);
  const data = new DataView(bytes.buffer);
  const putId = (id: string, at: number) => {
    for (let index = 0; index < 4; index++) bytes[at + index] = id.charCodeAt(index);
  };
  putId('RIFF', 0);
  data.setUint32(4, total - 8, true);
  putId('WAVE', 8);
  putId('fmt ', 12);
  data.setUint32(16, 16, true);
  data.setUint16(20, format.encoding === 'pcm' ? 1 : 3, true);
  data.setUint16(22, channels.length, true);
  data.setUint32(24, format.sampleRateHz, true);
  data.setUint32(28, format.sampleRateHz * channels.length * width, true);
  data.setUint16(32, channels.length * width, true);
  data.setUint16(34, format.bitDepth, true);
  let at = 36;
  for (const chunk of chunks) {
    putId(chunk.id, at);
    data.setUint32(at + 4, chunk.body.byteLength, true);
    bytes.set(chunk.body, at + 8);
    at += 8 + chunk.body.byteLength + (chunk.body.byteLength % 2);
  }
  putId('data', at);
  data.setUint32(at + 4, dataBytes, true);
  at += 8;
  channels.forEach((samples, channel) => putSamples(data, at + channel * width, channels.length * width, samples, format));
  return bytes;
}

function putSamples(data: DataView, start: number, stride: number, samples: Float64Array, format: WavEncoding): void {
  const { encoding, bitDepth } = format;
  const scale = 2 ** (bitDepth - 1);
  for (let frame = 0, at = start; frame < samples.length; frame++, at += stride) {
    const value = samples[frame] as number;
    if (encoding === 'float') {
      if (bitDepth === 64) data.setFloat64(at, value, true);
      else data.setFloat32(at, value, true);
      continue;
    }
    const whole = Math.max(-scale, Math.min(scale - 1, Math.round(value * scale)));
    if (bitDepth === 16) data.setInt16(at, whole, true);
    else if (bitDepth === 32) data.setInt32(at, whole, true);
    else {
      data.setUint16(at, whole & 0xffff, true);
      data.setInt8(at + 2, whole >> 16);
    }
  }
}
