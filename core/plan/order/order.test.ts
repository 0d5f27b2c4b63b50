import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conditionKey } from '../../domain/factor.ts';
import { DEFAULT_CHANGE_TIMES, type OrderRules, type PlanDraft } from '../../domain/plan.ts';
import { candidatesOf } from '../../domain/take.ts';
import { planOf, takesOf } from '../../testing/plans.ts';
import { type PlannedTake, takeKey } from '../gather.ts';
import { orderBoundS } from './bound.ts';
import { type ChangeCosts, changeS, changesBetween, costTable, pathCostS } from './changeCost.ts';
import { exactOrder } from './exact.ts';
import { orderTakes } from './orderTakes.ts';
import { movedPins } from './pins.ts';
import { searchOrder } from './search.ts';

const RULES: OrderRules = { counterbalanced: false, blockedBy: 'none', pinned: [] };
const ordered = (takes: PlannedTake[], costs: ChangeCosts, order: Partial<OrderRules> = {}, lit: string[] = []) =>
  orderTakes(takes, { changeTimesS: costs.changeTimesS, changeExceptions: costs.changeExceptions, order: { ...RULES, ...order }, daylightStationIds: new Set(lit) });

/** Least change time over all orders, by trying every one. */
function bruteForceS(table: ReturnType<typeof costTable>): number {
  let best = Number.POSITIVE_INFINITY;
  const path: number[] = [];
  const go = () => {
    if (path.length === table.size) best = Math.min(best, pathCostS(table, path));
    else if (pathCostS(table, path) < best) {
      for (let take = 0; take < table.size; take++) {
        if (path.includes(take)) continue;
        path.push(take);
        go();
        path.pop();
      }
    }
  };
  go();
  return best;
}

/** Up to nine takes of a matrix with holes, and costs that differ with direction. */
const small = fc
  .record({
    plan: fc.constant(planOf({ station: 3, distance: 2, windscreen: 2, candidate: 2 })),
    picks: fc.uniqueArray(fc.nat(23), { minLength: 2, maxLength: 9 }),
    times: fc.record({ station: fc.nat(900), distance: fc.nat(300), windscreen: fc.nat(300), candidate: fc.nat(600) }),
    exceptions: fc.array(
      fc.record({
        kind: fc.constantFrom('station' as const, 'windscreen' as const),
        from: fc.integer({ min: 1, max: 3 }),
        to: fc.integer({ min: 1, max: 3 }),
        seconds: fc.nat(1800),
      }),
      { maxLength: 5 },
    ),
  })
  .map(({ plan, picks, times, exceptions }) => {
    const all = takesOf(plan, false);
    const costs: ChangeCosts = {
      changeTimesS: { ...DEFAULT_CHANGE_TIMES, ...times },
      changeExceptions: exceptions.map(({ kind, from, to, seconds }) => ({ kind, fromId: `${kind}${from}`, toId: `${kind}${to}`, seconds })),
    };
    return { takes: picks.map((pick) => all[pick] as PlannedTake), costs };
  });

describe('cost of a change', () => {
  const costs: ChangeCosts = { changeTimesS: DEFAULT_CHANGE_TIMES, changeExceptions: [{ kind: 'windscreen', fromId: 'fur', toId: 'bare', seconds: 20 }] };
  it('is the factor’s own, and another in a direction that says so', () => {
    expect(changeS(costs, 'windscreen', 'bare', 'fur')).toBe(90);
    expect(changeS(costs, 'windscreen', 'fur', 'bare')).toBe(20);
    expect(changeS(costs, 'windscreen', 'fur', 'fur')).toBe(0);
  });

  it('adds up along a day: bare, fur and bare again at one station, then the next', () => {
    const plan = planOf({ station: 2, windscreen: 2 }, { changeExceptions: [{ kind: 'windscreen', fromId: 'windscreen2', toId: 'windscreen1', seconds: 20 }] });
    const table = costTable(takesOf(plan, true), plan);
    // Takes 0 to 3 are station 1 bare, station 1 fur, station 2 bare, station 2 fur.
    expect(pathCostS(table, [0, 1, 2, 3])).toBe(90 + (900 + 20) + 90);
    expect(pathCostS(table, [0, 1, 3, 2])).toBe(90 + 900 + 20);
  });
});

describe('the rig', () => {
  it('stays while one take records no candidate that the other does not, and changes else', () => {
    const [both] = takesOf(planOf({ candidate: 2 }), true) as [PlannedTake];
    const [one, other] = both.setups;
    const first = { ...both, setups: [one!] };
    const second = { ...both, setups: [other!] };
    expect(changesBetween(both, first)).toEqual([]);
    expect(changesBetween(first, both)).toEqual([]);
    expect(changesBetween(first, second)).toEqual(['candidate']);
  });
});

describe('up to twelve takes', () => {
  it('the order is the best there is: the same as trying every one of up to nine', () => {
    fc.assert(
      fc.property(small, ({ takes, costs }) => {
        const table = costTable(takes, costs);
        const result = ordered(takes, costs);
        expect(result.exact).toBe(true);
        expect(result.costS).toBeCloseTo(bruteForceS(table), 6);
        expect(new Set(result.takes)).toEqual(new Set(takes));
        expect(pathCostS(table, exactOrder(table))).toBeCloseTo(result.costS, 6);
      }),
      { numRuns: 60 },
    );
  });

  it('of orders that cost the same, the one as it was entered: near before far', () => {
    const plan = planOf({ distance: 4 });
    expect(ordered(takesOf(plan, true), plan).takes.map((take) => take.condition.distance)).toEqual(['distance1', 'distance2', 'distance3', 'distance4']);
  });

  it('no order is under the bound', () => {
    fc.assert(
      fc.property(small, ({ takes, costs }) => {
        const table = costTable(takes, costs);
        expect(orderBoundS(table)).toBeLessThanOrEqual(bruteForceS(table) + 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  it('the search for large plans costs less than a tenth more on small ones, over sixty of them', () => {
    let searchedS = 0;
    let leastS = 0;
    for (const { takes, costs } of fc.sample(small, { seed: 11, numRuns: 60 })) {
      const table = costTable(takes, costs);
      const path = searchOrder(table);
      expect([...path].sort((a, b) => a - b)).toEqual(takes.map((_, index) => index));
      searchedS += pathCostS(table, path);
      leastS += bruteForceS(table);
    }
    expect(searchedS).toBeGreaterThanOrEqual(leastS);
    expect(searchedS).toBeLessThan(1.1 * leastS);
  });
});

describe('large plans', () => {
  it('a full matrix with one change a step meets the bound, so nothing can be quicker', () => {
    const plan = planOf({ station: 5, candidate: 4, distance: 5, windscreen: 2, script: 5 });
    const takes = takesOf(plan, false);
    expect(takes).toHaveLength(1000);
    const result = ordered(takes, plan);
    // Every step changes one thing: 999 steps, of which 4 stations, 15 rigs, 20 windscreens, 160 distances, 800 scripts.
    expect(result.costS).toBe(4 * 900 + 15 * 300 + 20 * 90 + 160 * 60 + 800 * 15);
    expect(result.boundS).toBe(result.costS);
  });

  it('tells how far it is', () => {
    const plan = planOf({ station: 4, distance: 5, windscreen: 3 });
    const shares: number[] = [];
    orderTakes(takesOf(plan, true), { ...plan, daylightStationIds: new Set() }, (share) => shares.push(share));
    expect(shares.length).toBeGreaterThan(0);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.at(-1)).toBeLessThanOrEqual(1);
  });
});

describe('rules of the order', () => {
  const plan = planOf({ station: 3, candidate: 3, distance: 2 });
  const apart = takesOf(plan, false);
  const firstAtEach = (takes: PlannedTake[]) => {
    const seen = new Map<string, string>();
    for (const take of takes) if (!seen.has(take.condition.station)) seen.set(take.condition.station, candidatesOf(take).join());
    return [...seen.values()];
  };

  it('counterbalanced, each candidate goes first once in three blocks, and nothing is lost', () => {
    const { takes, costS, boundS } = ordered(apart, plan, { counterbalanced: true });
    expect(new Set(takes)).toEqual(new Set(apart));
    expect(new Set(firstAtEach(takes)).size).toBe(3);
    expect(costS).toBeGreaterThanOrEqual(boundS);
  });

  it('stations that need daylight are finished before the others', () => {
    const { takes } = ordered(apart, plan, { blockedBy: 'daylight' }, ['station3']);
    const lit = takes.map((take) => take.condition.station === 'station3');
    expect(lit.lastIndexOf(true)).toBe(5);
    const early = orderTakes(apart, { ...plan, order: { ...RULES, blockedBy: 'daylight' }, daylightStationIds: new Set(['station3']), beforeSunrise: true });
    expect(early.takes.findIndex((take) => take.condition.station === 'station3')).toBe(12);
  });

  it('each station is visited once when that is asked for, even where coming back would be quicker', () => {
    const cheap: PlanDraft = { ...plan, changeTimesS: { ...plan.changeTimesS, station: 1, candidate: 3000 } };
    const visits = (takes: PlannedTake[]) => takes.filter((take, index) => take.condition.station !== takes[index - 1]?.condition.station).length;
    expect(visits(ordered(apart, cheap).takes)).toBeGreaterThan(3);
    expect(visits(ordered(apart, cheap, { blockedBy: 'station' }).takes)).toBe(3);
  });

  it('a take that was locked stays in its place, also when it is one of two alike', () => {
    const twice = [...apart, ...apart.map((take) => ({ ...take }))];
    const locked = twice[4] as PlannedTake;
    const { takes } = ordered(twice, plan, {
      pinned: [
        { key: takeKey(locked), position: 0 },
        { key: takeKey(locked), position: 20 },
      ],
    });
    expect(takes).toHaveLength(36);
    expect([takeKey(takes[0] as PlannedTake), takeKey(takes[20] as PlannedTake)]).toEqual([takeKey(locked), takeKey(locked)]);
  });

  it('a lock for a take that the plan no longer has does nothing', () => {
    expect(ordered(apart, plan, { pinned: [{ key: 'gone', position: 0 }] }).takes).toEqual(ordered(apart, plan).takes);
  });
});

describe('locks', () => {
  const plan = planOf({ station: 2, candidate: 2, distance: 2 });
  const takes = takesOf(plan, true);

  it('a lock holds when a candidate joins: the same condition is still meant', () => {
    const before = takesOf(planOf({ station: 2, candidate: 1, distance: 2 }), true);
    const pinned = [{ key: takeKey(before[3]!), position: 0 }];
    const { takes: result } = ordered(takes, plan, { pinned });
    expect(conditionKey(result[0]!.condition)).toBe(conditionKey(before[3]!.condition));
  });

  it('two locks on one place, and one behind the end, leave every take in', () => {
    const pinned = [
      { key: takeKey(takes[0]!), position: 1 },
      { key: takeKey(takes[1]!), position: 1 },
      { key: takeKey(takes[2]!), position: 99 },
    ];
    const { takes: result } = ordered(takes, plan, { pinned });
    expect(new Set(result)).toEqual(new Set(takes));
    expect(result.at(-1)).toBe(takes[2]);
  });

  it('a take moved onto the place of a lock exchanges places with it, and takes no lock away', () => {
    const pins = [{ key: takeKey(takes[0]!), position: 2 }];
    expect(movedPins(pins, takeKey(takes[1]!), 3, 2)).toEqual([
      { key: takeKey(takes[0]!), position: 3 },
      { key: takeKey(takes[1]!), position: 2 },
    ]);
  });
});
