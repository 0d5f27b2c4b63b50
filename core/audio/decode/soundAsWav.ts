import { filled } from '../filled.ts';
import type { GrowingFormat } from '../growingWav.ts';
import { interleaved } from '../wavParts.ts';
import type { SoundFormat } from './decodedSound.ts';

/** As what a decoded sound is kept: whole numbers as they were, all else as 32-bit floats, which lose nothing of what a decoder gives. */
export function wavFormatOf({ channels, sampleRateHz, bitDepth, lossy }: SoundFormat): GrowingFormat {
  if (lossy || bitDepth === null || bitDepth > 24) return { channels, sampleRateHz, encoding: 'float', bitDepth: 32 };
  return { channels, sampleRateHz, encoding: 'pcm', bitDepth: bitDepth <= 16 ? 16 : 24 };
}

/** A block of samples as the bytes of a WAVE file of {@link wavFormatOf}. */
export function wavBytesOf(block: readonly Float32Array[], sound: SoundFormat): Uint8Array<ArrayBuffer> {
  const format = wavFormatOf(sound);
  const { bitDepth, scale } = sound;
  if (format.encoding === 'float' || bitDepth === null) return interleaved(block, format);
  // Each the whole number that it was, at the full scale of its own bits.
  const whole = block.map((samples) => filled(samples.length, (index) => Math.round((samples[index] as number) * scale) / 2 ** (bitDepth - 1)));
  return interleaved(whole, format);
}
