import { resample } from '../audio/resample.ts';
import { CLIP_RATE_HZ } from './clipForm.ts';
import spoken from './spokenLetters.json' with { type: 'json' };
import { voiceLoudnessLufs } from './voiceLoudness.ts';

const FULL_SCALE = 32_768;

/**
 * A letter, A to L, spoken by a synthetic voice, at the rate of clips.
 * @param loudnessLufs how loud; held at full scale
 * @throws RangeError for a letter that no clip has
 */
export function spokenLetter(letter: string, loudnessLufs: number): Float64Array {
  const text = (spoken.letters as Record<string, string>)[letter];
  if (text === undefined) throw new RangeError(`No clip is called ${letter}`);
  const bytes = Uint8Array.from(atob(text), (each) => each.charCodeAt(0));
  const view = new DataView(bytes.buffer);
  const samples = resample(
    Float64Array.from({ length: bytes.length / 2 }, (_, at) => view.getInt16(2 * at, true) / FULL_SCALE),
    spoken.rateHz,
    CLIP_RATE_HZ,
  );
  const now = voiceLoudnessLufs(samples, CLIP_RATE_HZ, []);
  const gain = now === null ? 1 : 10 ** ((loudnessLufs - now) / 20);
  return samples.map((value) => Math.max(-1, Math.min(1, value * gain)));
}
