import type { ByteSource } from './byteSource.ts';
import { decodeChannel24, openDecode24 } from './kernels/decode24.ts';
import type { WavLayout } from './wavFormat.ts';

/** Turns stored frames into one array a channel, full scale at 1. `frames` of each array are written. */
export type Decoder = (bytes: DataView, frames: number, into: readonly Float64Array[]) => void;

/** The decoder for a layout. Not-a-number and infinite floats become 0 and are counted. */
export function sampleDecoder(layout: WavLayout, onBadSample: () => void): Decoder {
  const { channels, encoding, bitDepth } = layout.format;
  const width = bitDepth / 8;
  const stride = layout.bytesPerFrame;
  if (encoding === 'float') {
    const at = bitDepth === 32 ? (data: DataView, offset: number) => data.getFloat32(offset, true) : (data: DataView, offset: number) => data.getFloat64(offset, true);
    return (data, frames, into) => {
      for (let channel = 0; channel < channels; channel++) {
        const out = into[channel] as Float64Array;
        for (let frame = 0, offset = channel * width; frame < frames; frame++, offset += stride) {
          const value = at(data, offset);
          if (Number.isFinite(value)) out[frame] = value;
          else {
            out[frame] = 0;
            onBadSample();
          }
        }
      }
    };
  }
  if (bitDepth === 24) {
    return (data, frames, into) => {
      const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
      for (let channel = 0; channel < channels; channel++) {
        decodeChannel24(bytes, channel * 3, stride, frames, into[channel] as Float64Array);
      }
    };
  }
  const scale = bitDepth === 16 ? 1 / 32768 : 1 / 2147483648;
  const at = bitDepth === 16 ? (data: DataView, offset: number) => data.getInt16(offset, true) : (data: DataView, offset: number) => data.getInt32(offset, true);
  return (data, frames, into) => {
    for (let channel = 0; channel < channels; channel++) {
      const out = into[channel] as Float64Array;
      for (let frame = 0, offset = channel * width; frame < frames; frame++, offset += stride) {
        out[frame] = at(data, offset) * scale;
      }
    }
  };
}

/** Frames per block: small enough to stay in cache, large enough to make the calls cheap. */
export const BLOCK_FRAMES = 4096;

/**
 * Reads all samples in blocks of at most {@link BLOCK_FRAMES}, one array a channel, full scale at 1.
 * The arrays are used again for every block. Memory does not grow with the file.
 * @param onBlock gets the arrays and how many frames of them count; returns false to stop
 * @returns frames read and how many samples were not finite
 */
export function readBlocks(
  source: ByteSource,
  layout: WavLayout,
  onBlock: (channels: readonly Float64Array[], frames: number) => boolean | void,
): { frames: number; badSamples: number } {
  let badSamples = 0;
  const { bytes, channels: into, run: decode } = blockDecoder(layout, () => badSamples++);
  let frame = 0;
  while (frame < layout.format.frames) {
    const wanted = Math.min(BLOCK_FRAMES, layout.format.frames - frame);
    const got = source.read(layout.dataOffset + frame * layout.bytesPerFrame, bytes.subarray(0, wanted * layout.bytesPerFrame));
    const frames = Math.floor(got / layout.bytesPerFrame);
    if (frames === 0) break;
    decode(frames);
    frame += frames;
    if (onBlock(into, frames) === false) break;
  }
  return { frames: frame, badSamples };
}

/** Room for the stored bytes of a block, and for what they are as samples. 24 bit is what field recorders write: it has a fast way of its own. */
function blockDecoder(layout: WavLayout, onBadSample: () => void): { bytes: Uint8Array; channels: readonly Float64Array[]; run: (frames: number) => void } {
  const { bytesPerFrame, format } = layout;
  if (format.encoding === 'pcm' && format.bitDepth === 24) {
    const { bytes, channels, run } = openDecode24(BLOCK_FRAMES, format.channels, bytesPerFrame);
    return { bytes, channels, run: (frames) => run(frames, bytesPerFrame) };
  }
  const bytes = new Uint8Array(BLOCK_FRAMES * bytesPerFrame);
  const data = new DataView(bytes.buffer);
  const channels = Array.from({ length: format.channels }, () => new Float64Array(BLOCK_FRAMES));
  const decode = sampleDecoder(layout, onBadSample);
  return { bytes, channels, run: (frames) => decode(data, frames, channels) };
}

/** One channel of a file as a whole; for short clips only. */
export function readChannel(source: ByteSource, layout: WavLayout, channel: number): Float64Array {
  return readSpan(source, layout, channel, 0, layout.format.frames);
}

/**
 * A stretch of one channel, wherever it lies. Frames before the start and after the end of the file
 * are silence, so that the result always has the length asked for.
 */
export function readSpan(source: ByteSource, layout: WavLayout, channel: number, startFrame: number, frames: number): Float64Array {
  const samples = new Float64Array(Math.max(0, frames));
  const first = Math.max(0, startFrame);
  const wanted = Math.min(startFrame + frames, layout.format.frames) - first;
  if (wanted <= 0) return samples;
  const { bytesPerFrame } = layout;
  const single: WavLayout = { ...layout, format: { ...layout.format, channels: 1 } };
  const decode = sampleDecoder(single, () => undefined);
  const width = layout.format.bitDepth / 8;
  const bytes = new Uint8Array((wanted - 1) * bytesPerFrame + width);
  const got = source.read(layout.dataOffset + first * bytesPerFrame + channel * width, bytes);
  const there = Math.floor((got - width) / bytesPerFrame) + 1;
  decode(new DataView(bytes.buffer), Math.max(0, there), [samples.subarray(first - startFrame)]);
  return samples;
}
