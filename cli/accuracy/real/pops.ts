import { Cascade, highPass, lowPass } from '@marvet/core/audio/biquad';
import { FrameEnergies } from '@marvet/core/measure/tracks/frames';

/** Sound under 60 Hz this near to the level of the words is no voice. */
const UNDER_VOICE_DB = 12;
const FRAME_S = 0.01;
const AROUND_S = 0.03;

/**
 * Where a dry recording of a talker has more sound under 60 Hz than a voice makes: pops of breath, touches
 * of the microphone. Told by the physics alone, before anything is laid over the recording.
 */
export function popsOf(voice: Float64Array, rateHz: number): { startS: number; endS: number }[] {
  const sub = new FrameEnergies(rateHz, FRAME_S, new Cascade([lowPass(60, 0.5411961, rateHz), lowPass(60, 1.306563, rateHz), highPass(15, Math.SQRT1_2, rateHz)]));
  const whole = new FrameEnergies(rateHz, FRAME_S);
  for (const track of [sub, whole]) track.push(voice, voice.length);
  const least = meanOfLoud(whole.view()) * 10 ** (-UNDER_VOICE_DB / 10);
  const pops: { startS: number; endS: number }[] = [];
  sub.view().forEach((power, frame) => {
    if (power <= least) return;
    const last = pops.at(-1);
    const [startS, endS] = [frame * FRAME_S - AROUND_S, (frame + 1) * FRAME_S + AROUND_S];
    if (last && startS <= last.endS) last.endS = endS;
    else pops.push({ startS, endS });
  });
  return pops;
}

/** Mean of the powers that are within 25 dB of the largest: those of words, without the gaps between them. */
export function meanOfLoud(powers: Float64Array): number {
  const most = powers.reduce((peak, power) => Math.max(peak, power), 1e-15);
  const loud = powers.filter((power) => power > 0.003 * most);
  return loud.reduce((sum, power) => sum + power, 0) / Math.max(1, loud.length);
}
