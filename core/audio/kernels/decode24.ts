import { DECODE_WASM } from './decode.wasm.ts';
import { type KernelExports, openKernel } from './kernel.ts';

/** Stored 24-bit frames, and what they are as samples. */
export interface Decode24 {
  /** Where the stored bytes go. */
  readonly bytes: Uint8Array;
  /** Where the samples come out, an array a channel, full scale at 1. */
  readonly channels: readonly Float64Array[];
  /** Turns the first `frames` of the stored frames, which stand `stride` bytes apart, into samples. */
  run(frames: number, stride: number): void;
}

interface DecodeExports extends KernelExports {
  open(bytes: number, frames: number, channels: number): void;
  bytesPlace(): number;
  samplesPlace(): number;
  decode(channel: number, frames: number, stride: number): void;
}

/** Room for so many frames, in the fastest form that runs here. */
export const openDecode24 = (frames: number, channels: number, stride: number): Decode24 => kernelDecode24(frames, channels, stride) ?? plainDecode24(frames, channels, stride);

/** In WebAssembly; null where there is none. */
export function kernelDecode24(frames: number, channels: number, stride: number): Decode24 | null {
  const kernel = openKernel<DecodeExports>(DECODE_WASM);
  if (!kernel) return null;
  kernel.open(frames * stride, frames, channels);
  const { buffer } = kernel.memory;
  const rowBytes = frames * Float64Array.BYTES_PER_ELEMENT;
  return {
    bytes: new Uint8Array(buffer, kernel.bytesPlace(), frames * stride),
    channels: Array.from({ length: channels }, (_, channel) => new Float64Array(buffer, kernel.samplesPlace() + channel * rowBytes, frames)),
    run(count, apart) {
      for (let channel = 0; channel < channels; channel++) kernel.decode(channel, count, apart);
    },
  };
}

/** The same in plain TypeScript. */
export function plainDecode24(frames: number, channels: number, stride: number): Decode24 {
  const bytes = new Uint8Array(frames * stride);
  const arrays = Array.from({ length: channels }, () => new Float64Array(frames));
  return {
    bytes,
    channels: arrays,
    run(count, apart) {
      arrays.forEach((out, channel) => {
        decodeChannel24(bytes, channel * 3, apart, count, out);
      });
    },
  };
}

/** One channel of stored frames, the first of its bytes at `from`. */
export function decodeChannel24(bytes: Uint8Array, from: number, stride: number, count: number, out: Float64Array): void {
  for (let frame = 0, offset = from; frame < count; frame++, offset += stride) {
    // The three bytes fill the top of 32 bits, so that the sign comes out right by itself.
    out[frame] = (((bytes[offset] as number) << 8) | ((bytes[offset + 1] as number) << 16) | ((bytes[offset + 2] as number) << 24)) / 2147483648;
  }
}
