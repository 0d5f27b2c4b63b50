import type { ByteSource } from '../../audio/byteSource.ts';
import { readSpan } from '../../audio/readSamples.ts';
import { interpolated, reachOf } from '../../audio/resample.ts';
import type { WavLayout } from '../../audio/wavFormat.ts';

/** One channel that can be read anywhere, so that a pair of long files takes little memory. */
export interface PairTrack {
  sampleRateHz: number;
  frames: number;
  /** `frames` samples from `startFrame` on; silence outside the file. */
  read(startFrame: number, frames: number): Float64Array;
  /** The two channels of which it is the sum to mono; absent where it is one channel. */
  channels?: readonly PairTrack[];
}

/** A channel of an opened file as a track. */
export function fileTrack(source: ByteSource, layout: WavLayout, channel: number): PairTrack {
  const { sampleRateHz, frames } = layout.format;
  return { sampleRateHz, frames, read: (startFrame, count) => readSpan(source, layout, channel, startFrame, count) };
}

/** Two channels as one track: their sum to mono, (a + b) / 2, with each by itself beside it. One channel is that channel. */
export function monoTrack(channels: readonly PairTrack[]): PairTrack {
  const [first, other] = channels as [PairTrack, PairTrack?];
  if (!other) return first;
  return {
    sampleRateHz: first.sampleRateHz,
    frames: first.frames,
    channels,
    read(startFrame, count) {
      const sum = first.read(startFrame, count);
      const added = other.read(startFrame, count);
      for (let frame = 0; frame < count; frame++) sum[frame] = ((sum[frame] as number) + (added[frame] as number)) / 2;
      return sum;
    },
  };
}

/** A channel in memory as a track. */
export function sampleTrack(samples: Float64Array, sampleRateHz: number): PairTrack {
  return {
    sampleRateHz,
    frames: samples.length,
    read(startFrame, count) {
      const out = new Float64Array(count);
      const first = Math.max(0, startFrame);
      const end = Math.min(samples.length, startFrame + count);
      if (end > first) out.set(samples.subarray(first, end), first - startFrame);
      return out;
    },
  };
}

/**
 * A stretch of a track at another rate and clock: `count` values from `startS` on, `stepS` seconds of
 * the track apart.
 */
export function readAtTimes(track: PairTrack, startS: number, stepS: number, count: number): Float64Array {
  const start = startS * track.sampleRateHz;
  const step = stepS * track.sampleRateHz;
  const reach = reachOf(step);
  const first = Math.floor(start) - reach;
  const samples = track.read(first, Math.ceil(count * step) + 2 * reach + 2);
  return interpolated(samples, start - first, step, count);
}
