import { Cascade } from '../audio/biquad.ts';
import { kWeighting } from '../audio/weighting.ts';
import type { Span } from '../measure/report.types.ts';

const OFFSET_LUFS = -0.691;
const LEAST_SHARE = 0.05;

/**
 * Loudness of the voice alone in a passage, in LUFS: K-weighted power (ITU-R BS.1770-5) of the words, the
 * power of what lies between them taken off. Without words it is that of all of the passage. A whole
 * file's loudness would judge slates, room tone and engines along with the voice.
 * @param words stretches of words in seconds of the passage
 * @returns null for silence
 */
export function voiceLoudnessLufs(samples: Float64Array, sampleRateHz: number, words: readonly Span[]): number | null {
  const weighted = new Float64Array(samples.length);
  new Cascade(kWeighting(sampleRateHz)).process(samples, weighted, samples.length);
  let [inWords, wordFrames, between, betweenFrames] = [0, 0, 0, 0];
  let word = 0;
  for (let frame = 0; frame < weighted.length; frame++) {
    const atS = frame / sampleRateHz;
    while (word < words.length && (words[word] as Span)[1] <= atS) word++;
    const power = (weighted[frame] as number) ** 2;
    if (word < words.length && (words[word] as Span)[0] <= atS) {
      inWords += power;
      wordFrames++;
    } else {
      between += power;
      betweenFrames++;
    }
  }
  const whole = (inWords + between) / Math.max(1, weighted.length);
  const speaking = wordFrames > 0 ? inWords / wordFrames : whole;
  const noise = betweenFrames > 0 && wordFrames > 0 ? between / betweenFrames : 0;
  const voice = Math.max(speaking - noise, speaking * LEAST_SHARE);
  return voice > 0 ? OFFSET_LUFS + 10 * Math.log10(voice) : null;
}
