import { describe, expect, it } from 'vitest';
import { matchChannels, matchFile, slateInName } from './matchFile.ts';

describe('slate in a file name', () => {
  it.each([
    ['22.wav', 22, 1],
    ['022_QO.WAV', 22, 1],
    ['07-2 QO.wav', 7, 2],
    ['S022_T02.wav', 22, 2],
    ['Saltreach_S22.wav', 22, 1],
    ['slate 9 take 3.wav', 9, 3],
    ['Scene_12_T1.wav', 12, 1],
    ['2026-harbour.wav', 2026, 1],
  ])('%s', (name, slate, pass) => {
    expect(slateInName(name)).toEqual({ slate, pass });
  });

  it.each(['REC_0003.WAV', 'mono-track 4.wav', 'harbour.wav', 'tracks3.wav'])("%s is a machine's own name", (name) => {
    expect(slateInName(name)).toBeNull();
  });
});

const takes = [
  { id: 'a', slate: 1, pass: 1 },
  { id: 'b', slate: 22, pass: 1 },
  { id: 'c', slate: 22, pass: 2 },
];
const none = { scene: null, take: null };

describe('the take of a file', () => {
  it('by name first, then by metadata, else by hand', () => {
    expect(matchFile('S22T2.wav', { scene: '1', take: '1' }, takes)).toEqual({ takeId: 'c', by: 'file name' });
    expect(matchFile('REC_0003.WAV', { scene: '22', take: '2' }, takes)).toEqual({ takeId: 'c', by: 'iXML or bext' });
    expect(matchFile('REC_0003.WAV', { scene: 'Ferry', take: '22' }, takes)).toEqual({ takeId: 'b', by: 'iXML or bext' });
    expect(matchFile('S99.wav', none, takes)).toBeNull();
    expect(matchFile('REC_0003.WAV', none, takes)).toBeNull();
  });
});

describe('the candidates of channels', () => {
  const candidates = [
    { id: 'q', name: 'Quay One', tape: { kind: 0, letters: 'QO' } },
    { id: 'l', name: 'Lantern Bay', tape: { kind: 1, letters: 'LB' } },
  ];
  it('by track name: letters or the chain', () => {
    expect(matchChannels('x.wav', ['LB', 'Quay One bare', 'mix'], candidates)).toEqual(['l', 'q', null]);
  });
  it('never the same twice', () => {
    expect(matchChannels('x.wav', ['LB', 'lb 2'], candidates)).toEqual(['l', null]);
  });
  it('a mono file by the letters in its name, or because there is only one', () => {
    expect(matchChannels('22 LB.wav', [null], candidates)).toEqual(['l']);
    expect(matchChannels('22.wav', [null], candidates)).toEqual([null]);
    expect(matchChannels('22.wav', [null], candidates.slice(0, 1))).toEqual(['q']);
  });
});
