/** Which ear is checked. */
export type Ear = 'left' | 'right' | 'both';

const LENGTH_S = 0.8;
const FADE_S = 0.05;
/** As loud as clips that are matched to -23 LUFS, so that a level that is comfortable here is so with them. */
const LEVEL_DBFS = -23;

/**
 * Noise that falls by 3 dB an octave on one ear, or on both alike: heard where it should not be, ears are swapped, or left and right run
 * into one (J. Trammell's filter of three poles, by way of P. Kellet).
 * @returns left and right
 */
export function earCheck(ear: Ear, rateHz: number, uniform: () => number): [Float32Array<ArrayBuffer>, Float32Array<ArrayBuffer>] {
  const frames = Math.round(LENGTH_S * rateHz);
  const noise = new Float32Array(frames);
  let [a, b, c, power] = [0, 0, 0, 0];
  for (let at = 0; at < frames; at++) {
    const white = 2 * uniform() - 1;
    a = 0.99765 * a + 0.099046 * white;
    b = 0.963 * b + 0.2965164 * white;
    c = 0.57 * c + 1.0526913 * white;
    const value = a + b + c + 0.1848 * white;
    noise[at] = value;
    power += value * value;
  }
  const gain = 10 ** (LEVEL_DBFS / 20) / Math.sqrt(power / frames);
  const fade = FADE_S * rateHz;
  for (let at = 0; at < frames; at++) noise[at] = (noise[at] as number) * gain * Math.min(1, at / fade, (frames - 1 - at) / fade);
  const silent = new Float32Array(frames);
  return [ear === 'right' ? silent : noise, ear === 'left' ? silent : noise];
}
