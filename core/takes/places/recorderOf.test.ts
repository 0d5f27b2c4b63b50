import { describe, expect, it } from 'vitest';
import { recorderOf } from './recorderOf.ts';

describe('which recorder wrote a file', () => {
  it.each([
    ['T1_0007.WAV', null, null, 'T1'],
    ['T2_0007.WAV', null, null, 'T2'],
    ['REC_0003.WAV', 'Cards/Gull', null, 'Gull, REC'],
    ['REC_0003.WAV', 'Cards/Tern', null, 'Tern, REC'],
    ['260410_143022.wav', null, 'Halyard R4', 'Halyard R4'],
    ['260410_143022_A.wav', '260410', 'Halyard R4', 'A, Halyard R4'],
    ['SALTREACH_S022_T01.wav', null, null, 'SALTREACH'],
    ['A0001.MOV', null, null, 'A'],
    ['0001.wav', null, null, 'Files without a name'],
  ])('%s in %s by %s is of %s', (name, folder, originator, recorder) => {
    expect(recorderOf({ name, folder, originator })).toBe(recorder);
  });
});
