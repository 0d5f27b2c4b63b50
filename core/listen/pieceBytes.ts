const SAMPLE_BYTES = 4;

/** Channels of a piece as they are sent: one after the other, 32-bit floating point, low byte first; what is over full scale is held at it. */
export function pieceBytes(channels: readonly Float64Array[]): Uint8Array<ArrayBuffer> {
  const frames = channels[0]?.length ?? 0;
  const view = new DataView(new ArrayBuffer(channels.length * frames * SAMPLE_BYTES));
  let at = 0;
  for (const samples of channels) {
    for (let frame = 0; frame < frames; frame++, at += SAMPLE_BYTES) view.setFloat32(at, Math.max(-1, Math.min(1, samples[frame] as number)), true);
  }
  return new Uint8Array(view.buffer);
}

/** What {@link pieceBytes} made, by channel. */
export function pieceChannels(bytes: ArrayBuffer, channels: number): Float32Array<ArrayBuffer>[] {
  const frames = Math.floor(bytes.byteLength / SAMPLE_BYTES / channels);
  const view = new DataView(bytes);
  return Array.from({ length: channels }, (_, channel) => {
    const samples = new Float32Array(frames);
    for (let frame = 0; frame < frames; frame++) samples[frame] = view.getFloat32((channel * frames + frame) * SAMPLE_BYTES, true);
    return samples;
  });
}
