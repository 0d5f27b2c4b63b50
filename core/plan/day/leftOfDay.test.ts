import { describe, expect, it } from 'vitest';
import { newId } from '../../domain/identity.ts';
import { applyLog } from '../../domain/logLine.ts';
import { planDraftSchema } from '../../domain/plan.ts';
import { type Take, untouchedTake } from '../../domain/take.ts';
import { leftOfDay } from './leftOfDay.ts';

const candidateId = newId();
const plan = { ...planDraftSchema.parse({ factors: [] }), overheadS: 20 };
const HOUR_MS = 3_600_000;

const takesAt = (...conditions: [station: string, distance: string][]): Take[] =>
  conditions.map(([station, distance], position) => ({
    ...untouchedTake({
      id: newId(),
      trialId: newId(),
      slate: position + 1,
      position,
      condition: { station, distance, windscreen: 'fur', script: 'x' },
      setups: [{ id: newId(), candidateId, levels: {} }],
    }),
  }));
const done = (take: Take): Take => ({ ...take, status: 'done', startedAtMs: 0, stoppedAtMs: 10_000 });
const at = (takes: Take[], endsAtMs: number | null = null) => leftOfDay(takes, takes[0]!, { ...plan, day: { ...plan.day, endsAtMs } }, () => 10, HOUR_MS);

describe('what is left of the day', () => {
  it('is the takes that are planned, with their changes, from where one stands', () => {
    const takes = takesAt(['a', '1'], ['a', '2'], ['b', '2']);
    takes[0] = done(takes[0]!);
    const left = at(takes);
    // A distance, then a station, and two takes of ten seconds with their overhead.
    expect(left).toMatchObject({ count: 2, leftS: plan.changeTimesS.distance + plan.changeTimesS.station + 2 * 30, lateS: null });
  });

  it('is late by how much it reaches over the end of the day', () => {
    const takes = takesAt(['a', '1'], ['a', '2'], ['a', '3']);
    const { leftS } = at(takes);
    expect(at(takes, HOUR_MS + 60_000).lateS).toBeCloseTo(leftS - 60, 6);
    expect(at(takes, HOUR_MS + 1e6 * 60).lateS).toBeLessThan(0);
  });

  it('drops first what was recorded already, and never what was done', () => {
    const takes = takesAt(['a', '1'], ['a', '2'], ['b', '1'], ['b', '2'], ['a', '2']);
    takes[0] = done(takes[0]!);
    takes[1] = done(takes[1]!);
    const { dropFirst } = at(takes);
    expect(dropFirst?.take.id).toBe(takes[4]!.id);
    expect(dropFirst?.loss.lostForGood).toBe(0);
  });

  it('is quicker without going to and fro, and the log puts it into that order', () => {
    const takes = takesAt(['a', '1'], ['b', '1'], ['a', '2'], ['b', '2'], ['a', '3']);
    takes[0] = done(takes[0]!);
    const { quicker } = at(takes);
    expect(quicker!.savesS).toBeGreaterThanOrEqual(2 * plan.changeTimesS.station);
    const ordered = applyLog(takes, [{ id: newId(), takeId: quicker!.takeIds[0]!, atMs: 1, kind: 'order', takeIds: quicker!.takeIds }]);
    expect(ordered.map(({ condition }) => condition.station)).toEqual(['a', 'a', 'a', 'b', 'b']);
    expect(ordered.map(({ position }) => position)).toEqual([0, 1, 2, 3, 4]);
    expect(leftOfDay(ordered, ordered[0]!, plan, () => 10, HOUR_MS).quicker).toBeNull();
    // What began meanwhile stays in its place.
    const begun = takes.map((take) => (take.id === quicker!.takeIds.at(-1) ? done(take) : take));
    expect(
      applyLog(begun, [{ id: newId(), takeId: quicker!.takeIds[0]!, atMs: 1, kind: 'order', takeIds: quicker!.takeIds }]).find(({ id }) => id === quicker!.takeIds.at(-1))
        ?.position,
    ).toBe(begun.find(({ id }) => id === quicker!.takeIds.at(-1))?.position);
  });
});
