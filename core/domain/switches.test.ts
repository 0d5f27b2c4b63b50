import { describe, expect, it } from 'vitest';
import { takeKey } from '../plan/gather.ts';
import { newId } from './identity.ts';
import { applyLog, applyLogLine, type LogLine } from './logLine.ts';
import { isSwitched, switchStates, switchWords, thrown } from './switches.ts';
import { firstSetups, followedSetups, isTouched, lastSetups, setupSpanMs, type Take, untouchedTake } from './take.ts';

const [a, b, later] = [newId(), newId(), newId()];
const planned = (): Take =>
  untouchedTake({
    id: newId(),
    trialId: newId(),
    slate: 1,
    position: 0,
    condition: { station: 's', script: 'x', windscreen: 'fur', distance: '2' },
    setups: [a, b].map((id) => ({ id, candidateId: newId(), levels: {} })),
  });
const line = (take: Take, atMs: number, more: object) => ({ id: newId(), takeId: take.id, atMs, ...more }) as LogLine;
const nrOn = (take: Take, atMs: number, id: string, fromId: string, from?: string) => {
  const { before, after } = thrown(from, 'nr', true);
  return line(take, atMs, { kind: 'switch', changed: 'processing', setups: [{ id, fromId, before, after }] });
};

describe('a switch', () => {
  it('thrown on says that it was off before, and leaves what else is known', () => {
    expect(thrown(undefined, 'nr', true)).toEqual({ before: 'sw:nr0', after: 'sw:nr1' });
    expect(thrown('sw:nr1', 'lim', true)).toEqual({ before: 'sw:nr1,lim0', after: 'sw:nr1,lim1' });
    expect(thrown('sw:nr1,lim1', 'nr', false)).toEqual({ before: 'sw:nr1,lim1', after: 'sw:nr0,lim1' });
    expect(switchWords('sw:nr1,lim0')).toBe('noise reduction on, limiter out');
    expect([switchWords('soft'), switchStates('soft'), isSwitched('soft')]).toEqual([null, {}, false]);
  });

  it('thrown while a take runs makes another setup of the same take, with its moment', () => {
    let take = planned();
    const key = takeKey(take);
    take = applyLogLine(take, line(take, 1000, { kind: 'start' }));
    const thrownLine = nrOn(take, 6000, later, a);
    take = applyLogLine(take, thrownLine);
    // Sent twice, it counts once.
    take = applyLogLine(take, thrownLine);
    take = applyLogLine(take, line(take, 11_000, { kind: 'stop' }));
    expect(take.setups.map(({ id, levels }) => [id, levels.processing])).toEqual([
      [a, 'sw:nr0'],
      [b, undefined],
      [later, 'sw:nr1'],
    ]);
    expect(followedSetups(take, take.setups[0]!).map(({ id }) => id)).toEqual([a, later]);
    expect(firstSetups(take).map(({ id }) => id)).toEqual([a, b]);
    expect(lastSetups(take).map(({ id }) => id)).toEqual([b, later]);
    expect(take.setups.map((setup) => setupSpanMs(take, setup))).toEqual([
      [1000, 6000],
      [1000, 11_000],
      [6000, 11_000],
    ]);
    // The plan knows the take as it was planned.
    expect(takeKey(take)).toBe(key);
  });

  it('leaves the gains as they stood, so that the two setups can be compared', () => {
    let take = planned();
    take = applyLogLine(take, line(take, 1000, { kind: 'start', gains: { [a]: { recorder: 30 } } }));
    take = applyLogLine(take, nrOn(take, 6000, later, a));
    expect(take.gains).toEqual({ [a]: { recorder: 30 }, [later]: { recorder: 30 } });
  });

  it('is taken back, the last one first', () => {
    const start = planned();
    const third = newId();
    const lines = [nrOn(start, 2000, later, a), nrOn(start, 3000, third, later, 'sw:nr1')];
    const [take] = applyLog([start], lines) as [Take];
    expect(take.setups).toHaveLength(4);
    expect(applyLogLine(take, line(take, 4000, { kind: 'unswitch', setupIds: [later] })).setups).toHaveLength(4);
    const once = applyLogLine(take, line(take, 4000, { kind: 'unswitch', setupIds: [third] }));
    expect(applyLogLine(once, line(take, 5000, { kind: 'unswitch', setupIds: [later] })).setups.map(({ id }) => id)).toEqual([a, b]);
    // What the take began with stays, whatever is asked.
    expect(applyLogLine(start, line(start, 5000, { kind: 'unswitch', setupIds: [a] })).setups).toHaveLength(2);
  });

  it('a second one on the same setup, as two devices may send it, changes nothing', () => {
    const start = planned();
    const [take] = applyLog([start], [nrOn(start, 2000, later, a), nrOn(start, 2100, newId(), a)]) as [Take];
    expect(take.setups).toHaveLength(3);
  });

  it('done again, the take begins as it was planned', () => {
    const start = planned();
    const again = newId();
    const takes = applyLog([start], [nrOn(start, 2000, later, a), line(start, 3000, { kind: 'redo', newTakeId: again })]);
    expect(takes.find(({ id }) => id === again)?.setups).toEqual(start.setups);
  });
});

describe('a start that was an accident', () => {
  it('is taken back while the take rolls, and what was noted stays', () => {
    let take = planned();
    take = applyLogLine(take, line(take, 1000, { kind: 'start' }));
    take = applyLogLine(take, line(take, 1500, { kind: 'note', text: 'gull' }));
    take = applyLogLine(take, line(take, 2000, { kind: 'unstart' }));
    expect(take).toMatchObject({ status: 'planned', startedAtMs: null, note: 'gull' });
    expect(isTouched(take)).toBe(true);
  });

  it('of a take that was finished meanwhile is not', () => {
    let take = planned();
    for (const [atMs, kind] of [
      [1000, 'start'],
      [5000, 'stop'],
      [6000, 'unstart'],
    ] as const)
      take = applyLogLine(take, line(take, atMs, { kind }));
    expect(take).toMatchObject({ status: 'done', startedAtMs: 1000 });
  });
});
