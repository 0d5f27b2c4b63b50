import { Cascade, highPass, lowPass } from '../audio/biquad.ts';
import { filled } from '../audio/filled.ts';

const STEP_S = 0.01;
/** A voice is told from hiss by what it has between these. */
const VOICE_HZ = [100, 1000] as const;
const GAP_FRAMES = 4;
const RISE_FRAMES = 5;
/** Sounds nearer than this are one. */
const APART_S = 0.35;
const LEAST_LEVEL_DB = -35;

/**
 * Where a vowel breaks out of a gap within 50 ms, in seconds, as after P and B: the seats of plosives.
 * Sounds that begin with hiss have none.
 * @param leastRiseDb how far the voice's own range rises; lower for every place that might be taken for one
 * @param apartS least distance between two
 */
export function onsetsOf(voice: Float64Array, rateHz: number, leastRiseDb = 15, apartS = APART_S): number[] {
  const voiced = new Float64Array(voice.length);
  new Cascade([highPass(VOICE_HZ[0], Math.SQRT1_2, rateHz), lowPass(VOICE_HZ[1], Math.SQRT1_2, rateHz)]).process(voice, voiced, voice.length);
  const step = Math.round(rateHz * STEP_S);
  const levels = filled(Math.floor(voice.length / step), (frame) => {
    let sum = 0;
    for (let index = frame * step; index < (frame + 1) * step; index++) sum += (voiced[index] as number) ** 2;
    return 10 * Math.log10(sum / step + 1e-9);
  });
  const onsets: number[] = [];
  for (let frame = GAP_FRAMES; frame + RISE_FRAMES <= levels.length; frame++) {
    const before = Math.max(...levels.subarray(frame - GAP_FRAMES, frame));
    const after = Math.max(...levels.subarray(frame, frame + RISE_FRAMES));
    if (after - before >= leastRiseDb && after > LEAST_LEVEL_DB && frame * STEP_S - (onsets.at(-1) ?? -1) > apartS) onsets.push(frame * STEP_S);
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
