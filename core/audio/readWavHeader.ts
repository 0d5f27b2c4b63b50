import { CUT_SHORT, type FileFormat } from '../domain/fileFormat.ts';
import type { ByteSource } from './byteSource.ts';
import { readBext, startOf } from './chunks/bext.ts';
import { readMarkers } from './chunks/cues.ts';
import { readIxml } from './chunks/ixml.ts';
import { readListInfo } from './chunks/listInfo.ts';
import { HIGHEST_RATE_HZ, LOWEST_RATE_HZ, MOST_CHANNELS, WavError, type WavLayout } from './wavFormat.ts';

const FORMAT_PCM = 0x0001;
const FORMAT_FLOAT = 0x0003;
const FORMAT_EXTENSIBLE = 0xfffe;
const LARGEST_TEXT_CHUNK = 4 << 20;
const MOST_CHUNKS = 10_000;
const SIZE_IN_DS64 = 0xffffffff;

export interface Chunk {
  id: string;
  offset: number;
  /** What the header claims. */
  claimedBytes: number;
  /** What the file holds of it. */
  presentBytes: number;
}

const NO_LENGTH = 'the header gives no length';

/**
 * Reads the header of a WAVE file: RIFF (Microsoft/IBM 1991), RF64 (EBU Tech 3306) and BW64
 * (ITU-R BS.2088), with the metadata of bext (EBU Tech 3285), iXML and LIST/INFO, and the markers of cue with LIST/adtl. Unknown chunks are
 * skipped, odd ones padded. Sizes are never trusted further than the file reaches.
 * @throws WavError `not-wav`, `unsupported-format`, `truncated` (no samples are reachable) or `empty`
 */
export function readWavHeader(source: ByteSource): WavLayout {
  const warnings: string[] = [];
  const container = readContainer(source);
  const chunks = readChunks(source, container, warnings);
  const fmt = readFmt(
    source,
    chunks.find((chunk) => chunk.id === 'fmt '),
    chunks.length > 0,
  );
  const data = chunks.find((chunk) => chunk.id === 'data');
  if (!data) throw new WavError('truncated', 'The file ends before its audio: there is no data chunk');
  const frames = Math.floor(data.presentBytes / fmt.bytesPerFrame);
  if (frames === 0) {
    if (data.claimedBytes >= fmt.bytesPerFrame) throw new WavError('truncated', 'The file ends before its first sample');
    throw new WavError('empty', 'The file holds no audio: its data chunk is empty');
  }
  if (data.presentBytes < data.claimedBytes) {
    const missing = Math.ceil((data.claimedBytes - data.presentBytes) / fmt.bytesPerFrame / fmt.sampleRateHz);
    warnings.push(`${CUT_SHORT} the header promises about ${missing} s more than the file holds; what is there is used`);
  } else if (data.presentBytes % fmt.bytesPerFrame !== 0) {
    warnings.push('the last sample frame is incomplete and was left out');
  } else if (!warnings.some((warning) => warning.startsWith(NO_LENGTH))) {
    const missingBytes = promisedBytes(source, container) - source.sizeBytes;
    if (missingBytes > 1) warnings.push(`${CUT_SHORT} the header promises ${missingBytes} bytes more than the file holds; its audio is all there, what stood behind it is not`);
  }
  const metadata = readMetadata(source, chunks, warnings, { ...fmt, frames });
  const format: FileFormat = {
    container,
    codec: 'PCM',
    lossy: false,
    remarks: [],
    stereoFrom: [],
    encoding: fmt.encoding,
    bitDepth: fmt.bitDepth,
    sampleRateHz: fmt.sampleRateHz,
    channels: fmt.channels,
    frames,
    durationS: frames / fmt.sampleRateHz,
    ...metadata,
  };
  return { format, dataOffset: data.offset, bytesPerFrame: fmt.bytesPerFrame, channelMask: fmt.channelMask, warnings };
}

/** Where the chunks of a WAVE file lie, in their order. @throws WavError where it is none */
export function wavChunks(source: ByteSource): { container: 'RIFF' | 'RF64' | 'BW64'; chunks: Chunk[] } {
  const container = readContainer(source);
  return { container, chunks: readChunks(source, container, []) };
}

function view(source: ByteSource, offset: number, length: number): DataView | null {
  const bytes = new Uint8Array(length);
  return source.read(offset, bytes) === length ? new DataView(bytes.buffer) : null;
}

function fourCc(data: DataView, at: number): string {
  return String.fromCharCode(data.getUint8(at), data.getUint8(at + 1), data.getUint8(at + 2), data.getUint8(at + 3));
}

function readContainer(source: ByteSource): 'RIFF' | 'RF64' | 'BW64' {
  if (source.sizeBytes === 0) throw new WavError('empty', 'The file is empty: 0 bytes');
  const head = view(source, 0, 12);
  const id = head ? fourCc(head, 0) : '';
  if (head && (id === 'RIFF' || id === 'RF64' || id === 'BW64') && fourCc(head, 8) === 'WAVE') return id;
  throw new WavError('not-wav', 'The file is not a WAVE file: it does not begin with RIFF, RF64 or BW64 and WAVE');
}

/** What RIFF says of the length of the whole file, EBU Tech 3306 clause 4 for more than 4 GiB; 0 where it says nothing. */
function promisedBytes(source: ByteSource, container: 'RIFF' | 'RF64' | 'BW64'): number {
  const size = view(source, 4, 4)?.getUint32(0, true) ?? 0;
  if (size !== SIZE_IN_DS64) return size + 8;
  const large = container === 'RIFF' ? null : view(source, 20, 8);
  return large ? Number(large.getBigUint64(0, true)) + 8 : 0;
}

function readChunks(source: ByteSource, container: 'RIFF' | 'RF64' | 'BW64', warnings: string[]): Chunk[] {
  const chunks: Chunk[] = [];
  const large = new Map<string, number>();
  let at = 12;
  while (at + 8 <= source.sizeBytes && chunks.length < MOST_CHUNKS) {
    const head = view(source, at, 8);
    if (!head) break;
    const id = fourCc(head, 0);
    let claimedBytes = head.getUint32(4, true);
    if (id === 'ds64' && container !== 'RIFF') readDs64(source, at + 8, claimedBytes, large);
    if (claimedBytes === SIZE_IN_DS64 && container !== 'RIFF') claimedBytes = large.get(id) ?? claimedBytes;
    const offset = at + 8;
    const reachable = Math.max(0, source.sizeBytes - offset);
    // A recorder that lost power leaves the size at 0 or at its largest value: the audio runs to the end.
    const unfinished = id === 'data' && (claimedBytes === SIZE_IN_DS64 || (claimedBytes === 0 && reachable > 8 && !looksLikeChunk(source, offset)));
    if (unfinished) {
      warnings.push(`${NO_LENGTH} for the audio, as one does that was not closed; it is read to the end of the file`);
      claimedBytes = reachable;
    }
    chunks.push({ id, offset, claimedBytes, presentBytes: Math.min(claimedBytes, reachable) });
    at = offset + claimedBytes + (claimedBytes % 2);
  }
  if (chunks.length === MOST_CHUNKS) warnings.push(`only the first ${MOST_CHUNKS} chunks were looked at`);
  return chunks;
}

function looksLikeChunk(source: ByteSource, at: number): boolean {
  const head = view(source, at, 8);
  return head !== null && /^[A-Za-z0-9 _-]{4}$/.test(fourCc(head, 0)) && at + 8 + head.getUint32(4, true) <= source.sizeBytes + 1;
}

/** ds64, EBU Tech 3306 clause 4: the sizes that do not fit 32 bits. */
function readDs64(source: ByteSource, offset: number, length: number, large: Map<string, number>): void {
  const head = view(source, offset, 28);
  if (length < 28 || !head) return;
  large.set('data', Number(head.getBigUint64(8, true)));
  const entries = Math.min(head.getUint32(24, true), 64);
  for (let entry = 0; entry < entries; entry++) {
    const row = view(source, offset + 28 + entry * 12, 12);
    if (!row) return;
    large.set(fourCc(row, 0), Number(row.getBigUint64(4, true)));
  }
}

interface Fmt {
  encoding: 'pcm' | 'float';
  bitDepth: number;
  sampleRateHz: number;
  channels: number;
  bytesPerFrame: number;
  channelMask: number;
}

function readFmt(source: ByteSource, chunk: Chunk | undefined, anyChunk: boolean): Fmt {
  if (!chunk) {
    throw new WavError(anyChunk ? 'not-wav' : 'truncated', 'The file has no fmt chunk: nothing says how its samples are stored');
  }
  const fmt = view(source, chunk.offset, 16);
  if (!fmt || chunk.claimedBytes < 16) throw new WavError('truncated', 'The fmt chunk is cut off');
  let tag = fmt.getUint16(0, true);
  let channelMask = 0;
  if (tag === FORMAT_EXTENSIBLE) {
    const extension = chunk.claimedBytes >= 40 ? view(source, chunk.offset, 40) : null;
    if (!extension) throw new WavError('unsupported-format', 'WAVE_FORMAT_EXTENSIBLE without its extension');
    channelMask = extension.getUint32(20, true);
    tag = extension.getUint16(24, true);
  }
  const channels = fmt.getUint16(2, true);
  const sampleRateHz = fmt.getUint32(4, true);
  const blockAlign = fmt.getUint16(12, true);
  const bitDepth = fmt.getUint16(14, true);
  const encoding = tag === FORMAT_PCM ? 'pcm' : tag === FORMAT_FLOAT ? 'float' : null;
  if (encoding === null) throw new WavError('unsupported-format', `Format tag 0x${tag.toString(16).padStart(4, '0')} is not PCM or IEEE float; convert the file first`);
  const known = encoding === 'pcm' ? [16, 24, 32] : [32, 64];
  if (!known.includes(bitDepth)) throw new WavError('unsupported-format', `${bitDepth} bit ${encoding} is not supported; use ${known.join(', ')} bit`);
  if (channels < 1 || channels > MOST_CHANNELS) throw new WavError('unsupported-format', `${channels} channels; 1 to ${MOST_CHANNELS} are supported`);
  if (sampleRateHz < LOWEST_RATE_HZ || sampleRateHz > HIGHEST_RATE_HZ) {
    throw new WavError('unsupported-format', `A sample rate of ${sampleRateHz} Hz; ${LOWEST_RATE_HZ} to ${HIGHEST_RATE_HZ} Hz are supported`);
  }
  const bytesPerFrame = (channels * bitDepth) / 8;
  if (blockAlign !== bytesPerFrame) {
    throw new WavError('unsupported-format', `The header contradicts itself: ${channels} channels of ${bitDepth} bit are ${bytesPerFrame} bytes a frame, not ${blockAlign}`);
  }
  return { encoding, bitDepth, sampleRateHz, channels, bytesPerFrame, channelMask };
}

type Metadata = Pick<FileFormat, 'timeReferenceS' | 'startsAt' | 'originator' | 'description' | 'scene' | 'take' | 'tape' | 'trackNames' | 'markers'>;

function readMetadata(source: ByteSource, chunks: Chunk[], warnings: string[], { sampleRateHz, channels, frames }: Fmt & { frames: number }): Metadata {
  const bytesOf = (id: string, kind?: 'INFO' | 'adtl'): Uint8Array | null => {
    const chunk = chunks.find((each) => each.id === id && (kind === undefined || listKind(source, each) === kind));
    if (!chunk) return null;
    const bytes = new Uint8Array(Math.min(chunk.presentBytes, LARGEST_TEXT_CHUNK));
    source.read(chunk.offset, bytes);
    return bytes;
  };
  const bextBytes = bytesOf('bext');
  const bext = bextBytes ? readBext(bextBytes) : null;
  if (bextBytes && !bext) warnings.push('the bext chunk is too short and was left out');
  const ixmlBytes = bytesOf('iXML');
  const ixml = ixmlBytes ? readIxml(ixmlBytes) : null;
  if (ixmlBytes && !ixml) warnings.push('the iXML chunk is not well formed and was left out');
  const infoBytes = bytesOf('LIST', 'INFO');
  const info = infoBytes ? readListInfo(infoBytes) : null;
  const cue = bytesOf('cue ');
  return {
    timeReferenceS: bext ? bext.timeReferenceSamples / sampleRateHz : null,
    startsAt: bext && startOf(bext, sampleRateHz),
    originator: bext?.originator || null,
    description: bext?.description || info?.comment || info?.name || null,
    scene: ixml?.scene ?? bext?.scene ?? null,
    take: ixml?.take ?? bext?.take ?? null,
    tape: ixml?.tape ?? bext?.tape ?? null,
    trackNames: Array.from({ length: channels }, (_, index) => ixml?.trackNames[index] ?? bext?.trackNames[index] ?? null),
    markers: cue ? readMarkers(cue, bytesOf('LIST', 'adtl'), { sampleRateHz, frames }) : [],
  };
}

function listKind(source: ByteSource, chunk: Chunk): string {
  const head = view(source, chunk.offset, 4);
  return head ? fourCc(head, 0) : '';
}
