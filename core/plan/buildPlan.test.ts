import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conditionKey, type FactorKind, setupKey } from '../domain/factor.ts';
import { newId } from '../domain/identity.ts';
import { DESIGN_KINDS, designSchema, orderRulesSchema, type PlanDraft, togetherLimitsSchema } from '../domain/plan.ts';
import { setupCondition } from '../domain/take.ts';
import { planOf } from '../testing/plans.ts';
import { buildPlan, type PlanContext } from './buildPlan.ts';
import { dropFirst } from './day/dropFirst.ts';
import { schedule } from './day/schedule.ts';
import { alignPlan, emptyPlan, levelIdOf, newFactor } from './followRecords.ts';
import { takeKey } from './gather.ts';
import { conditionWords, levelLabel } from './levelWords.ts';
import { isExcluded, matrixSetups, tickedLevels } from './matrix.ts';

const contextOf = (plan: PlanDraft): PlanContext => ({
  chains: tickedLevels(plan.factors, 'candidate').map(({ id, label }) => ({ id, name: label, links: [], split: null })),
  items: [],
  stations: [],
});

/** Plans of every design, with and without rules, cells left out, repeats, and candidates that disturb each other. */
const plans = fc
  .record({
    sizes: fc.record({
      station: fc.integer({ min: 1, max: 3 }),
      candidate: fc.integer({ min: 1, max: 4 }),
      distance: fc.integer({ min: 1, max: 3 }),
      windscreen: fc.integer({ min: 1, max: 2 }),
      script: fc.integer({ min: 1, max: 2 }),
      orientation: fc.integer({ min: 1, max: 2 }),
    }),
    design: fc.constantFrom(...DESIGN_KINDS),
    ruled: fc.boolean(),
    gone: fc.array(fc.nat(60), { maxLength: 5 }),
    repeats: fc.integer({ min: 1, max: 3 }),
    together: fc.boolean(),
    tracks: fc.integer({ min: 1, max: 4 }),
    counterbalanced: fc.boolean(),
    blockedBy: fc.constantFrom('none' as const, 'station' as const, 'daylight' as const),
  })
  .map(({ sizes, design, ruled, gone, repeats, together, tracks, counterbalanced, blockedBy }): PlanDraft => {
    const plan = planOf(sizes);
    const all = matrixSetups(plan.factors).map(setupKey);
    return {
      ...plan,
      design: designSchema.parse({ kind: design, ladder: { kind: 'distance' } }),
      rules: ruled ? [{ id: newId(), kind: 'windscreen', levelIds: ['windscreen2'], withKind: 'station', withLevelIds: ['station1'] }] : [],
      leftOut: gone.flatMap((at) => all[at] ?? []),
      repeats,
      together,
      togetherLimits: togetherLimitsSchema.parse({ tracks }),
      order: orderRulesSchema.parse({ counterbalanced, blockedBy }),
    };
  });

const times = (plan: PlanDraft) => ({ ...plan, takeS: () => 20 + plan.overheadS });

describe('a plan as takes, whatever the plan', () => {
  it('records each chosen setup as often as it is repeated, and no other', () => {
    fc.assert(
      fc.property(plans, (plan) => {
        const { setups, takes } = buildPlan(plan, contextOf(plan));
        const recorded = new Map<string, number>();
        for (const take of takes) {
          for (const setup of take.setups) {
            const key = setupKey({ ...setupCondition(take, setup), candidate: setup.candidateId });
            recorded.set(key, (recorded.get(key) ?? 0) + 1);
          }
        }
        expect(new Set(recorded.keys())).toEqual(new Set(setups.map(setupKey)));
        expect([...recorded.values()].every((times) => times === plan.repeats)).toBe(true);
      }),
      { numRuns: 150 },
    );
  });

  it('never records what cannot occur or was left out, and no take has more candidates than tracks', () => {
    fc.assert(
      fc.property(plans, (plan) => {
        const { setups, takes } = buildPlan(plan, contextOf(plan));
        const out = new Set(plan.leftOut);
        for (const setup of setups) {
          expect(isExcluded(setup, plan.rules)).toBe(false);
          expect(out.has(setupKey(setup))).toBe(false);
        }
        for (const take of takes) expect(take.setups.length).toBeLessThanOrEqual(plan.together ? plan.togetherLimits.tracks : 1);
      }),
      { numRuns: 100 },
    );
  });

  it('costs no less than the bound, and comes out the same each time', () => {
    fc.assert(
      fc.property(plans, (plan) => {
        const first = buildPlan(plan, contextOf(plan));
        const second = buildPlan(plan, contextOf(plan));
        expect(first.costS).toBeGreaterThanOrEqual(first.boundS - 1e-6);
        expect(second.takes.map(takeKey)).toEqual(first.takes.map(takeKey));
      }),
      { numRuns: 60 },
    );
  });

  it('a reduced design records no more than the full matrix', () => {
    fc.assert(
      fc.property(plans, (plan) => {
        const full = buildPlan({ ...plan, design: designSchema.parse({}) }, contextOf(plan));
        expect(buildPlan(plan, contextOf(plan)).takes.length).toBeLessThanOrEqual(full.takes.length);
      }),
      { numRuns: 60 },
    );
  });
});

describe('a day, whatever the plan', () => {
  const START = Date.parse('2026-03-20T09:00Z');
  it('has no gap and no overlap, every take once, and every break that begins before its last take', () => {
    fc.assert(
      fc.property(
        plans,
        fc.array(fc.record({ afterMin: fc.integer({ min: 0, max: 400 }), lengthMin: fc.integer({ min: 5, max: 60 }) }), { maxLength: 3 }),
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        (plan, breaks, hours) => {
          const { takes } = buildPlan(plan, contextOf(plan));
          fc.pre(takes.length > 0);
          const day = { ...plan.day, breaks: breaks.map(({ afterMin, lengthMin }) => ({ startsAtMs: START + afterMin * 60_000, lengthMin })) };
          const runningTimeH = new Map(tickedLevels(plan.factors, 'candidate').map((level) => [level.id, hours]));
          const { entries, finishesAtMs } = schedule(takes, { ...plan, day }, START, { stations: [], lengthS: () => 20, runningTimeH });
          expect(entries[0]?.startsAtMs).toBe(START);
          entries.slice(1).forEach((entry, index) => expect(entry.startsAtMs).toBe(entries[index]?.endsAtMs));
          expect(entries.at(-1)?.endsAtMs).toBe(finishesAtMs);
          expect(entries.filter((entry) => entry.kind === 'take').map((entry) => entry.takeIndex)).toEqual([...takes.keys()]);
          const taken = entries.filter((entry) => entry.kind === 'break');
          for (const entry of taken)
            expect(day.breaks.some((each) => each.startsAtMs <= entry.startsAtMs && each.lengthMin * 60_000 === entry.endsAtMs - entry.startsAtMs)).toBe(true);
          expect(taken.length).toBeLessThanOrEqual(day.breaks.length);
        },
      ),
      { numRuns: 80 },
    );
  });

  it('drops takes in an order whose losses for good never come before one that loses nothing', () => {
    fc.assert(
      fc.property(plans, (plan) => {
        const { takes } = buildPlan(plan, contextOf(plan));
        fc.pre(takes.length > 1);
        const [first] = dropFirst(takes, times(plan), 1);
        const keys = takes.map(takeKey);
        const repeated = keys.some((key, index) => keys.indexOf(key) !== index);
        if (repeated) expect(first?.lostForGood).toBe(0);
        expect(new Set(dropFirst(takes, times(plan), 5).map((each) => each.takeIndex)).size).toBe(Math.min(5, takes.length - 1));
      }),
      { numRuns: 60 },
    );
  });
});

describe('factors that a plan takes in', () => {
  it('come with their usual levels, in their unit, and survive being aligned', () => {
    const factor = newFactor('orientation');
    expect(factor).toMatchObject({ name: 'Orientation', unit: 'degrees' });
    expect(factor.levels.map((level) => [level.label, level.value, level.ticked])).toEqual([
      ['0°', 0, true],
      ['90°', 90, true],
      ['180°', 180, true],
    ]);
    const plan = { ...emptyPlan(), factors: [...emptyPlan().factors, factor] };
    const aligned = alignPlan(plan, { candidate: [], station: [], script: [] });
    expect(aligned.factors.find((each) => each.kind === 'orientation')).toEqual(factor);
    const kinds: FactorKind[] = aligned.factors.map((each) => each.kind);
    expect(kinds.indexOf('orientation')).toBeLessThan(kinds.indexOf('script'));
  });

  it('a level that is a placement of Kit has its name, also after that was changed; one that is a word stays a word', () => {
    const level = (id: string, label: string) => ({ id, label, value: null, ticked: true });
    const plan = { ...emptyPlan(), factors: [...emptyPlan().factors, { ...newFactor('placement'), levels: [level('p1', 'Breastbone'), level('collar', 'collar')] }] };
    const labels = (placement?: { id: string; name: string }[]) =>
      alignPlan(plan, { candidate: [], station: [], script: [], ...(placement && { placement }) })
        .factors.find((each) => each.kind === 'placement')!
        .levels.map(({ label }) => label);
    expect(labels([{ id: 'p1', name: 'Breastbone, low' }])).toEqual(['Breastbone, low', 'collar']);
    // What is in the bin is still what takes were planned with.
    expect(labels([])).toEqual(['Breastbone', 'collar']);
    expect(labels()).toEqual(['Breastbone', 'collar']);
  });

  it.each([
    ['under the collar', 'under-the-collar'],
    ['½ throttle', '½-throttle'],
    ['  Küste, laut  ', 'küste-laut'],
  ])('%j has an identity that can be read', (label, id) => {
    expect(levelIdOf(label)).toBe(id);
  });

  it('are told in the order in which people say them', () => {
    const { factors } = planOf({ orientation: 2, effort: 1 });
    const condition = { station: 'station1', windscreen: 'windscreen1', distance: 'distance1', script: 'script1', orientation: 'orientation2' };
    expect(conditionWords(factors, condition)).toEqual(['station 1', 'distance 1', 'windscreen 1', 'orientation 2', 'script 1']);
    expect(conditionWords(factors, condition, ['effort', 'script'])).toEqual(['script 1']);
    expect(levelLabel(factors, 'orientation', 'gone')).toBe('no longer in the plan');
    expect(conditionKey(condition)).toContain('orientation=orientation2');
  });
});
