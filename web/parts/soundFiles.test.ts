import { expect, it } from 'vitest';
import { soundFiles } from './soundFiles.ts';

it('of a folder the files with sound are taken, whatever the case of their ending, and the rest is counted', () => {
  const names = ['S001.WAV', 'boom.flac', 'A001.MOV', '._S001.WAV', 'notes.txt', 'REPORT.CSV', 'take', 'lav.m4a'];
  const { sound, leftOut } = soundFiles(names.map((name) => ({ name })));
  expect(sound.map(({ name }) => name)).toEqual(['S001.WAV', 'boom.flac', 'A001.MOV', 'lav.m4a']);
  expect(leftOut).toBe(4);
});
