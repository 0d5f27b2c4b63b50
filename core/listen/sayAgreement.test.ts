import { describe, expect, it } from 'vitest';
import type { Listener } from '../domain/round.ts';
import { agreementOf, agreementText } from './sayAgreement.ts';

const recordingIds = ['a', 'b', 'c', 'd', 'e'];
/** A listener who heard the recordings in an order of their own, and one of them once more. */
function listener(name: string, points: number[], turned: boolean): Listener {
  const order = turned ? [...recordingIds].reverse() : recordingIds;
  const letters = Object.fromEntries([...order, 'a'].map((id, at) => ['ABCDEF'[at] as string, id]));
  const ratings = Object.entries(letters).map(([letter, id]) => ({
    letter,
    points: letter === 'F' ? 0 : points[recordingIds.indexOf(id)]!,
    criterionId: 'x',
    reason: '',
    listenerId: name,
  }));
  return {
    id: name,
    roundId: 'r',
    name,
    listenedOn: 'buds',
    sample: false,
    finishedAtMs: 1,
    letters,
    checks: { F: 'again' },
    ratings,
    guess: null,
    orders: {},
    away: false,
    awayKey: null,
    scored: [0, 0],
    compared: [0, null],
    choices: [],
  };
}
const say = (listeners: Listener[]) =>
  agreementText(
    agreementOf({ listeners, recordingIds }, 'x'),
    listeners.map(({ name }) => name),
  );

describe('agreement in words', () => {
  it('is of the recordings, whatever the letters were, and without what was hidden', () => {
    const alike = [listener('Orla', [2, 4, 6, 8, 9], false), listener('Tam', [1, 3, 5, 7, 9], true), listener('Wren', [0, 3, 4, 8, 10], false)];
    expect(say(alike)).toMatch(/^the listeners agree \(Kendall's W 1\.00; by chance in (less than 0\.1|0\.\d) % of cases\)\.$/);
  });

  it('names who heard it otherwise without blame', () => {
    const one = [
      listener('Orla', [2, 4, 6, 8, 9], false),
      listener('Tam', [1, 3, 5, 7, 9], true),
      listener('Ash', [1, 2, 5, 8, 9], true),
      listener('Wren', [9, 7, 6, 3, 1], false),
    ];
    expect(say(one)).toContain('Wren heard it otherwise than the others: that is no mistake');
  });

  it('says where nothing can be said, and where the orders have nothing in common', () => {
    expect(say([listener('Orla', [2, 4, 6, 8, 9], false)])).toContain('too few clips or listeners');
    expect(say([listener('Orla', [1, 3, 5, 7, 9], false), listener('Tam', [5, 9, 1, 7, 3], true)])).toContain('no more than chance would have it');
  });

  it('is not told of listeners who did not score a recording', () => {
    const half = listener('Tam', [1, 3, 5, 7, 9], true);
    expect(agreementOf({ listeners: [listener('Orla', [2, 4, 6, 8, 9], false), { ...half, ratings: half.ratings.slice(1) }], recordingIds }, 'x')).toBeNull();
  });
});
