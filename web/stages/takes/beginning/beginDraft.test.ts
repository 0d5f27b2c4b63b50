import type { Beginning } from '@marvet/core/contract/beginning';
import { describe, expect, it } from 'vitest';
import { type BeginChanges, beginDraft, layOutOf, NO_CHANGES, tapesOf } from './beginDraft.ts';

const channel = (fileId: string) => ({ fileId, channelIndex: 0, fileName: `${fileId}.wav`, recorder: '', trackName: null, of: 1 });
const part = (fileId: string) => ({ fileId, startS: null, endS: null });
const found: Beginning = {
  moments: [
    { takeId: null, slate: 1, parts: [part('lav1'), part('boom1')] },
    { takeId: null, slate: 2, parts: [part('lav2'), part('boom2')] },
  ],
  channels: ['lav1', 'boom1', 'lav2', 'boom2'].map(channel),
  readings: [
    ['lav', 'boom', 'lav', 'boom'],
    ['1', '1', '2', '2'],
  ],
  looked: 6,
  of: 6,
  tooMany: false,
  troubles: [],
};
const draft = (changes: Partial<BeginChanges> = {}, from = found) => beginDraft(from, { ...NO_CHANGES, ...changes });
const shown = ({ rows }: ReturnType<typeof draft>) => rows.map(({ fileId, takes, microphone }) => `${fileId} ${takes.join('+')} ${microphone}`);

describe('what is to be laid out', () => {
  it('is what was found, as long as nobody says otherwise', () => {
    expect(shown(draft())).toEqual(['lav1 1 lav', 'boom1 1 boom', 'lav2 2 lav', 'boom2 2 boom']);
    expect(draft().microphones).toEqual([
      { read: 'lav', name: 'lav', recordings: 2 },
      { read: 'boom', name: 'boom', recordings: 2 },
    ]);
  });

  it('a new name goes to all channels of a microphone; the name of another brings both together', () => {
    expect(shown(draft({ names: { boom: 'Boom, short' } }))).toEqual(['lav1 1 lav', 'boom1 1 Boom, short', 'lav2 2 lav', 'boom2 2 Boom, short']);
    const together = draft({ names: { boom: 'lav' } });
    expect(together.microphones).toHaveLength(1);
    expect(together.rows.map(({ twice }) => twice)).toEqual([false, true, false, true]);
  });

  it('names that are read another way', () => {
    expect(shown(draft({ reading: 1 }))).toEqual(['lav1 1 1', 'boom1 1 1', 'lav2 2 2', 'boom2 2 2']);
    expect(shown(draft({ reading: 2 }))).toEqual(shown(draft()));
  });

  it('a file put with another, and one by itself', () => {
    expect(shown(draft({ takes: { boom2: 'lav1' } }))).toEqual(['lav1 1 lav', 'boom1 1 boom', 'lav2 2 lav', 'boom2 1 boom']);
    expect(shown(draft({ takes: { boom1: 'boom1' } }))).toEqual(['lav1 1 lav', 'boom1 2 boom', 'lav2 3 lav', 'boom2 3 boom']);
    // The last one that leaves a take takes it away.
    expect(draft({ takes: { lav2: 'lav1', boom2: 'lav1' } }).moments).toHaveLength(1);
  });

  it('a file that ran on over several takes stays in all of them', () => {
    const cut = (startS: number) => ({ fileId: 'camera', startS, endS: startS + 20 });
    const more: Beginning = {
      ...found,
      moments: found.moments.map((moment, index) => ({ ...moment, parts: [...moment.parts, cut(100 * index)] })),
      channels: [...found.channels, channel('camera')],
    };
    const own = draft({ takes: { camera: 'lav2' } }, { ...more, readings: [['lav', 'boom', 'lav', 'boom', 'camera']] });
    expect(shown(own).at(-1)).toBe('camera 1+2 camera');
    expect(own.microphones.at(-1)).toEqual({ read: 'camera', name: 'camera', recordings: 2 });
  });

  it('files of takes that are there join them, and new takes are numbered after those', () => {
    const there: Beginning = {
      ...found,
      moments: [
        { takeId: 'old', slate: 4, parts: [part('lav1')] },
        { takeId: null, slate: 8, parts: [part('boom1'), part('lav2'), part('boom2')] },
      ],
    };
    expect(shown(draft({}, there))).toEqual(['lav1 4 lav', 'boom1 8 boom', 'lav2 8 lav', 'boom2 8 boom']);
    // One of its own, it leaves the take that is there alone.
    const own = draft({ takes: { lav1: 'lav1', boom2: 'boom2' } }, there);
    expect(shown(own)).toEqual(['lav1 8 lav', 'boom1 9 boom', 'lav2 9 lav', 'boom2 10 boom']);
    expect(own.moments.every(({ takeId }) => takeId === null)).toBe(true);
    expect(layOutOf(draft({ takes: { boom1: 'lav1' } }, there)).moments[0]).toEqual({ takeId: 'old', parts: [part('lav1'), part('boom1')] });
  });

  it('is sent with what is left out', () => {
    const { channels, moments } = layOutOf(draft({ channels: { 'boom1 0': null } }));
    expect(channels[1]).toEqual({ fileId: 'boom1', channelIndex: 0, microphone: null });
    expect(moments).toEqual(found.moments.map(({ takeId, parts }) => ({ takeId, parts })));
  });

  it('candidates that are there keep their tapes, others get free ones', () => {
    const known = [{ name: 'Boom', candidate: true, tape: { kind: 3, letters: 'BM' } }];
    const tapes = tapesOf(['boom', 'lav'], known);
    expect(tapes.get('boom')).toEqual({ kind: 3, letters: 'BM' });
    expect(tapes.get('lav')?.letters).not.toBe('BM');
  });
});
