import type { Speaker } from './useHearing.ts';

/** No more of a close recording is used: what is compared is heard again and again. */
const MOST_S = 20;
const LARGEST_BYTES = 200 << 20;

/**
 * The first channel of a close recording of the user's own, decoded by the browser; it stays on this page.
 * @throws where it cannot be read, with what to do
 */
export async function ownVoice(file: File): Promise<Exclude<Speaker, number>> {
  if (file.size > LARGEST_BYTES) throw new Error(`${file.name} is larger than 200 MB: cut the words out of it first.`);
  const context = new OfflineAudioContext(1, 1, 48_000);
  const decoded = await context.decodeAudioData(await file.arrayBuffer()).catch(() => {
    throw new Error(`${file.name} cannot be read as sound: choose a WAV, FLAC or MP3 of dry words, recorded close.`);
  });
  const samples = Float64Array.from(decoded.getChannelData(0).subarray(0, MOST_S * decoded.sampleRate));
  if (!samples.some((x) => Math.abs(x) > 0.01)) throw new Error(`${file.name} is silent in its first ${MOST_S} seconds: choose one in which somebody speaks.`);
  return { name: file.name, samples, rateHz: decoded.sampleRate };
}
