import { describe, expect, it } from 'vitest';
import { placesBySound, type SoundedFile } from './placeBySound.ts';
import type { SoundLink } from './sameSound.ts';

const link = (a: string, b: string, lagS: number, confidence = 0.99): SoundLink => ({ a, b, lagS, confidence, exact: true });
const inTake = (id: string, lengthS: number, takeId: string): SoundedFile => ({ id, lengthS, parts: [{ takeId, startS: 0, endS: lengthS }] });
const open = (id: string, lengthS: number): SoundedFile => ({ id, lengthS, parts: [] });

describe('places by sound', () => {
  it('a file that holds what one in place holds is of its take', () => {
    const [place, ...others] = placesBySound([inTake('boom', 20, 't1'), open('camera', 30)], [link('camera', 'boom', -4)]).get('camera') ?? [];
    expect(others).toEqual([]);
    expect(place).toMatchObject({ takeId: 't1', likeId: 'boom', confidence: 0.99, startS: 2, endS: 26 });
  });

  it('by way of another that is of none yet, too', () => {
    const found = placesBySound([inTake('boom', 20, 't1'), open('lav', 20), open('camera', 20)], [link('lav', 'boom', 1), link('camera', 'lav', 2)]);
    expect(found.get('camera')?.map(({ takeId }) => takeId)).toEqual(['t1']);
  });

  it('a day-long file is of every take that it holds, each with its part and no two overlapping', () => {
    const files = [inTake('b1', 20, 't1'), inTake('b2', 15, 't2'), inTake('b3', 10, 't3'), open('day', 400)];
    const found = placesBySound(files, [link('b1', 'day', 50), link('b2', 'day', 72), link('b3', 'day', 300)]).get('day');
    expect(found?.map(({ takeId, startS, endS }) => [takeId, startS, endS])).toEqual([
      ['t1', 48, 71],
      ['t2', 71, 89],
      ['t3', 298, 312],
    ]);
  });

  it('a take that is in a day-long file already places what sounds like that part of it', () => {
    const day: SoundedFile = {
      id: 'day',
      lengthS: 400,
      parts: [
        { takeId: 't1', startS: 40, endS: 70 },
        { takeId: 't2', startS: 200, endS: 240 },
      ],
    };
    expect(
      placesBySound([day, open('lav', 20)], [link('lav', 'day', 210)])
        .get('lav')
        ?.map(({ takeId }) => takeId),
    ).toEqual(['t2']);
  });

  it('where one moment was made two takes, a file is of one of them, and not cut', () => {
    const found = placesBySound([inTake('lav', 20, 't1'), inTake('boom', 20, 't2'), open('camera', 30)], [link('camera', 'lav', -4), link('camera', 'boom', -5)]);
    expect(found.get('camera')?.map(({ takeId }) => takeId)).toEqual(['t1']);
  });

  it('what is in place is not moved, and what nothing links is not placed', () => {
    const found = placesBySound([inTake('boom', 20, 't1'), inTake('lav', 20, 't2'), open('other', 9)], [link('lav', 'boom', 0)]);
    expect(found.size).toBe(0);
  });
});
