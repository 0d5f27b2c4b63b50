import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { kernelDecode24, plainDecode24 } from './decode24.ts';

describe('24-bit samples', () => {
  it('come out alike of the kernel and of its plain form, to the last bit, wherever frames are padded', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 0, maxLength: 400 }), fc.integer({ min: 1, max: 4 }), fc.integer({ min: 0, max: 3 }), (bytes, channels, padding) => {
        const stride = channels * 3 + padding;
        const frames = Math.floor(bytes.length / stride);
        const told = [plainDecode24(frames, channels, stride), kernelDecode24(frames, channels, stride)!].map((decode) => {
          decode.bytes.set(bytes.subarray(0, frames * stride));
          decode.run(frames, stride);
          return decode.channels.map((channel) => [...channel]);
        });
        expect(told[1]).toEqual(told[0]);
      }),
    );
  });

  it.each([
    [[0, 0, 0], 0],
    [[0xff, 0xff, 0x7f], 1 - 2 ** -23],
    [[0, 0, 0x80], -1],
    [[1, 0, 0], 2 ** -23],
    [[0xff, 0xff, 0xff], -(2 ** -23)],
  ])('the bytes %j are %f', (bytes, value) => {
    for (const decode of [plainDecode24(1, 1, 3), kernelDecode24(1, 1, 3)!]) {
      decode.bytes.set(bytes);
      decode.run(1, 3);
      expect(decode.channels[0]?.[0]).toBe(value);
    }
  });
});
