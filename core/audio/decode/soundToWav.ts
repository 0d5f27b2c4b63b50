import { closedWavHead, growingWavHead } from '../growingWav.ts';
import { type DecodedSound, DecodeError } from './decodedSound.ts';
import { wavBytesOf, wavFormatOf } from './soundAsWav.ts';

/** Where a WAVE file is written to: one part after the other, and its head once more at the end. */
export interface WavSink {
  append(bytes: Uint8Array): void;
  rewriteHead(head: Uint8Array): void;
}

/**
 * Writes a decoded sound as a WAVE file, as it comes.
 * @throws DecodeError where there is no sound in it, or it cannot be decoded to its end
 */
export async function soundToWav({ format, blocks }: DecodedSound, sink: WavSink): Promise<void> {
  const wav = wavFormatOf(format);
  const head = growingWavHead(wav, []);
  sink.append(head);
  let dataBytes = 0;
  for await (const block of blocks) {
    const bytes = wavBytesOf(block, format);
    sink.append(bytes);
    dataBytes += bytes.byteLength;
  }
  if (dataBytes === 0) throw new DecodeError('There is no sound in it');
  if (dataBytes % 2 === 1) sink.append(Uint8Array.of(0));
  sink.rewriteHead(closedWavHead(head, dataBytes, (wav.channels * wav.bitDepth) / 8));
}
