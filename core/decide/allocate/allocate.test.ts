import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { allocate } from './allocate.ts';
import type { GearKind, GearProblem, Wish } from './gear.ts';
import { smallestConflict, someConflict } from './smallestConflict.ts';
import { type SolveWhole, wholeNumberSolver } from './wholeNumbers.ts';

let solve: SolveWhole;
beforeAll(async () => {
  solve = await wholeNumberSolver();
});

const role = (roleId: string, count: number, importance = 1, spares = 0) => ({ roleId, name: roleId, count, spares, importance, rough: false });
const kind = (candidateId: string, points: number, ...parts: string[]): GearKind => ({
  candidateId,
  name: candidateId,
  points,
  untested: false,
  parts: parts.map((itemId) => ({ itemId, uses: 1 })),
});
const part = (itemId: string, price: number | null, atHand = 0, serves = 1) => ({ itemId, name: itemId, price, serves, atHand });
const people = (roleId: string): Wish => ({ kind: 'people', roleId });
const problem = (change: Partial<GearProblem>): GearProblem => ({ roles: [], kinds: [], parts: [], wishes: [], budget: null, currency: 'EUR', left: [], ...change });

/** Two leads and six children: the dear one for those who count, the cheap one for the rest. */
const school = problem({
  roles: [role('leads', 2, 3), role('children', 6)],
  kinds: [kind('dear', 90, 'dear'), kind('cheap', 70, 'cheap')],
  parts: [part('dear', 600), part('cheap', 200)],
  wishes: [people('leads'), people('children'), { kind: 'budget' }],
  budget: 2800,
});

describe('who gets what', () => {
  it('gives the best to those who count most, as far as the budget goes', () => {
    const { best, second, next, step } = allocate(school, solve);
    expect(best?.given).toEqual([
      { roleId: 'leads', kinds: [{ candidateId: 'dear', count: 2, spares: 0 }] },
      // 2,800 less two dear ones leave 1,600 for six: one more dear one and five cheap ones.
      {
        roleId: 'children',
        kinds: [
          { candidateId: 'dear', count: 1, spares: 0 },
          { candidateId: 'cheap', count: 5, spares: 0 },
        ],
      },
    ]);
    expect(best?.cost).toBe(2800);
    expect(best?.points).toBeCloseTo((3 * 2 * 90 + 90 + 5 * 70) / 12, 6);
    expect(second?.given[1]?.kinds).toEqual([{ candidateId: 'cheap', count: 6, spares: 0 }]);
    expect(next).toBeNull();
    expect(step?.cost).toBe(3200);
    // With 300 to go to the next dear one, a hundred buys nothing; with 50 it does, and no step beyond is told.
    const near = allocate({ ...school, budget: 3150 }, solve);
    expect(near.next?.cost).toBe(3200);
    expect(near.step).toBeNull();
  });

  it('buys nothing that is at hand, and lets two people share a receiver of two channels', () => {
    const { best } = allocate(
      problem({
        roles: [role('leads', 3)],
        kinds: [kind('wire', 80, 'lavalier', 'receiver')],
        parts: [part('lavalier', 100, 2), part('receiver', 500, 0, 2)],
        wishes: [people('leads'), { kind: 'budget' }],
        budget: 1100,
      }),
      solve,
    );
    expect(best).toMatchObject({
      cost: 1100,
      buy: [
        { itemId: 'lavalier', count: 1, price: 100 },
        { itemId: 'receiver', count: 2, price: 500 },
      ],
      fromHand: [{ itemId: 'lavalier', count: 2 }],
    });
  });

  it('keeps spares of a kind that the role uses', () => {
    const { best } = allocate(
      {
        ...school,
        roles: [role('leads', 1, 3), role('children', 2, 1, 1)],
        wishes: [people('leads'), people('children'), { kind: 'spares', roleId: 'children' }, { kind: 'budget' }],
        budget: 1200,
      },
      solve,
    );
    expect(best?.given[1]?.kinds).toEqual([{ candidateId: 'cheap', count: 2, spares: 1 }]);
  });

  it('names the fewest wishes that conflict, and what all the others cost', () => {
    const { best, conflict, leastCost } = allocate({ ...school, budget: 1500 }, solve);
    expect(best).toBeNull();
    expect(conflict).toEqual([people('leads'), people('children'), { kind: 'budget' }]);
    expect(leastCost).toBe(1600);
    // Locking plugs that no candidate has are a conflict of their own, whatever money there is.
    const lock: Wish = { kind: 'lock', roleId: 'children', met: [] };
    expect(allocate({ ...school, wishes: [...school.wishes, lock] }, solve)).toMatchObject({ best: null, conflict: [people('children'), lock], leastCost: null });
  });

  it('gives out only what is at hand of a thing without a price', () => {
    const rows = { ...school, parts: [part('dear', null, 1), part('cheap', 200)], budget: 100_000 };
    expect(allocate(rows, solve).best?.given.map(({ kinds }) => kinds.map(({ candidateId, count }) => `${count} ${candidateId}`))).toEqual([['1 dear', '1 cheap'], ['6 cheap']]);
  });

  it('is the best of all there are, the cheapest of those, and the second best of the rest: against counting every share-out', () => {
    const small = fc.record({
      counts: fc.array(fc.tuple(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 })), { minLength: 1, maxLength: 2 }),
      kinds: fc.array(fc.record({ points: fc.integer({ min: 0, max: 100 }), price: fc.integer({ min: 1, max: 9 }), own: fc.integer({ min: 0, max: 2 }) }), {
        minLength: 1,
        maxLength: 3,
      }),
      shared: fc.record({ price: fc.integer({ min: 0, max: 9 }), serves: fc.integer({ min: 1, max: 2 }), own: fc.integer({ min: 0, max: 1 }) }),
      refused: fc.array(fc.tuple(fc.nat(1), fc.nat(2)), { maxLength: 2 }),
      budget: fc.integer({ min: 0, max: 60 }),
    });
    fc.assert(
      fc.property(small, ({ counts, kinds, shared, refused, budget }) => {
        const roles = counts.map(([count, importance], at) => role(`r${at}`, count, importance));
        const all = kinds.map(({ points }, at) => kind(`k${at}`, points, `p${at}`, 'shared'));
        const given = problem({
          roles,
          kinds: all,
          parts: [...kinds.map(({ price, own }, at) => part(`p${at}`, price, own)), part('shared', shared.price, shared.own, shared.serves)],
          wishes: [
            ...roles.map(({ roleId }) => people(roleId)),
            ...refused.map(([of, not]): Wish => ({ kind: 'hide', roleId: `r${of}`, met: all.flatMap(({ candidateId }) => (candidateId === `k${not}` ? [] : [candidateId])) })),
            { kind: 'budget' },
          ],
          budget,
        });
        const mayHave = (roleAt: number, kindAt: number) => !refused.some(([of, not]) => of === roleAt && not === kindAt);
        const ways = shareOuts(
          counts.map(([count]) => count),
          kinds.length,
          mayHave,
        ).map((way) => {
          const units = kinds.map((_, at) => way.reduce((sum, each) => sum + (each[at] as number), 0));
          const total = units.reduce((sum, each) => sum + each, 0);
          const cost = units.reduce((sum, each, at) => sum + Math.max(0, each - (kinds[at]?.own ?? 0)) * (kinds[at]?.price ?? 0), 0);
          return {
            used: JSON.stringify(way.map((each) => each.map((count) => count > 0))),
            points: way.reduce((sum, each, of) => sum + each.reduce((more, count, at) => more + count * (counts[of]?.[1] ?? 0) * (kinds[at]?.points ?? 0), 0), 0),
            cost: cost + Math.max(0, Math.ceil(total / shared.serves) - shared.own) * shared.price,
          };
        });
        const sorted = ways.filter(({ cost }) => cost <= budget).sort((a, b) => b.points - a.points || a.cost - b.cost);
        const { best, second, conflict } = allocate(given, solve);
        const weighed = counts.reduce((sum, [count, importance]) => sum + count * importance, 0);
        const [first] = sorted;
        if (!first) {
          expect(best).toBeNull();
          expect(conflict.length).toBeGreaterThan(0);
          return;
        }
        expect(best?.points).toBeCloseTo(first.points / weighed, 3);
        expect(best?.cost).toBe(first.cost);
        const usedOf = JSON.stringify(best?.given.map((each) => all.map(({ candidateId }) => each.kinds.some((one) => one.candidateId === candidateId))));
        const other = sorted.find(({ used }) => used !== usedOf);
        if (other) expect(second?.points).toBeCloseTo(other.points / weighed, 3);
        else expect(second).toBeNull();
      }),
      { numRuns: 40 },
    );
  }, 60_000);
});

/** Every way to give each person of each role one of the kinds. */
function shareOuts(counts: readonly number[], kinds: number, mayHave: (role: number, kind: number) => boolean): number[][][] {
  const splits = (count: number, role: number, from = 0): number[][] => {
    if (from === kinds) return count === 0 ? [[]] : [];
    const most = mayHave(role, from) ? count : 0;
    return Array.from({ length: most + 1 }, (_, here) => splits(count - here, role, from + 1).map((rest) => [here, ...rest])).flat();
  };
  return counts.reduce<number[][][]>((ways, count, role) => ways.flatMap((way) => splits(count, role).map((own) => [...way, own])), [[]]);
}

describe('the smallest conflict', () => {
  it('is as small as any that trying all sets finds', () => {
    // What cannot be had together: any set that holds one of these whole.
    const wishes = 7;
    fc.assert(
      fc.property(fc.array(fc.uniqueArray(fc.nat(wishes - 1), { minLength: 1, maxLength: 4 }), { maxLength: 4 }), (forbidden) => {
        const possible = (some: readonly number[]) => !forbidden.some((set) => set.every((each) => some.includes(each)));
        const found = smallestConflict(wishes, possible, solve);
        const smallest = Math.min(...forbidden.map((set) => set.length));
        expect(found.length).toBe(forbidden.length === 0 ? 0 : smallest);
        expect(possible(found)).toBe(forbidden.length === 0);
        // Without the proof it may be larger, but nothing in it is idle.
        const some = someConflict(wishes, possible);
        expect(some.length > 0).toBe(forbidden.length > 0);
        for (const each of some) expect(possible(some.filter((other) => other !== each))).toBe(true);
      }),
      { numRuns: 40 },
    );
  }, 60_000);
});
