import { describe, expect, it } from 'vitest';
import { candidates, heard, id, measured, recording, take } from '../testing/verdictInput.ts';
import { samplesOf } from './doubt/samples.ts';
import { type LeftFrom, type LeftRecording, leftOutTexts } from './leftOut.ts';
import { rawFigures } from './rawFigures.ts';

const first = take(1, 'near', ['a', 'b']);
const second = take(2, 'far', ['a']);
const spoiled = take(3, 'far', ['a'], { flags: [{ id: id('8'), flag: 'spoiled', atMs: 1, setupIds: [] }] });

describe('raw figures', () => {
  it('has every value that the verdict rests on, take by take, and none that it leaves out', () => {
    const recordings = [
      recording(second, 'a', { 'noise.snrDb': 20 }),
      recording(first, 'a', { 'noise.snrDb': 30 }),
      recording(first, 'b', { 'noise.snrDb': 25 }),
      recording(spoiled, 'a', { 'noise.snrDb': 99 }),
    ];
    const rating = (points: number, listener: string) => ({ recordingId: recordings[1]!.id, criterionId: heard.id, points, listener });
    const rows = rawFigures(
      samplesOf({
        criteria: [measured('noise.snrDb'), heard],
        candidates,
        takes: [first, second, spoiled],
        recordings,
        ratings: [rating(7, 'x'), rating(8, 'y')],
        marks: [],
        passes: null,
      }),
    );
    expect(rows.map(({ takeId, candidateId, values }) => [takeId, candidateId, values])).toEqual(
      expect.arrayContaining([
        [first.id, id('a'), [[30], [7, 8]]],
        [first.id, id('b'), [[25], []]],
        [second.id, id('a'), [[20], []]],
      ]),
    );
    expect(rows).toHaveLength(3);
  });

  it('names what is left out, and nothing that is not', () => {
    const again = take(1, 'near', ['a', 'b'], { pass: 2 });
    const planned = take(4, 'far', ['a'], { status: 'planned', startedAtMs: null });
    const of = (fileName: string, takeId: string | null, change: Partial<LeftRecording> = {}): LeftRecording => ({
      fileId: fileName,
      fileName,
      takeId,
      setupId: 's',
      backup: null,
      state: 'done',
      ...change,
    });
    const left = (change: Partial<LeftFrom>) => leftOutTexts({ takes: [first], recordings: [of('a.wav', first.id)], passes: null, notes: [], ...change });
    expect(left({})).toEqual([]);
    expect(left({ takes: [first, spoiled, planned] })).toEqual(['Marked spoiled, so it does not count: 03.', 'Planned and not recorded: 04.']);
    // What was recorded without being logged was recorded all the same.
    expect(left({ takes: [first, planned], recordings: [of('a.wav', first.id), of('b.wav', planned.id)] })).toEqual([]);
    // A day-long file of which a part belongs to a take is not lost; one of which none does is.
    expect(left({ recordings: [of('day.wav', null), of('day.wav', first.id), of('stray.wav', null, { setupId: null })] })).toEqual(['A file that belongs to no take: stray.wav.']);
    expect(left({ recordings: [of('a.wav', first.id, { setupId: null }), of('lower.wav', first.id, { setupId: null, backup: {} })] })).toEqual([
      'Channels that were given to no candidate, of a.wav.',
    ]);
    expect(left({ recordings: [of('slow.wav', first.id, { state: 'failed' })] })).toEqual(['Not measured: slow.wav.']);
    const both = { takes: [first, again], recordings: [of('a.wav', first.id), of('b.wav', again.id)] };
    expect(left(both)).toEqual(['Done again, so that the last pass counts, and not 01.']);
    expect(left({ ...both, passes: 'all' })).toEqual([]);
    // A second pass that was spoiled takes nothing away from the first.
    expect(left({ ...both, takes: [first, { ...again, flags: spoiled.flags }] })).toEqual(['Marked spoiled, so it does not count: 01/2.']);
    expect(
      left({
        notes: [
          { kind: 'twice', text: 'Twice.' },
          { kind: 'listening', text: 'Listening.' },
        ],
      }),
    ).toEqual(['Twice.']);
  });
});
