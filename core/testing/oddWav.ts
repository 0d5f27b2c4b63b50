import { writeWav } from '../audio/writeWav.ts';

/** Little-endian bytes of a chunk: id, size, body, padding. */
export function chunk(id: string, body: Uint8Array, claimedBytes = body.byteLength): Uint8Array {
  const bytes = new Uint8Array(8 + body.byteLength + (body.byteLength % 2));
  bytes.set(new TextEncoder().encode(id));
  new DataView(bytes.buffer).setUint32(4, claimedBytes, true);
  bytes.set(body, 8);
  return bytes;
}

export function join(...parts: Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.byteLength, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.byteLength;
  }
  return whole;
}

/** A file of the given chunks. */
export function riff(chunks: Uint8Array[], container = 'RIFF', claimedBytes?: number): Uint8Array {
  const body = join(...chunks);
  const head = new Uint8Array(12);
  head.set(new TextEncoder().encode(container));
  new DataView(head.buffer).setUint32(4, claimedBytes ?? body.byteLength + 4, true);
  head.set(new TextEncoder().encode('WAVE'), 8);
  return join(head, body);
}

/** Body of a fmt chunk. */
export function fmt(tag: number, channels: number, rateHz: number, bits: number, blockAlign = (channels * bits) / 8): Uint8Array {
  const body = new Uint8Array(16);
  const data = new DataView(body.buffer);
  data.setUint16(0, tag, true);
  data.setUint16(2, channels, true);
  data.setUint32(4, rateHz, true);
  data.setUint32(8, rateHz * blockAlign, true);
  data.setUint16(12, blockAlign, true);
  data.setUint16(14, bits, true);
  return body;
}

/** Samples of `channels` as the data chunk of a plain file, 24 bit. */
export function samples24(channels: Float64Array[], rateHz = 48_000): Uint8Array {
  return writeWav(channels, { encoding: 'pcm', bitDepth: 24, sampleRateHz: rateHz }).subarray(44);
}

/** A WAVE_FORMAT_EXTENSIBLE file, 24 bit, with a channel mask. */
export function extensible(channels: Float64Array[], channelMask: number, rateHz = 48_000): Uint8Array {
  const body = new Uint8Array(40);
  body.set(fmt(0xfffe, channels.length, rateHz, 24));
  const data = new DataView(body.buffer);
  data.setUint16(16, 22, true);
  data.setUint16(18, 24, true);
  data.setUint32(20, channelMask, true);
  body.set([1, 0, 0, 0, 0, 0, 0x10, 0, 0x80, 0, 0, 0xaa, 0, 0x38, 0x9b, 0x71], 24);
  return riff([chunk('fmt ', body), chunk('data', samples24(channels, rateHz))]);
}
