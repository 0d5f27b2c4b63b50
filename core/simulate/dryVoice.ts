/** Beginnings of sounds in a dry voice: where it rises by 15 dB or more out of a gap, in seconds. */
export function onsetsOf(voice: Float64Array, rateHz: number): number[] {
  const step = Math.round(rateHz * 0.01);
  const levels = Float64Array.from({ length: Math.floor(voice.length / step) }, (_, frame) => {
    let sum = 0;
    for (let index = frame * step; index < (frame + 1) * step; index++) sum += (voice[index] as number) ** 2;
    return 10 * Math.log10(sum / step + 1e-9);
  });
  const onsets: number[] = [];
  for (let frame = 6; frame < levels.length - 8; frame++) {
    const before = Math.max(...levels.subarray(frame - 4, frame));
    const after = Math.max(...levels.subarray(frame, frame + 5));
    if (after - before >= 15 && after > -35 && frame * 0.01 - (onsets.at(-1) ?? -1) > 0.35) onsets.push(frame * 0.01);
  }
  return onsets;
}

/** Clips one after another with gaps between them, in seconds. */
export function withGaps(clips: readonly Float64Array[], gapsS: readonly number[], rateHz: number): Float64Array {
  const parts = clips.flatMap((clip, index) => (index === 0 ? [clip] : [new Float64Array(Math.round((gapsS[index - 1] ?? 0.5) * rateHz)), clip]));
  const out = new Float64Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
