import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutAt, cutAtAll, draftOf, inOrder, joined, moved, type PassageDraft, placingOf, spansOf, takenTwice } from './passageDraft.ts';

const LENGTH_S = 100;
const ORDER = ['t1', 't2', 't3', 't4'];
const whole: PassageDraft = { cutsS: [], takeIds: ['t1'] };
const row = (startS: number | null, endS: number | null, takeId: string | null, channel = 0) => ({ channels: [channel], startS, endS, takeId });

describe('passages as a file has them', () => {
  it('are one where it was not cut, whatever it has of channels', () => {
    expect(draftOf([row(null, null, 't1'), row(null, null, 't1', 1)], LENGTH_S)).toEqual(whole);
  });

  it('leave what lies in no take to none', () => {
    expect(draftOf([row(40, 60, 't2'), row(10, 30, 't1')], LENGTH_S)).toEqual({ cutsS: [10, 30, 40, 60], takeIds: [null, 't1', null, 't2', null] });
  });

  it('go on where something was switched in their take', () => {
    expect(draftOf([row(0, 30, 't1'), row(30, 50, 't1'), row(50, 100, 't2')], LENGTH_S)).toEqual({ cutsS: [50], takeIds: ['t1', 't2'] });
  });
});

describe('cutting', () => {
  it('gives what follows the next take that stands nowhere yet', () => {
    const once = cutAt(whole, 50, LENGTH_S, ORDER);
    expect(once).toEqual({ cutsS: [50], takeIds: ['t1', 't2'] });
    // Between the two comes what is after t1 and free.
    expect(cutAt(once, 20, LENGTH_S, ORDER)).toEqual({ cutsS: [20, 50], takeIds: ['t1', 't3', 't2'] });
  });

  it('gives no take after the last, and none where the passage has none', () => {
    expect(cutAt({ cutsS: [], takeIds: ['t4'] }, 50, LENGTH_S, ORDER).takeIds).toEqual(['t4', null]);
    expect(cutAt({ cutsS: [], takeIds: [null] }, 50, LENGTH_S, ORDER).takeIds).toEqual([null, null]);
  });

  it('does nothing so near to an end or a cut that no word fits in between', () => {
    expect(cutAt(whole, 0.2, LENGTH_S, ORDER)).toEqual(whole);
    const once = cutAt(whole, 50, LENGTH_S, ORDER);
    expect(cutAt(once, 50.1, LENGTH_S, ORDER)).toEqual(once);
  });

  it('at markers takes the take that a marker names, once', () => {
    const cut = cutAtAll(whole, [{ atS: 30, takeId: 't3' }, { atS: 60 }, { atS: 80, takeId: 't3' }], LENGTH_S, ORDER);
    expect(cut.takeIds).toEqual(['t1', 't3', 't4', null]);
    expect(takenTwice(cut).size).toBe(0);
  });

  it('anywhere, joined again, is as it was', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 99, noNaN: true }), (atS) => {
        expect(joined(cutAt(whole, atS, LENGTH_S, ORDER), 0)).toEqual(whole);
      }),
    );
  });
});

describe('what is cut', () => {
  const three = cutAtAll(whole, [{ atS: 30 }, { atS: 60 }], LENGTH_S, ORDER);

  it('moves no further than its neighbours', () => {
    expect(moved(three, 0, 99, LENGTH_S).cutsS).toEqual([59.5, 60]);
    expect(moved(three, 1, -5, LENGTH_S).cutsS).toEqual([30, 30.5]);
  });

  it('takes its takes in their order from the first that has one', () => {
    expect(inOrder({ cutsS: [30, 60], takeIds: ['t2', null, null] }, ORDER).takeIds).toEqual(['t2', 't3', 't4']);
    expect(inOrder({ cutsS: [30], takeIds: [null, null] }, ORDER).takeIds).toEqual(['t1', 't2']);
  });

  it('is told where one take stands twice', () => {
    expect([...takenTwice({ cutsS: [30, 60], takeIds: ['t1', null, 't1'] })]).toEqual(['t1']);
  });

  it('is sent as parts of takes, what is of none left out; whole it is no part', () => {
    const none = { ...three, takeIds: ['t1', null, 't3'] };
    expect(placingOf(none, 'f', LENGTH_S, 't1')).toEqual({
      fileId: 'f',
      takeId: 't1',
      by: 'hand',
      from: 't1',
      cuts: [
        { takeId: 't1', startS: 0, endS: 30, logStartS: null, cutBy: 'passage' },
        { takeId: 't3', startS: 60, endS: 100, logStartS: null, cutBy: 'passage' },
      ],
    });
    expect(placingOf(whole, 'f', LENGTH_S, null)).not.toHaveProperty('cuts');
    expect(spansOf(three, LENGTH_S)).toEqual([
      [0, 30],
      [30, 60],
      [60, 100],
    ]);
  });
});
