import { describe, expect, it } from 'vitest';
import { formatRemarks, formatText } from './formatRemarks.ts';

const plain = { container: 'RIFF', codec: 'PCM', lossy: false, encoding: 'pcm', bitDepth: 24, sampleRateHz: 48_000 } as const;

describe('how a file came is said in a few words', () => {
  it.each([
    [plain, '24 bit 48 kHz'],
    [{ ...plain, encoding: 'float', bitDepth: 32 } as const, '32 bit float 48 kHz'],
    [{ ...plain, container: 'FLAC', codec: 'FLAC' } as const, 'FLAC, 24 bit 48 kHz'],
    [{ ...plain, container: 'MOV', bitDepth: 16 } as const, 'MOV, 16 bit 48 kHz'],
    [{ ...plain, container: 'MP4', codec: 'AAC', lossy: true, encoding: 'float', bitDepth: 32 } as const, 'AAC in MP4, lossy, 48 kHz'],
    [{ ...plain, container: 'MP3', codec: 'MP3', lossy: true, sampleRateHz: 44_100 } as const, 'MP3, lossy, 44.1 kHz'],
  ])('%j', (format, text) => {
    expect(formatText(format)).toBe(text);
  });

  it('a loss is a remark, and so is what was odd', () => {
    expect(formatRemarks({ lossy: true, codec: 'AAC', remarks: ['a track was left out'] })).toEqual([expect.stringContaining('lossy: AAC leaves out'), 'a track was left out']);
    expect(formatRemarks({ lossy: false, codec: 'PCM', remarks: [] })).toEqual([]);
  });
});
