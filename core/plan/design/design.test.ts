import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { FactorKind, Setup } from '../../domain/factor.ts';
import { newId } from '../../domain/identity.ts';
import { designSchema, type PlanDraft } from '../../domain/plan.ts';
import { planOf } from '../../testing/plans.ts';
import { matrixSetups, variedKinds } from '../matrix.ts';
import { chooseSetups } from './chooseSetups.ts';
import { conclusions } from './conclusions.ts';
import { effectsDesign } from './effectsDesign.ts';
import { isEstimable, modelRank } from './modelRank.ts';
import { pairCovering } from './pairCovering.ts';

const pairsOf = (setups: readonly Setup[], kinds: readonly FactorKind[]) =>
  new Set(setups.flatMap((setup) => kinds.flatMap((a, index) => kinds.slice(index + 1).map((b) => `${a}=${setup[a]} ${b}=${setup[b]}`))));

const sizes = fc.record({
  station: fc.integer({ min: 1, max: 4 }),
  candidate: fc.integer({ min: 1, max: 4 }),
  distance: fc.integer({ min: 1, max: 4 }),
  windscreen: fc.integer({ min: 1, max: 3 }),
  orientation: fc.integer({ min: 1, max: 3 }),
});
const withHoles = fc.tuple(sizes, fc.array(fc.tuple(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 })), { maxLength: 2 })).map(([size, holes]) =>
  planOf(size, {
    rules: holes.map(([screen, station]) => ({
      id: newId(),
      kind: 'windscreen' as const,
      levelIds: [`windscreen${screen}`],
      withKind: 'station' as const,
      withLevelIds: [`station${station}`],
    })),
  }),
);

describe('a covering of pairs', () => {
  it('really covers every pair of levels that can occur, and makes up no setup', () => {
    fc.assert(
      fc.property(withHoles, (plan) => {
        const possible = matrixSetups(plan.factors, plan);
        fc.pre(possible.length > 0);
        const kinds = variedKinds(plan.factors);
        const chosen = pairCovering(possible, kinds);
        expect(pairsOf(chosen, kinds)).toEqual(pairsOf(possible, kinds));
        for (const setup of chosen) expect(possible).toContain(setup);
        for (const kind of kinds) expect(new Set(chosen.map((setup) => setup[kind]))).toEqual(new Set(possible.map((setup) => setup[kind])));
      }),
      { numRuns: 80 },
    );
  });

  it('needs 9 setups for four factors of three levels, since two of them alone have 9 pairs; greed takes few more', () => {
    const plan = planOf({ station: 3, candidate: 3, distance: 3, windscreen: 3 });
    const chosen = pairCovering(matrixSetups(plan.factors), variedKinds(plan.factors));
    expect(chosen.length).toBeGreaterThanOrEqual(9);
    expect(chosen.length).toBeLessThanOrEqual(13);
  });
});

describe('a design for effects', () => {
  it('keeps every main effect and the chosen two-way effect apart from all others', () => {
    const plan = planOf({ station: 3, candidate: 3, distance: 3, windscreen: 2 });
    const kinds = variedKinds(plan.factors);
    const chosen = effectsDesign(matrixSetups(plan.factors), kinds, [['station', 'windscreen']]);
    // Mean 1, mains 2 + 2 + 2 + 1, station by windscreen 2: ten columns, and two setups to spare.
    expect(chosen).toHaveLength(12);
    const model = [...kinds.map((kind) => [kind] as const), ['station', 'windscreen'] as const];
    expect(modelRank(chosen, model)).toBe(10);
    for (const effect of model) expect(isEstimable(chosen, model, effect)).toBe(true);
  });

  it('gives all there are where fewer would not do', () => {
    const plan = planOf({ station: 2, distance: 2 });
    expect(effectsDesign(matrixSetups(plan.factors), ['station', 'distance'], [['station', 'distance']])).toHaveLength(4);
  });

  it('keeps the rank that all cells together have, whatever the sizes', () => {
    fc.assert(
      fc.property(withHoles, (plan) => {
        const possible = matrixSetups(plan.factors, plan);
        const kinds = variedKinds(plan.factors);
        fc.pre(possible.length > 0);
        const model = kinds.map((kind) => [kind] as const);
        expect(modelRank(effectsDesign(possible, kinds, []), model)).toBe(modelRank(possible, model));
      }),
      { numRuns: 40 },
    );
  });
});

describe('rank of a model', () => {
  const setup = (station: string, distance: string): Setup => ({ station, distance, windscreen: 'w', script: 's', candidate: 'c' });
  it('two factors that always change together cannot be told apart', () => {
    const together = [setup('a', '1'), setup('b', '2')];
    expect(modelRank(together, [['station'], ['distance']])).toBe(2);
    expect(isEstimable(together, [['station'], ['distance']], ['station'])).toBe(false);
  });
  it('three of four corners tell both apart, but not whether they work on each other', () => {
    const three = [setup('a', '1'), setup('a', '2'), setup('b', '1')];
    const mains = [['station'], ['distance']] as const;
    expect(isEstimable(three, mains, mains[0])).toBe(true);
    const both = ['station', 'distance'] as const;
    expect(isEstimable(three, [...mains, both], both)).toBe(false);
    expect(isEstimable([...three, setup('b', '2')], [...mains, both], both)).toBe(true);
  });
});

describe('designs of a plan', () => {
  const design = (change: object, plan = planOf({ station: 3, distance: 3, windscreen: 2, script: 2, candidate: 2 })): PlanDraft => ({
    ...plan,
    design: designSchema.parse(change),
  });

  it('one change at a time: the base, and each other level by itself', () => {
    const plan = design({ kind: 'one change', base: { station: 'station2', distance: 'distance1' } });
    const setups = chooseSetups(plan, false);
    // Base, 2 stations, 2 distances, 1 windscreen, 1 script, 1 candidate.
    expect(setups).toHaveLength(8);
    expect(setups.filter((setup) => setup.station !== 'station2' && setup.distance !== 'distance1')).toEqual([]);
  });

  it('together, candidates come free: each condition is recorded with both', () => {
    const setups = chooseSetups(design({ kind: 'one change' }), true);
    expect(setups).toHaveLength(7 * 2);
  });

  it('a ladder has speech and no speech at each rung, and nothing else', () => {
    const plan = design({ kind: 'ladder', ladder: { kind: 'noise', speechId: 'script1', silenceId: 'script2' } }, planOf({ noise: 4, script: 3, distance: 2, candidate: 2 }));
    const setups = chooseSetups(plan, true);
    expect(setups).toHaveLength(4 * 2 * 2);
    for (const rung of ['noise1', 'noise2', 'noise3', 'noise4']) {
      expect(new Set(setups.filter((setup) => setup.noise === rung).map((setup) => setup.script))).toEqual(new Set(['script1', 'script2']));
    }
  });

  it('a base that cannot occur gives way to the nearest that can', () => {
    const rules = [{ id: newId(), kind: 'windscreen' as const, levelIds: ['windscreen2'], withKind: 'station' as const, withLevelIds: ['station1'] }];
    const plan = { ...design({ kind: 'one change', base: { windscreen: 'windscreen2', station: 'station1' } }), rules };
    expect(chooseSetups(plan, true).some((setup) => setup.windscreen === 'windscreen2' && setup.station === 'station1')).toBe(false);
    expect(chooseSetups(plan, true).length).toBeGreaterThan(1);
  });
});

describe('what can be concluded', () => {
  const plan = planOf({ station: 2, distance: 3, candidate: 2 });
  it('of a full matrix: everything, by fair pairs', () => {
    const { factors, interactions } = conclusions(matrixSetups(plan.factors));
    expect(factors.map(({ kind, how, fairPairs }) => [kind, how, fairPairs])).toEqual([
      ['station', 'fair', 6],
      ['candidate', 'fair', 6],
      ['distance', 'fair', 12],
    ]);
    expect(interactions.every((each) => each.told)).toBe(true);
  });
  it('of one change at a time: each factor, but not whether one matters more at another', () => {
    const { factors, interactions } = conclusions(chooseSetups({ ...plan, design: designSchema.parse({ kind: 'one change' }) }, false));
    expect(factors.every((each) => each.how === 'fair')).toBe(true);
    expect(interactions.some((each) => each.told)).toBe(false);
  });
  it('names the levels that no fair pair joins', () => {
    const all = matrixSetups(planOf({ distance: 2, station: 2 }).factors);
    const diagonal = all.filter((setup) => setup.station.at(-1) === setup.distance.at(-1));
    expect(conclusions(diagonal).factors).toEqual([
      { kind: 'station', how: 'none', fairPairs: 0, unpaired: [['station1', 'station2']] },
      { kind: 'distance', how: 'none', fairPairs: 0, unpaired: [['distance1', 'distance2']] },
    ]);
  });
});
