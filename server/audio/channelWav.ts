import { closeSync, openSync } from 'node:fs';
import { narrowed } from '@marvet/core/audio/narrowed';
import { BLOCK_FRAMES, sampleDecoder } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { interleaved } from '@marvet/core/audio/wavParts';
import { writeWav } from '@marvet/core/audio/writeWav';
import { descriptorSource } from './fileSource.ts';

const HEADER_BYTES = 44;
const WIDTH = 3;

/**
 * One channel of a stored file or several, or a stretch of them, as a 24-bit WAVE file, read block by block while it is sent.
 * @throws RangeError when it would pass 4 GiB
 */
export function channelWav(
  path: string,
  channels: readonly number[],
  span: readonly [startS: number | null, endS: number | null],
): { lengthBytes: number; body: ReadableStream<Uint8Array<ArrayBuffer>> } {
  const descriptor = openSync(path, 'r');
  const source = descriptorSource(descriptor);
  const layout = narrowed(readWavHeader(source), span);
  const { frames, sampleRateHz } = layout.format;
  const frameBytes = WIDTH * channels.length;
  const lengthBytes = HEADER_BYTES + frames * frameBytes;
  if (lengthBytes > 0xffffffff) {
    closeSync(descriptor);
    throw new RangeError('It is too long for one WAVE file');
  }
  const decode = sampleDecoder(layout, () => undefined);
  const bytes = new Uint8Array(BLOCK_FRAMES * layout.bytesPerFrame);
  const into = Array.from({ length: layout.format.channels }, () => new Float64Array(BLOCK_FRAMES));
  const encoding = { encoding: 'pcm', bitDepth: 24, sampleRateHz } as const;
  let frame = 0;
  const body = new ReadableStream<Uint8Array<ArrayBuffer>>({
    start(controller) {
      const header = writeWav(
        channels.map(() => new Float64Array(0)),
        encoding,
      ) as Uint8Array<ArrayBuffer>;
      const data = new DataView(header.buffer);
      data.setUint32(4, lengthBytes - 8, true);
      data.setUint32(40, frames * frameBytes, true);
      controller.enqueue(header);
    },
    pull(controller) {
      const wanted = Math.min(BLOCK_FRAMES, frames - frame);
      const got = source.read(layout.dataOffset + frame * layout.bytesPerFrame, bytes.subarray(0, wanted * layout.bytesPerFrame));
      const count = Math.floor(got / layout.bytesPerFrame);
      if (count === 0) {
        closeSync(descriptor);
        controller.close();
        return;
      }
      decode(new DataView(bytes.buffer), count, into);
      const samples = channels.map((channel) => (into[channel] as Float64Array).subarray(0, count));
      controller.enqueue(interleaved(samples, encoding));
      frame += count;
    },
    cancel() {
      closeSync(descriptor);
    },
  });
  return { lengthBytes, body };
}
