import type { WavLayout } from './wavFormat.ts';

/**
 * A layout of a stretch of a file, as if it were all of it: whoever reads by it reads nothing else, and counts time from where it begins.
 * @param span in seconds of the file; null is its start, or its end
 * @example narrowed(readWavHeader(source), [12.5, null]).format.durationS
 */
export function narrowed(layout: WavLayout, [startS, endS]: readonly [startS: number | null, endS: number | null]): WavLayout {
  if (startS === null && endS === null) return layout;
  const { format, bytesPerFrame, dataOffset } = layout;
  const frameOf = (seconds: number) => Math.min(format.frames, Math.max(0, Math.round(seconds * format.sampleRateHz)));
  const first = frameOf(startS ?? 0);
  const frames = Math.max(0, (endS === null ? format.frames : frameOf(endS)) - first);
  const timeReferenceS = format.timeReferenceS === null ? null : format.timeReferenceS + first / format.sampleRateHz;
  return { ...layout, dataOffset: dataOffset + first * bytesPerFrame, format: { ...format, frames, durationS: frames / format.sampleRateHz, timeReferenceS } };
}
