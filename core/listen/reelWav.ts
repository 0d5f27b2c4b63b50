import { bufferSource } from '../audio/byteSource.ts';
import { writeMarkers } from '../audio/chunks/cues.ts';
import { closedWavHead, growingWavHead } from '../audio/growingWav.ts';
import { readSpan } from '../audio/readSamples.ts';
import { readWavHeader } from '../audio/readWavHeader.ts';
import { interleaved, type WavEncoding } from '../audio/wavParts.ts';
import { CLIP_RATE_HZ } from './clipForm.ts';
import { type Reel, reelMarkers } from './reel.ts';

const FORMAT: WavEncoding = { encoding: 'pcm', bitDepth: 24, sampleRateHz: CLIP_RATE_HZ };
const BYTES_A_SAMPLE = 3;
const FADE_S = 0.005;

const framesOf = (seconds: number) => Math.round(seconds * CLIP_RATE_HZ);

/** How many frames a reel has. */
export const reelFrames = ({ parts }: Reel): number => Math.max(0, ...parts.map(({ atS, span }) => framesOf(atS) + framesOf(span[1]) - framesOf(span[0])));

/** The head of a reel's file, up to its samples, with a marker for each part; and how many bytes the file has in all. */
export function reelHead(reel: Reel, names: readonly string[], channels: number): { head: Uint8Array; sizeBytes: number; padBytes: number } {
  const bytesPerFrame = channels * BYTES_A_SAMPLE;
  const dataBytes = reelFrames(reel) * bytesPerFrame;
  const { cue, adtl } = writeMarkers(reelMarkers(reel, names), CLIP_RATE_HZ);
  const open = growingWavHead({ ...FORMAT, channels }, [
    { id: 'cue ', body: cue },
    { id: 'LIST', body: adtl },
  ]);
  const head = closedWavHead(open, dataBytes, bytesPerFrame);
  const padBytes = dataBytes % 2;
  return { head, sizeBytes: head.byteLength + dataBytes + padBytes, padBytes };
}

/**
 * The samples of a part with short fades, and what is before it, silence or a spoken letter, as they are stored.
 * @param clip the WAVE file of its clip
 * @param letter the samples of its letter, where the reel speaks them
 */
export function reelPartBytes(reel: Reel, index: number, clip: Uint8Array, letter: Float64Array | null): Uint8Array<ArrayBuffer> {
  const part = reel.parts[index];
  if (!part) throw new RangeError('A reel has no such part');
  const before = reel.parts[index - 1];
  const source = bufferSource(clip);
  const layout = readWavHeader(source);
  const begins = before ? framesOf(before.atS) + framesOf(before.span[1]) - framesOf(before.span[0]) : 0;
  const silent = framesOf(part.atS) - begins;
  const [from, count] = [framesOf(part.span[0]), framesOf(part.span[1]) - framesOf(part.span[0])];
  const fade = FADE_S * CLIP_RATE_HZ;
  const channels = Array.from({ length: layout.format.channels }, (_, channel) => {
    const samples = readSpan(source, layout, channel, from, count);
    const out = new Float64Array(silent + count);
    if (letter && part.letterAtS !== null) out.set(letter.subarray(0, silent), framesOf(part.letterAtS) - begins);
    for (let at = 0; at < count; at++) out[silent + at] = (samples[at] as number) * Math.min(1, at / fade, (count - 1 - at) / fade);
    return out;
  });
  return interleaved(channels, FORMAT);
}
