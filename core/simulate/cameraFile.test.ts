import { describe, expect, it } from 'vitest';
import { bufferSource } from '../audio/byteSource.ts';
import { openSound } from '../audio/decode/openSound.ts';
import { sine } from '../testing/signals.ts';
import { cameraFile } from './cameraFile.ts';

describe('a camera file', () => {
  it('is read as what it was written from: two channels of one stereo track, and when it was started', async () => {
    const channels = [sine(440, -6, 2.5), sine(1250, -12, 2.5)];
    const startedAtMs = Date.UTC(2026, 4, 21, 8, 14, 9);
    const bytes = await cameraFile(channels, 48_000, startedAtMs);
    const sound = (await openSound(bufferSource(bytes)))!;
    expect(sound.format).toMatchObject({ container: 'MOV', codec: 'PCM', lossy: false, channels: 2, stereoFrom: [0], startsAt: '2026-05-21T08:14:09.000Z' });
    const read: number[][] = [[], []];
    for await (const block of sound.blocks) block.forEach((samples, channel) => read[channel]!.push(...samples));
    for (const [channel, samples] of channels.entries()) {
      expect(read[channel]).toHaveLength(samples.length);
      expect(samples.every((value, frame) => Math.abs(value - read[channel]![frame]!) < 1 / 32_000)).toBe(true);
    }
  });
});
