import { voiceLoudnessLufs } from '@marvet/core/listen/voiceLoudness';

/** Which ear is checked. */
export type Ear = 'left' | 'right' | 'both';

const LENGTH_S = 0.8;
const FADE_S = 0.05;

/**
 * Noise that falls by 3 dB an octave on one ear, or on both alike: heard where it should not be, ears are swapped, or left and right run
 * into one (J. Trammell's filter of three poles, by way of P. Kellet).
 * @param levelLufs that of the clips, so that a level that is comfortable here is so with them
 * @returns left and right
 */
export function earCheck(ear: Ear, levelLufs: number, rateHz: number, uniform: () => number): [Float32Array<ArrayBuffer>, Float32Array<ArrayBuffer>] {
  const frames = Math.round(LENGTH_S * rateHz);
  const noise = new Float64Array(frames);
  const fade = FADE_S * rateHz;
  let [a, b, c] = [0, 0, 0];
  for (let at = 0; at < frames; at++) {
    const white = 2 * uniform() - 1;
    a = 0.99765 * a + 0.099046 * white;
    b = 0.963 * b + 0.2965164 * white;
    c = 0.57 * c + 1.0526913 * white;
    noise[at] = 0.1 * (a + b + c + 0.1848 * white) * Math.min(1, at / fade, (frames - 1 - at) / fade);
  }
  const gain = 10 ** ((levelLufs - (voiceLoudnessLufs(noise, rateHz, []) ?? levelLufs)) / 20);
  const heard = Float32Array.from(noise, (value) => value * gain);
  const silent = new Float32Array(frames);
  return [ear === 'right' ? silent : heard, ear === 'left' ? silent : heard];
}
