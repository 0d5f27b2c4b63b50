import { describe, expect, it } from 'vitest';
import { bufferSource } from '../byteSource.ts';
import { movieCreatedAt } from './movieCreatedAt.ts';

const bytes = (...parts: (string | number[])[]) => Uint8Array.from(parts.flatMap((part) => (typeof part === 'string' ? [...part].map((letter) => letter.charCodeAt(0)) : part)));
const u32 = (value: number) => [value >>> 24, (value >>> 16) & 255, (value >>> 8) & 255, value & 255];
const box = (kind: string, body: Uint8Array) => bytes(u32(body.length + 8), kind, [...body]);
/** 14 April 2026, 09:30:05 UTC, in seconds since 1904. */
const SECONDS = Date.UTC(2026, 3, 14, 9, 30, 5) / 1000 + 2_082_844_800;
const film = (header: Uint8Array) =>
  bufferSource(
    bytes([...box('ftyp', bytes('isom'))], [...box('mdat', new Uint8Array(40))], [...box('moov', bytes([...box('free', new Uint8Array(5))], [...box('mvhd', header)]))]),
  );

describe('when a film began, ISO/IEC 14496-12, 8.2.2', () => {
  it('is the creation time of its movie header, in 32 or in 64 bits', () => {
    expect(movieCreatedAt(film(bytes(u32(0), u32(SECONDS), u32(0))))).toBe('2026-04-14T09:30:05.000Z');
    expect(movieCreatedAt(film(bytes(u32(0x01000000), u32(0), u32(SECONDS), u32(0))))).toBe('2026-04-14T09:30:05.000Z');
  });

  it.each([
    ['a clock that was never set', film(bytes(u32(0), u32(0), u32(0)))],
    ['a header that is cut short', film(bytes(u32(0)))],
    ['no movie header at all', bufferSource(box('mdat', new Uint8Array(20)))],
    ['a box that says it has no size of its own', bufferSource(bytes(u32(4), 'moov', u32(0)))],
    ['a box that runs to the end of the file', bufferSource(bytes(u32(0), 'mdat', u32(0)))],
    ['a size that lies', bufferSource(bytes(u32(0xffffffff), 'moov', u32(0xffffffff), 'mvhd'))],
    ['nothing', bufferSource(new Uint8Array())],
  ])('%s says none', (_what, source) => {
    expect(movieCreatedAt(source)).toBeNull();
  });
});
