import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conditionKey, type FactorKind, type Setup, setupKey } from '../domain/factor.ts';
import { newId } from '../domain/identity.ts';
import { DEFAULT_CHANGE_TIMES, type PlanDraft } from '../domain/plan.ts';
import type { Take } from '../domain/take.ts';
import { reconcileTakes } from '../takes/reconcile.ts';
import { factorsOf, planOf, takesOf } from '../testing/plans.ts';
import { buildPlan } from './buildPlan.ts';
import type { PlannedTake } from './gather.ts';
import { factorsWithoutLevel, matrixSetups, matrixSize } from './matrix.ts';
import { changesBetween } from './order/changeCost.ts';
import { orderTakes } from './order/orderTakes.ts';
import { runSheet, runSheetCsv } from './runSheet.ts';
import { planTime } from './time.ts';

const ferry = factorsOf({ candidate: 3, station: 3, distance: 2, windscreen: 2, script: 2 });

const quickest = (takes: PlannedTake[], plan: PlanDraft) => orderTakes(takes, { ...plan, daylightStationIds: new Set() }).takes;

describe('matrix', () => {
  it('is the product of the ticked levels', () => {
    expect(matrixSize(ferry)).toBe(72);
    expect(new Set(matrixSetups(ferry).map(setupKey)).size).toBe(72);
  });

  it('leaves out what was left out, and nothing else', () => {
    const all = matrixSetups(ferry);
    const gone = setupKey(all[5] as Setup);
    expect(matrixSetups(ferry, { leftOut: [gone, 'not a cell'] }).map(setupKey)).toEqual(all.map(setupKey).filter((key) => key !== gone));
  });

  it('is empty while a factor has no level, and says which', () => {
    const without = ferry.map((factor) => (factor.kind === 'script' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: false })) } : factor));
    expect(matrixSetups(without)).toEqual([]);
    expect(factorsWithoutLevel(without)).toEqual(['script']);
  });

  it('knows kinds that a plan has besides, and leaves away what a rule says cannot occur', () => {
    const plan = planOf({ station: 2, windscreen: 2, orientation: 3 });
    expect(matrixSize(plan.factors)).toBe(12);
    const rules = [{ id: newId(), kind: 'windscreen' as const, levelIds: ['windscreen2'], withKind: 'station' as const, withLevelIds: ['station2'] }];
    const setups = matrixSetups(plan.factors, { rules });
    expect(setups).toHaveLength(9);
    expect(setups.some((setup) => setup.windscreen === 'windscreen2' && setup.station === 'station2')).toBe(false);
    expect(new Set(setups.map((setup) => setup.orientation)).size).toBe(3);
  });

  it('keeps the keys that plans had before such kinds existed', () => {
    const [setup] = matrixSetups(planOf({}).factors);
    expect(setupKey(setup as Setup)).toBe('candidate1|station1|windscreen1|distance1|script1');
    expect(conditionKey({ ...(setup as Setup), orientation: '90' })).toBe('station1|windscreen1|distance1|script1|orientation=90');
  });
});

describe('takes', () => {
  it('candidates recorded together share a take: same words, same moment', () => {
    const takes = takesOf(planOf({}, { factors: ferry }), true);
    expect(takes).toHaveLength(24);
    expect(takes.every((take) => take.setups.length === 3)).toBe(true);
    expect(takesOf(planOf({}, { factors: ferry }), false)).toHaveLength(72);
  });

  it('changes each station once, and the rig once per station', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 3 }),
        fc.boolean(),
        fc.infiniteStream(fc.nat(1000)),
        (stations, distances, candidates, together, keys) => {
          const plan = planOf({ station: stations, distance: distances, candidate: candidates, windscreen: 2, script: 2 });
          const takes = takesOf(plan, together);
          const shuffled = takes
            .map((take) => ({ take, key: keys.next().value as number }))
            .sort((a, b) => a.key - b.key)
            .map(({ take }) => take);
          const ordered = quickest(shuffled, plan);
          expect(new Set(ordered)).toEqual(new Set(takes));
          const count = (kind: FactorKind) => ordered.slice(1).filter((take, index) => changesBetween(ordered[index] ?? null, take).includes(kind)).length;
          expect(count('station')).toBe(stations - 1);
          // A station starts with the rig that the one before ended with, so each adds one change fewer than rigs.
          expect(count('candidate')).toBe(together ? 0 : stations * (candidates - 1));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('time is changes, scripts and overhead added up', () => {
    const plan = planOf({ station: 2, distance: 2 });
    const ordered = quickest(takesOf(plan, true), plan);
    const time = planTime(
      ordered,
      { changeExceptions: [], changeTimesS: { ...DEFAULT_CHANGE_TIMES, station: 600, distance: 60, candidate: 100, windscreen: 10, script: 5 }, overheadS: 20 },
      () => 10,
    );
    // First take rigs everything: 600 + 60 + 100 + 10 + 5. Then a distance, a station, a distance.
    expect(time.totalS).toBe(775 + 60 + 600 + 60 + 4 * 30);
    expect(time.takes[1]?.startS).toBe(775 + 30 + 60);
  });
});

describe('a plan changed after takes exist', () => {
  const distances = planOf({ distance: 3 });
  const planned = takesOf(distances, true);
  const first = reconcileTakes('trial', [], planned).takes;

  it('numbers slates from 1 in the order of the plan', () => {
    expect(first.map((take) => take.slate)).toEqual([1, 2, 3]);
    expect(first.map((take) => conditionKey(take.condition))).toEqual(planned.map((take) => conditionKey(take.condition)));
  });

  it('keeps what was done, drops what was only planned, adds under new slates', () => {
    const done: Take[] = first.map((take, index) => (index === 0 ? { ...take, status: 'done' } : take));
    const ids = ['distance3', 'distance9'];
    const factors = distances.factors.map((factor) =>
      factor.kind === 'distance' ? { ...factor, levels: ids.map((id) => ({ id, label: '', value: null, ticked: true })) } : factor,
    );
    const moved = takesOf({ ...distances, factors }, true);
    const result = reconcileTakes('trial', done, moved);
    expect(result.takes.map((take) => [take.slate, take.status])).toEqual([
      [3, 'planned'],
      [4, 'planned'],
      [1, 'done'],
    ]);
    expect(result.dropped.map((take) => take.slate)).toEqual([2]);
    expect(result).toMatchObject({ added: 1, kept: 2 });
  });

  it.each([
    ['a note', { note: 'wind picks up' }],
    ['a flag', { flags: [{ id: 'm', flag: 'traffic' as const, atMs: 1, setupIds: [] }] }],
    ['a gain', { gains: { s: { recorder: 30 } } }],
    ['a reading', { windMs: 4 }],
    ['a start', { startedAtMs: 5 }],
  ])('a take that is only planned but has %s stays, with its slate', (_what, touched) => {
    const existing = first.map((take, index) => (index === 1 ? { ...take, ...touched } : take));
    const result = reconcileTakes('trial', existing, planned.slice(0, 1));
    expect(result.stayed.map((take) => take.slate)).toEqual([2]);
    expect(result.dropped.map((take) => take.slate)).toEqual([3]);
  });

  it('a take with a recording stays; a slate is never given again, not even one from the bin', () => {
    const result = reconcileTakes('trial', first, planned.slice(0, 1), 9, new Set([first[2]!.id]));
    expect(result.stayed.map((take) => take.slate)).toEqual([3]);
    expect(reconcileTakes('trial', first.slice(0, 1), planned, 9).takes.map((take) => take.slate)).toEqual([1, 10, 11]);
  });

  it('levels recorded at one moment are setups of one take; what all share belongs to the take', () => {
    const plan = planOf({ candidate: 2, windscreen: 2, distance: 2 }, { atOnce: ['windscreen'] });
    const { takes } = buildPlan(plan, {
      chains: ['candidate1', 'candidate2'].map((id) => ({ id, links: [], rig: { placement: '', onSkin: false }, split: null })) as never,
      items: [],
      stations: [],
    });
    expect(takes).toHaveLength(2);
    for (const take of takes) {
      expect(take.condition.windscreen).toBeUndefined();
      expect(take.setups).toHaveLength(4);
      expect(new Set(take.setups.map((setup) => `${setup.candidateId} ${setup.levels.windscreen}`)).size).toBe(4);
    }
  });

  it('commits twice without a change to anything', () => {
    expect(reconcileTakes('trial', first, planned).takes).toEqual(first);
  });

  it('gives each repeat a slate of its own, and keeps the one that was done when the repeats become fewer', () => {
    const twice = planned.flatMap((take) => [take, take]);
    const slates = reconcileTakes('trial', first, twice);
    expect(slates).toMatchObject({ added: 3, kept: 3 });
    expect(new Set(slates.takes.map((take) => take.slate)).size).toBe(6);
    const done = slates.takes.map((take): Take => (take.slate === 4 ? { ...take, status: 'done', startedAtMs: 1 } : take));
    const fewer = reconcileTakes('trial', done, planned);
    // Of the two of one setup the one that was done stays, and its twin goes: never the other way round.
    expect(fewer.takes).toHaveLength(3);
    expect(fewer.takes.map((take) => take.slate)).toContain(4);
    expect(fewer.dropped.every((take) => take.status === 'planned')).toBe(true);
  });
});

describe('run sheet', () => {
  it('says what to change before each take, and defuses cells', () => {
    const takes = reconcileTakes('trial', [], takesOf(planOf({ distance: 2 }), true)).takes;
    const rows = runSheet(takes, { label: (_kind, id) => `=${id}`, letters: () => 'QO', scriptText: () => 'one, two' });
    expect(rows.map((row) => row.changes)).toEqual([['station', 'candidate', 'windscreen', 'distance', 'script'], ['distance']]);
    const lines = runSheetCsv(rows).split('\r\n');
    expect(lines[0]).toBe('slate,station,distance,windscreen,script,candidates,change,text,done,remarks');
    expect(lines[2]).toBe("02,'=station1,'=distance2,'=windscreen1,'=script1,QO,distance,\"one, two\",,");
  });
});
