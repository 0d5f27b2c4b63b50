import { AudioSampleSink, CustomSource, EncodedPacketSink, Input, type InputAudioTrack, MP4, QTFF } from 'mediabunny';
import type { ByteSource } from '../byteSource.ts';
import { type DecodedSound, DecodeError, type SoundFormat } from './decodedSound.ts';
import { movieCreatedAt } from './movieCreatedAt.ts';

/** Blocks that are handed on, in frames. */
const BLOCK_FRAMES = 8192;

/** Samples of one track as they come, one array a channel. */
type TrackBlocks = AsyncGenerator<Float32Array[], void>;

const LOSSLESS_BITS: Record<string, number> = { 'pcm-s16': 16, 'pcm-s16be': 16, 'pcm-s24': 24, 'pcm-s24be': 24, 'pcm-u8': 8, 'pcm-s8': 8 };

/**
 * The sound of a camera file (MP4, MOV and their family, ISO/IEC 14496-12): all of its audio tracks side by side,
 * in time as the file has them. Tracks of another rate than the first are left out, and it is said.
 * @throws DecodeError where there is none, or it cannot be decoded
 */
export async function filmSound(source: ByteSource): Promise<DecodedSound> {
  const input = new Input({
    formats: [MP4, QTFF],
    source: new CustomSource({
      getSize: () => source.sizeBytes,
      read(start, end) {
        const bytes = new Uint8Array(end - start);
        return bytes.subarray(0, source.read(start, bytes));
      },
      prefetchProfile: 'fileSystem',
    }),
  });
  const all = await input.getAudioTracks().catch((error: unknown) => {
    throw new DecodeError(`The file cannot be taken apart: ${(error as Error).message}`);
  });
  const [first] = all;
  if (!first) throw new DecodeError('The file has no sound that is read, only pictures');
  const warnings: string[] = [];
  const tracks = all.filter((track) => {
    if (track.sampleRate === first.sampleRate) return true;
    warnings.push(`a track at ${track.sampleRate} Hz stands beside one at ${first.sampleRate} Hz and was left out`);
    return false;
  });
  const codec = first.codec ?? 'unknown';
  const bitDepth = tracks.every((track) => track.codec === first.codec) ? (LOSSLESS_BITS[codec] ?? null) : null;
  const lossy = tracks.some((track) => !track.codec?.startsWith('pcm') && track.codec !== 'flac');
  const openings = await Promise.all(tracks.map(trackBlocks));
  const names = await Promise.all(tracks.map((track) => track.getName().catch(() => null)));
  const format: SoundFormat = {
    container: (await input.getFormat()) === QTFF ? 'MOV' : 'MP4',
    codec: codec.startsWith('pcm') ? 'PCM' : codec.toUpperCase(),
    lossy,
    sampleRateHz: first.sampleRate,
    channels: tracks.reduce((sum, track) => sum + track.numberOfChannels, 0),
    bitDepth,
    scale: bitDepth === null ? 1 : 2 ** (bitDepth - 1),
    trackNames: tracks.flatMap((track, index) => Array.from({ length: track.numberOfChannels }, () => names[index] || null)),
    stereoFrom: stereoTracks(tracks.map(({ numberOfChannels }) => numberOfChannels)),
    startsAt: movieCreatedAt(source),
    warnings,
  };
  return {
    format,
    blocks: sideBySide(
      openings,
      tracks.map((track) => track.numberOfChannels),
    ),
  };
}

/** Where tracks of two channels begin among the channels of all tracks. */
function stereoTracks(channelsOf: readonly number[]): number[] {
  return channelsOf.flatMap((count, index) => (count === 2 ? [channelsOf.slice(0, index).reduce((sum, before) => sum + before, 0)] : []));
}

async function trackBlocks(track: InputAudioTrack): Promise<TrackBlocks> {
  if (track.codec?.startsWith('pcm')) return pcmBlocks(track);
  if (track.codec === 'aac') return aacBlocks(track);
  throw new DecodeError(`Its sound is ${track.codec ?? 'of a kind'} that is not read here. Take the sound out as WAV, FLAC or AAC first.`);
}

async function* pcmBlocks(track: InputAudioTrack): TrackBlocks {
  const sink = new AudioSampleSink(track);
  let waited = false;
  for await (const sample of sink.samples()) {
    if (!waited) yield* silence(track, sample.timestamp);
    waited = true;
    yield Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
      const samples = new Float32Array(sample.numberOfFrames);
      sample.copyTo(samples, { planeIndex, format: 'f32-planar' });
      return samples;
    });
    sample.close();
  }
}

async function* aacBlocks(track: InputAudioTrack): TrackBlocks {
  const config = await track.getDecoderConfig();
  const description = config?.description;
  if (!description) throw new DecodeError('Its AAC sound does not say how it was made');
  const asc = ArrayBuffer.isView(description) ? new Uint8Array(description.buffer, description.byteOffset, description.byteLength) : new Uint8Array(description);
  const { decoder } = await import('@audio/decode-aac');
  const firstS = await track.getFirstTimestamp();
  // An encoder's run-in lies before the start of the film; what it padded lies after its end.
  const gapless = { start: Math.max(0, -firstS), duration: (await track.computeDuration()) - Math.max(0, firstS) };
  const decoding = await decoder({ asc, gapless });
  try {
    yield* silence(track, firstS);
    for await (const packet of new EncodedPacketSink(track).packets()) {
      const { channelData, sampleRate } = decoding.decode(packet.data);
      if (!channelData[0]?.length) continue;
      if (sampleRate !== track.sampleRate)
        throw new DecodeError(`Its AAC sound is of a kind that is not read (${sampleRate} Hz where ${track.sampleRate} Hz is said). Take it out as WAV first.`);
      yield channelData;
    }
  } finally {
    decoding.free();
  }
}

/** A track that begins later than the film. */
async function* silence(track: InputAudioTrack, seconds: number): TrackBlocks {
  for (let left = Math.round(seconds * track.sampleRate); left > 0; ) {
    const frames = Math.min(left, BLOCK_FRAMES);
    left -= frames;
    yield Array.from({ length: track.numberOfChannels }, () => new Float32Array(frames));
  }
}

/** Tracks of different block lengths as one; what ends earlier is silent to the end. */
async function* sideBySide(tracks: readonly TrackBlocks[], channelsOf: readonly number[]): AsyncGenerator<Float32Array[]> {
  const held = tracks.map(() => ({ block: null as Float32Array[] | null, at: 0, ended: false }));
  for (;;) {
    for (const [index, own] of held.entries()) {
      while (!own.ended && (own.block === null || own.at >= (own.block[0]?.length ?? 0))) {
        const { value, done } = await (tracks[index] as TrackBlocks).next();
        Object.assign(own, done ? { block: null, ended: true } : { block: value as Float32Array[], at: 0 });
      }
    }
    const there = held.flatMap(({ block, at }) => (block ? [(block[0]?.length ?? 0) - at] : []));
    if (there.length === 0) return;
    const frames = Math.min(BLOCK_FRAMES, ...there);
    const joined = held.flatMap(({ block, at }, index) =>
      Array.from({ length: channelsOf[index] as number }, (_, channel) => block?.[channel]?.slice(at, at + frames) ?? new Float32Array(frames)),
    );
    for (const own of held) own.at += frames;
    yield joined;
  }
}
