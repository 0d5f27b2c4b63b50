import type { FilePlace } from '@marvet/core/contract/places';
import { describe, expect, it } from 'vitest';
import { aheadText, clockSays, isDoubtful, isSurelyElsewhere, placeReason } from './placeWords.ts';

const place = (values: Partial<FilePlace>): FilePlace => ({
  fileId: 'f',
  recorder: 'REC',
  takeId: '03',
  confidence: 0.97,
  startsAtMs: 1000,
  ownStartMs: 2000,
  timeBy: 'header',
  others: [],
  over: [],
  cuts: [],
  by: 'clock',
  like: null,
  placed: null,
  ...values,
});
const slateOf = (id: string) => id;

describe('what is said of a file and its place', () => {
  it.each([
    [0.4, 'right'],
    [14_417, '4 h 17 s ahead'],
    [-61, '1 min 1 s behind'],
    [-93_600, '1 d 2 h behind'],
    [-504_921_600, '16 years and more behind'],
  ])('a clock that is off by %d s is %s', (aheadS, text) => {
    expect(aheadText(aheadS)).toBe(text);
  });

  it.each<[string, Partial<FilePlace>, boolean]>([
    ['sounds like boom.wav', { by: 'sound', like: { name: 'boom.wav', takeId: '03' } }, false],
    ['sounds like 03, 04: it is to be cut', { by: 'sound', like: { name: 'boom.wav', takeId: '03' }, over: ['03', '04'] }, true],
    ['by its clock it is 03, but it sounds like boom.wav of 05', { confidence: 0.01, like: { name: 'boom.wav', takeId: '05' } }, true],
    ['by hand', { placed: { takeId: '03', by: 'hand', takes: 1 }, like: { name: 'boom.wav', takeId: '05' } }, false],
  ])('%s', (text, values, doubtful) => {
    expect(placeReason(place(values), slateOf)).toBe(text);
    expect(isDoubtful(place(values))).toBe(doubtful);
  });

  it.each<[string, Partial<FilePlace>, boolean, string]>([
    ['found by its clock', {}, false, 'by its clock'],
    ['found by the time of the card', { timeBy: 'last written', confidence: 0.6 }, true, 'by when it was last written'],
    ['of no take', { takeId: null }, false, 'by its clock nothing was logged then'],
    ['of no take, as far as an unsure clock says', { takeId: null, confidence: 0.3 }, true, 'the clock of its recorder is not known well enough'],
    ['that ends before its take', { cuts: [{ takeId: '03', startS: 0, endS: 9, logStartS: 2, cutOff: 'goes on after' }] }, false, 'by its clock; the take goes on after it'],
    ['that begins after its take', { cuts: [{ takeId: '03', startS: 0, endS: 9, logStartS: -9, cutOff: 'begins before' }] }, false, 'by its clock; the take begins before it'],
    ['that holds its take', { cuts: [{ takeId: '03', startS: 0, endS: 9, logStartS: 2, cutOff: null }] }, false, 'by its clock'],
    ['without a time', { timeBy: null, takeId: null, confidence: 0 }, true, 'does not say when it began'],
    ['of a recorder whose clock fits nothing', { startsAtMs: null, takeId: null, confidence: 0 }, true, 'the clock of its recorder fits no part of the log'],
    ['longer than a take', { over: ['03', '04'] }, true, 'runs over 03, 04: it is to be cut'],
    ['longer than a take, cut', { over: ['03', '04'], placed: { takeId: '03', by: 'clock', takes: 2 } }, false, 'cut into 2 takes by its clock'],
    ['placed by its name', { placed: { takeId: '03', by: 'file name', takes: 1 } }, false, 'by its name'],
    ['named for another take', { placed: { takeId: '07', by: 'file name', takes: 1 } }, true, 'lies there by its name; by its clock it is 03 (97 %)'],
    [
      'tied by hand to another take',
      { takeId: '07', confidence: 1, others: [{ takeId: '03', confidence: 0.98 }], placed: { takeId: '07', by: 'hand', takes: 1 } },
      true,
      'lies there by hand; by its clock it is 03 (98 %)',
    ],
  ])('a file %s', (_what, values, doubtful, reason) => {
    expect(isDoubtful(place(values))).toBe(doubtful);
    expect(placeReason(place(values), slateOf)).toBe(reason);
  });

  it.each<[string, Partial<FilePlace>, boolean]>([
    ['that lies nowhere and is sure', {}, true],
    ['that is not sure', { confidence: 0.9 }, false],
    ['that is surely of no take', { takeId: null }, false],
    ['that runs over several', { over: ['03', '04'] }, false],
    ['that lies where it belongs', { placed: { takeId: '03', by: 'clock', takes: 1 } }, false],
    ['that a clock put elsewhere, before a hand moved its recorder', { placed: { takeId: '07', by: 'clock', takes: 1 } }, true],
    ['that a name put elsewhere', { placed: { takeId: '07', by: 'file name', takes: 1 } }, false],
    ['that a hand put elsewhere', { placed: { takeId: '07', by: 'hand', takes: 1 } }, false],
    ['that is cut', { placed: { takeId: '07', by: 'clock', takes: 2 } }, false],
  ])('a file %s is put with the others by one press: %s', (_what, values, put) => {
    expect(isSurelyElsewhere(place(values))).toBe(put);
  });

  it('a clock is told with how sure it is, and by whom it was set', () => {
    const recorder = { recorder: 'REC', files: 3, timed: 3, aheadByHandS: null, candidateIds: [], sources: [], clock: { aheadS: 75, driftPpm: 38.2, spreadS: 1, sure: 0.996 } };
    expect(clockSays(recorder)).toBe('about 1 min 15 s ahead, drifting 38 ppm, 99 % sure');
    expect(clockSays({ ...recorder, clock: { aheadS: -2, driftPpm: 0, spreadS: 1, sure: 1 } })).toBe('right to a few seconds, 99 % sure');
    expect(clockSays({ ...recorder, aheadByHandS: 0 })).toBe('right, set by hand');
    expect(clockSays({ ...recorder, aheadByHandS: -30 })).toBe('30 s behind, set by hand');
    expect(clockSays({ ...recorder, clock: null })).toBe('fits no part of the log');
    expect(clockSays({ ...recorder, timed: 0 })).toBe('its files do not say when they began');
  });
});
