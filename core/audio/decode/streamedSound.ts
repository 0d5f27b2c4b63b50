import type { ByteSource } from '../byteSource.ts';
import { type DecodedSound, DecodeError, type SoundFormat } from './decodedSound.ts';
import type { SoundKind } from './soundKind.ts';

const CHUNK_BYTES = 128 << 10;
/** No decoder needs more of a file before its first samples come. */
const LONGEST_HEAD_BYTES = 16 << 20;

interface Decoded {
  channelData: Float32Array[];
  sampleRate: number;
}
/** A decoder that is fed a file from its start on. */
interface StreamDecoder {
  decode(chunk: Uint8Array): Decoded;
  flush?(): Decoded;
  free?(): void;
}
type Streamed = Exclude<SoundKind, 'MP4'>;

/** Opus in Ogg says so at the start of its first packet. */
function isOpus(head: Uint8Array): boolean {
  return new TextDecoder('latin1').decode(head.subarray(0, 256)).includes('OpusHead');
}

async function decoderOf(kind: Streamed, head: Uint8Array): Promise<{ decoder: StreamDecoder; codec: string; lossy: boolean }> {
  switch (kind) {
    case 'FLAC':
      return { decoder: await (await import('@audio/decode-flac')).decoder(), codec: 'FLAC', lossy: false };
    case 'AIFF':
      return { decoder: (await import('@audio/decode-aiff')).decoder(), codec: 'PCM', lossy: false };
    case 'MP3':
      return { decoder: await (await import('@audio/decode-mp3')).decoder(), codec: 'MP3', lossy: true };
    case 'AAC':
      return { decoder: await (await import('@audio/decode-aac')).decoder(), codec: 'AAC', lossy: true };
    case 'Ogg':
      return isOpus(head)
        ? { decoder: await (await import('@audio/decode-opus')).decoder(), codec: 'Opus', lossy: true }
        : { decoder: await (await import('@audio/decode-vorbis')).decoder(), codec: 'Vorbis', lossy: true };
  }
}

/** Bits of a sample of a FLAC file (RFC 9639, clause 8.2), or of AIFF's common chunk (AIFF 1.3). */
function bitsOf(kind: Streamed, head: Uint8Array): number | null {
  if (kind === 'FLAC') return ((((head[20] as number) & 1) << 4) | ((head[21] as number) >> 4)) + 1;
  if (kind !== 'AIFF') return null;
  const data = new DataView(head.buffer, head.byteOffset, head.byteLength);
  for (let at = 12; at + 8 <= head.byteLength; ) {
    const id = String.fromCharCode(...head.subarray(at, at + 4));
    const size = data.getUint32(at + 4);
    if (id === 'COMM' && at + 16 <= head.byteLength) {
      const type = size >= 22 ? String.fromCharCode(...head.subarray(at + 26, at + 30)) : 'NONE';
      // Only whole numbers have a depth that can be given back.
      return ['NONE', 'sowt', 'twos', 'in24', 'in32'].includes(type) ? data.getUint16(at + 14) : null;
    }
    at += 8 + size + (size % 2);
  }
  return null;
}

/**
 * Decodes a file from its start on, a part at a time, so that memory does not grow with it.
 * @throws DecodeError where nothing in it can be decoded
 */
export async function streamedSound(source: ByteSource, kind: Streamed): Promise<DecodedSound> {
  const head = new Uint8Array(4096);
  source.read(0, head);
  const { decoder, codec, lossy } = await decoderOf(kind, head);
  let at = 0;
  let ended = false;
  const next = (): Decoded | null => {
    if (ended) return null;
    const chunk = new Uint8Array(Math.min(CHUNK_BYTES, source.sizeBytes - at));
    const got = source.read(at, chunk);
    at += got;
    if (got > 0) return decoder.decode(chunk.subarray(0, got));
    ended = true;
    const rest = decoder.flush?.() ?? null;
    decoder.free?.();
    return rest;
  };
  let first: Decoded | null = null;
  while (!first?.channelData[0]?.length) {
    first = next();
    if (first?.channelData[0]?.length) break;
    if (ended || at > LONGEST_HEAD_BYTES) throw new DecodeError('Nothing in it can be decoded: it is damaged, or something else than its first bytes say');
  }
  const { sampleRate, channelData } = first;
  const bitDepth = bitsOf(kind, head);
  const format: SoundFormat = {
    container: kind,
    codec,
    lossy,
    sampleRateHz: sampleRate,
    channels: channelData.length,
    bitDepth,
    // The FLAC decoder's full scale is the largest number, that of AIFF one more.
    scale: bitDepth === null ? 1 : 2 ** (bitDepth - 1) - (kind === 'FLAC' ? 1 : 0),
    trackNames: channelData.map(() => null),
    // What was thinned out for listening is one programme; what was not may be two microphones.
    stereoFrom: lossy && channelData.length === 2 ? [0] : [],
    startsAt: null,
    warnings: [],
  };
  async function* blocks(): AsyncGenerator<Float32Array[]> {
    yield channelData;
    while (at < source.sizeBytes) {
      const decoded = next();
      if (decoded?.channelData[0]?.length) yield sameShape(decoded, format);
    }
    const rest = next();
    if (rest?.channelData[0]?.length) yield sameShape(rest, format);
  }
  return { format, blocks: blocks() };
}

/** @throws DecodeError where a file changes its rate or channels on the way */
function sameShape({ channelData, sampleRate }: Decoded, { channels, sampleRateHz }: SoundFormat): Float32Array[] {
  if (channelData.length !== channels || sampleRate !== sampleRateHz) throw new DecodeError('Its rate or its channels change on the way: part it into files that keep them');
  return channelData;
}
