/** How samples are stored. */
export interface WavEncoding {
  encoding: 'pcm' | 'float';
  bitDepth: 16 | 24 | 32 | 64;
  sampleRateHz: number;
}

/** Extra chunks, by four-character id, written before the samples. */
export type WavChunks = readonly { id: string; body: Uint8Array }[];

/** Bytes of the fmt chunk with its head. */
export const FMT_CHUNK_BYTES = 24;

const padded = (bytes: number) => bytes + (bytes % 2);

export function putId(bytes: Uint8Array, id: string, at: number): void {
  for (let index = 0; index < 4; index++) bytes[at + index] = id.charCodeAt(index);
}

/** Puts the chunk that says how samples are stored. @returns where the next chunk begins */
export function putFmt(bytes: Uint8Array<ArrayBuffer>, at: number, { encoding, bitDepth, sampleRateHz }: WavEncoding, channels: number): number {
  const data = new DataView(bytes.buffer);
  const bytesPerFrame = (channels * bitDepth) / 8;
  putId(bytes, 'fmt ', at);
  data.setUint32(at + 4, FMT_CHUNK_BYTES - 8, true);
  data.setUint16(at + 8, encoding === 'pcm' ? 1 : 3, true);
  data.setUint16(at + 10, channels, true);
  data.setUint32(at + 12, sampleRateHz, true);
  data.setUint32(at + 16, sampleRateHz * bytesPerFrame, true);
  data.setUint16(at + 20, bytesPerFrame, true);
  data.setUint16(at + 22, bitDepth, true);
  return at + FMT_CHUNK_BYTES;
}

/** Bytes of chunks with their heads and padding. */
export const chunksBytes = (chunks: WavChunks): number => chunks.reduce((sum, { body }) => sum + 8 + padded(body.byteLength), 0);

/** Puts chunks one after the other. @returns where the next chunk begins */
export function putChunks(bytes: Uint8Array<ArrayBuffer>, at: number, chunks: WavChunks): number {
  const data = new DataView(bytes.buffer);
  let next = at;
  for (const { id, body } of chunks) {
    putId(bytes, id, next);
    data.setUint32(next + 4, body.byteLength, true);
    bytes.set(body, next + 8);
    next += 8 + padded(body.byteLength);
  }
  return next;
}

/**
 * Puts samples of one channel as they are stored. Whole numbers are rounded and held at full scale; no dither is
 * added, so that what is measured is what was rendered.
 * @param start of the first sample in bytes
 * @param stride bytes from one sample to the next
 */
export function putSamples(data: DataView, start: number, stride: number, samples: Float64Array | Float32Array, { encoding, bitDepth }: Omit<WavEncoding, 'sampleRateHz'>): void {
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

/** Samples of several channels interleaved as they are stored. @param channels one array a channel, equally long, full scale at 1 */
export function interleaved(channels: readonly (Float64Array | Float32Array)[], format: Omit<WavEncoding, 'sampleRateHz'>): Uint8Array<ArrayBuffer> {
  const width = format.bitDepth / 8;
  const bytes = new Uint8Array((channels[0]?.length ?? 0) * channels.length * width);
  const data = new DataView(bytes.buffer);
  channels.forEach((samples, channel) => putSamples(data, channel * width, channels.length * width, samples, format));
  return bytes;
}
