import { AudioSample, AudioSampleSource, BufferTarget, MovOutputFormat, Output } from 'mediabunny';

/** Seconds from 1904, where films count from, to 1970. */
const EPOCH_S = 2_082_844_800;
const BLOCK_FRAMES = 48_000;

/**
 * A camera's file as a stand-in for a real one: a film (QuickTime) without pictures, with one sound track of 16-bit PCM.
 * @param channels one or two, equally long, full scale at 1
 * @param createdAtMs when it was started by the camera's clock, to the second, as its movie header says it
 */
export async function cameraFile(channels: readonly Float64Array[], sampleRateHz: number, createdAtMs: number): Promise<Uint8Array<ArrayBuffer>> {
  const target = new BufferTarget();
  const output = new Output({ format: new MovOutputFormat({ fastStart: 'in-memory' }), target });
  const track = new AudioSampleSource({ codec: 'pcm-s16' });
  output.addAudioTrack(track);
  await output.start();
  const frames = channels[0]?.length ?? 0;
  for (let at = 0; at < frames; at += BLOCK_FRAMES) {
    const blocks = channels.map((samples) => Float32Array.from(samples.subarray(at, at + BLOCK_FRAMES)));
    const numberOfFrames = blocks[0]?.length ?? 0;
    const data = new Float32Array(numberOfFrames * channels.length);
    blocks.forEach((block, channel) => data.set(block, channel * numberOfFrames));
    const sample = new AudioSample({ data, format: 'f32-planar', numberOfChannels: channels.length, sampleRate: sampleRateHz, timestamp: at / sampleRateHz });
    await track.add(sample);
    sample.close();
  }
  await output.finalize();
  const bytes = new Uint8Array(target.buffer as ArrayBuffer);
  setTimes(bytes, Math.round(createdAtMs / 1000) + EPOCH_S);
  return bytes;
}

/** The muxer writes when it ran; a camera writes when it was started (ISO/IEC 14496-12, 8.2.2, 8.3.2 and 8.4.2). */
function setTimes(bytes: Uint8Array<ArrayBuffer>, seconds: number): void {
  const data = new DataView(bytes.buffer);
  const codeOf = (kind: string) => [...kind].reduce((code, letter) => code * 256 + letter.charCodeAt(0), 0);
  const kinds = ['mvhd', 'tkhd', 'mdhd'].map(codeOf);
  const sound = codeOf('mdat');
  // The headers stand before the sound, in which anything may stand.
  for (let at = 4; at + 24 <= bytes.length && data.getUint32(at) !== sound; at++) {
    if (!kinds.includes(data.getUint32(at))) continue;
    // Version 1 counts in eight bytes.
    const wide = data.getUint8(at + 4) === 1;
    for (const place of [0, 1]) {
      if (wide) data.setBigUint64(at + 8 + 8 * place, BigInt(seconds));
      else data.setUint32(at + 8 + 4 * place, seconds);
    }
  }
}
