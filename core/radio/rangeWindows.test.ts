import { describe, expect, it } from 'vitest';
import { newId } from '../domain/identity.ts';
import { type Take, untouchedTake } from '../domain/take.ts';
import { type LinkRecording, type RangeRecords, rangeRows } from './rangeWindows.ts';

const [radio, cable, transmitter, recorder] = [newId(), newId(), newId(), newId()];
const level = (id: string, value: number | null) => ({ id, label: id, value, ticked: true });
const take = (distance: string, more: Partial<Take> = {}, orientation?: string, candidateId = radio): Take => ({
  ...untouchedTake({
    id: newId(),
    trialId: newId(),
    slate: 1,
    position: 0,
    condition: { station: 's', script: 'x', windscreen: 'bare', distance, ...(orientation ? { orientation } : {}) },
    setups: [{ id: newId(), candidateId, levels: {} }],
  }),
  status: 'done',
  ...more,
});
const records = (...takes: Take[]): RangeRecords => ({
  plan: {
    factors: [
      { kind: 'distance', name: 'Distance', unit: 'm', levels: [level('10', 10), level('40', 40), level('far', null)] },
      { kind: 'orientation', name: 'Orientation', unit: '°', levels: [level('0', 0), level('180', 180)] },
    ],
  },
  takes,
  chains: [
    { id: radio, links: [{ itemId: transmitter }] as never },
    { id: cable, links: [{ itemId: recorder }] as never },
  ],
  items: new Map([
    [transmitter, { kind: 'transmitter' as const }],
    [recorder, { kind: 'recorder' as const }],
  ]),
  tracks: new Map(),
});
const recording = (of: Take, lengthS: number, ...breakUpsS: number[]): LinkRecording => ({ takeId: of.id, setupId: of.setups[0]!.id, lengthS, startS: 0, breakUpsS });

describe('windows of a link', () => {
  it('are as many equal parts of a take as come nearest to ten seconds, broken where a break-up begins', () => {
    const far = take('40');
    const [row] = rangeRows([recording(far, 31, 2, 3, 29)], records(far));
    expect(row).toMatchObject({ candidateId: radio, stationId: 's', side: 'facing', marks: [{ distanceM: 40, windows: 3, brokeUp: 2 }] });
    const short = take('40');
    expect(rangeRows([recording(short, 4)], records(short))[0]!.marks).toEqual([{ distanceM: 40, windows: 1, brokeUp: 0 }]);
  });

  it('facing and turned are told apart by the plan', () => {
    const [facing, turned] = [take('40', {}, '0'), take('40', {}, '180')];
    const rows = rangeRows([recording(facing, 10), recording(turned, 10, 1)], records(facing, turned));
    expect(rows.map(({ side, range }) => [side, range.brokeUp])).toEqual([
      ['facing', 0],
      ['turned', 1],
    ]);
  });

  it('are those that were pressed where nothing was recorded, and the recorded ones where something was', () => {
    const setupId = newId();
    const mark = (atMs: number, setupIds: string[]) => ({ id: newId(), flag: 'break-up' as const, atMs, setupIds });
    const timed = take('10', { startedAtMs: 0, stoppedAtMs: 20_000, flags: [mark(15_000, []), mark(2000, [setupId])] });
    expect(rangeRows([], records(timed))[0]!.marks).toEqual([{ distanceM: 10, windows: 2, brokeUp: 1 }]);
    expect(rangeRows([recording(timed, 20)], records(timed))[0]!.marks).toEqual([{ distanceM: 10, windows: 2, brokeUp: 0 }]);
  });

  it('are none of a spoiled take, of one not done, of a distance that is no number, and of a candidate by cable', () => {
    const spoiled = take('10', { flags: [{ id: newId(), flag: 'spoiled', atMs: 0, setupIds: [] }] });
    const planned = take('10', { status: 'planned' });
    const unknown = take('far');
    const wired = take('10', {}, undefined, cable);
    const all = [spoiled, planned, unknown, wired];
    expect(
      rangeRows(
        all.map((each) => recording(each, 10, 1)),
        records(...all),
      ),
    ).toEqual([]);
  });
});
