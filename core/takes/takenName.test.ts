import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { takenNames } from './takenName.ts';

const named = (name: string, takes: [slate: number, pass: number][] = [], tapes: string[] = []) => ({ name, takes: takes.map(([slate, pass]) => ({ slate, pass })), tapes });

describe('names under which files are taken away', () => {
  it.each([
    [named('REC_0007.WAV', [[7, 2]], ['QU', 'LO']), '07-2 QU LO REC_0007.WAV'],
    [named('A001.MOV', [[12, 1]], ['CA', 'CA']), '12 CA A001.MOV'],
    [
      named(
        'DAY.WAV',
        [
          [9, 1],
          [2, 1],
          [4, 3],
        ],
        ['QU'],
      ),
      '02 to 09 QU DAY.WAV',
    ],
    [named('loose.wav'), 'no take loose.wav'],
    [named('../../etc/passwd'), 'no take .._.._etc_passwd'],
    [named('C:\\take?.wav'), 'no take C__take_.wav'],
  ])('%j is %s', (file, name) => {
    expect(takenNames([file])).toEqual([name]);
  });

  it('two alike are told apart, on systems too that do not tell large from small letters', () => {
    expect(takenNames([named('a.wav'), named('A.WAV'), named('a.wav')])).toEqual(['no take a.wav', 'no take A (2).WAV', 'no take a (3).wav']);
  });

  it('whatever a file is called, its name is one part of a path, and no two are the same', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ minLength: 1, maxLength: 255 }), { maxLength: 8 }), (names) => {
        const taken = takenNames(names.map((name) => named(name)));
        expect(new Set(taken.map((name) => name.toLowerCase())).size).toBe(names.length);
        for (const name of taken) expect(name).toMatch(/^[^\\/:*?"<>|\p{Cc}]+$/u);
      }),
    );
  });
});
