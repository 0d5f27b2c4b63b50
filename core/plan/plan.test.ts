import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conditionKey, FACTOR_KINDS, type Factor, type Setup, setupKey } from '../domain/factor.ts';
import { DEFAULT_CHANGE_TIMES } from '../domain/plan.ts';
import type { Take } from '../domain/take.ts';
import { factorsWithoutLevel, matrixSetups, matrixSize } from './matrix.ts';
import { changesBetween, gatherTakes, orderTakes } from './order.ts';
import { reconcileTakes } from './reconcile.ts';
import { runSheet, runSheetCsv } from './runSheet.ts';
import { planTime } from './time.ts';

const factors = (sizes: Partial<Record<(typeof FACTOR_KINDS)[number], number>>): Factor[] =>
  FACTOR_KINDS.map((kind) => ({
    kind,
    name: kind,
    unit: '',
    levels: Array.from({ length: sizes[kind] ?? 1 }, (_, index) => ({ id: `${kind}${index + 1}`, label: `${kind} ${index + 1}`, value: null, ticked: true })),
  }));
const ferry = factors({ candidate: 3, station: 3, distance: 2, windscreen: 2, script: 2 });

describe('matrix', () => {
  it('is the product of the ticked levels', () => {
    expect(matrixSize(ferry)).toBe(72);
    expect(new Set(matrixSetups(ferry, []).map(setupKey)).size).toBe(72);
  });

  it('leaves out what was left out, and nothing else', () => {
    const all = matrixSetups(ferry, []);
    const gone = setupKey(all[5] as Setup);
    expect(matrixSetups(ferry, [gone, 'not a cell']).map(setupKey)).toEqual(all.map(setupKey).filter((key) => key !== gone));
  });

  it('is empty while a factor has no level, and says which', () => {
    const without = ferry.map((factor) => (factor.kind === 'script' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: false })) } : factor));
    expect(matrixSetups(without, [])).toEqual([]);
    expect(factorsWithoutLevel(without)).toEqual(['script']);
  });
});

describe('takes', () => {
  it('candidates recorded together share a take: same words, same moment', () => {
    const takes = gatherTakes(matrixSetups(ferry, []), true);
    expect(takes).toHaveLength(24);
    expect(takes.every((take) => take.candidateIds.length === 3)).toBe(true);
    expect(gatherTakes(matrixSetups(ferry, []), false)).toHaveLength(72);
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
          const plan = factors({ station: stations, distance: distances, candidate: candidates, windscreen: 2, script: 2 });
          const takes = gatherTakes(matrixSetups(plan, []), together);
          const shuffled = takes
            .map((take) => ({ take, key: keys.next().value as number }))
            .sort((a, b) => a.key - b.key)
            .map(({ take }) => take);
          const ordered = orderTakes(shuffled);
          expect(new Set(ordered)).toEqual(new Set(takes));
          const count = (kind: (typeof FACTOR_KINDS)[number]) => ordered.slice(1).filter((take, index) => changesBetween(ordered[index] ?? null, take).includes(kind)).length;
          expect(count('station')).toBe(stations - 1);
          // A station starts with the rig that the one before ended with, so each adds one change fewer than rigs.
          expect(count('candidate')).toBe(together ? 0 : stations * (candidates - 1));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('time is changes, scripts and overhead added up', () => {
    const plan = factors({ station: 2, distance: 2 });
    const ordered = orderTakes(gatherTakes(matrixSetups(plan, []), true));
    const time = planTime(ordered, { changeTimesS: { ...DEFAULT_CHANGE_TIMES, station: 600, distance: 60, candidate: 100, windscreen: 10, script: 5 }, overheadS: 20 }, () => 10);
    // First take rigs everything: 600 + 60 + 100 + 10 + 5. Then a distance, a station, a distance.
    expect(time.totalS).toBe(775 + 60 + 600 + 60 + 4 * 30);
    expect(time.takes[1]?.startS).toBe(775 + 30 + 60);
  });
});

describe('a plan changed after takes exist', () => {
  const planned = orderTakes(gatherTakes(matrixSetups(factors({ distance: 3 }), []), true));
  const first = reconcileTakes('trial', [], planned).takes;

  it('numbers slates from 1 in the order of the plan', () => {
    expect(first.map((take) => take.slate)).toEqual([1, 2, 3]);
    expect(first.map((take) => conditionKey(take.condition))).toEqual(planned.map((take) => conditionKey(take.condition)));
  });

  it('keeps what was done, drops what was only planned, adds under new slates', () => {
    const done: Take[] = first.map((take, index) => (index === 0 ? { ...take, status: 'done' } : take));
    const moved = orderTakes(
      gatherTakes(
        matrixSetups(
          factors({ distance: 3 }).map((factor) =>
            factor.kind === 'distance'
              ? {
                  ...factor,
                  levels: [
                    { id: 'distance3', label: '', value: null, ticked: true },
                    { id: 'distance9', label: '', value: null, ticked: true },
                  ],
                }
              : factor,
          ),
          [],
        ),
        true,
      ),
    );
    const result = reconcileTakes('trial', done, moved);
    expect(result.takes.map((take) => [take.slate, take.status])).toEqual([
      [3, 'planned'],
      [4, 'planned'],
      [1, 'done'],
    ]);
    expect(result.dropped.map((take) => take.slate)).toEqual([2]);
    expect(result).toMatchObject({ added: 1, kept: 2 });
  });

  it('commits twice without a change to anything', () => {
    expect(reconcileTakes('trial', first, planned).takes).toEqual(first);
  });
});

describe('run sheet', () => {
  it('says what to change before each take, and defuses cells', () => {
    const takes = reconcileTakes('trial', [], orderTakes(gatherTakes(matrixSetups(factors({ distance: 2 }), []), true))).takes;
    const rows = runSheet(takes, { label: (_kind, id) => `=${id}`, letters: () => 'QO', scriptText: () => 'one, two' });
    expect(rows.map((row) => row.changes)).toEqual([['station', 'candidate', 'windscreen', 'distance', 'script'], ['distance']]);
    const lines = runSheetCsv(rows).split('\r\n');
    expect(lines[0]).toBe('slate,station,distance,windscreen,script,candidates,change,text,done,remarks');
    expect(lines[2]).toBe("02,'=station1,'=distance2,'=windscreen1,'=script1,QO,distance,\"one, two\",,");
  });
});
