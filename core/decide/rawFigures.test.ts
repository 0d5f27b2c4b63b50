import { describe, expect, it } from 'vitest';
import { candidates, heard, id, measured, recording, take } from '../testing/verdictInput.ts';
import { samplesOf } from './doubt/samples.ts';
import { leftOutTexts } from './leftOut.ts';
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

  it('names what is left out, and says nothing where nothing is', () => {
    const file = (name: string, takeId: string | null, state = 'done') => ({ name, takeId, state });
    expect(leftOutTexts([first], [file('a.wav', 't')])).toEqual([]);
    expect(leftOutTexts([first, spoiled, { ...second, status: 'planned' }], [file('stray.wav', null), file('slow.wav', 't', 'failed')])).toEqual([
      'Marked spoiled, so it does not count: 03.',
      'Planned and not recorded: 02.',
      'A file that belongs to no take: stray.wav.',
      'Not measured: slow.wav.',
    ]);
  });
});
