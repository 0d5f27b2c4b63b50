import { describe, expect, it } from 'vitest';
import { CRITERIA_FEWEST, CRITERIA_MOST } from '../domain/criterion.ts';
import { planDraftSchema } from '../domain/plan.ts';
import { scriptDraftSchema } from '../domain/script.ts';
import { STARTING_POINT_IDS, STARTING_POINTS } from '../domain/startingPoint.ts';
import { alignPlan, emptyPlan } from './followRecords.ts';
import { planKinds, tickedLevels } from './matrix.ts';
import { startPlan } from './startPlan.ts';

const records = { candidate: [{ id: 'c', name: 'Osier' }], station: [{ id: 's', name: 'loft' }], script: [{ id: 't', name: 'Neutral' }] };

const HIDDEN = STARTING_POINTS.find((point) => point.id === 'hidden lavalier')!;

describe('starting points', () => {
  it('there is one for each common question', () => {
    expect(STARTING_POINTS.map((point) => point.id)).toEqual([...STARTING_POINT_IDS]);
  });

  it.each(STARTING_POINTS.map((point) => [point.name, point] as const))(
    '%s: criteria of a usable number whose weights are shares of 100, with worded ends and a reason',
    (_name, point) => {
      expect(point.criteria.length).toBeGreaterThanOrEqual(CRITERIA_FEWEST);
      expect(point.criteria.length).toBeLessThanOrEqual(CRITERIA_MOST);
      expect(point.criteria.reduce((sum, criterion) => sum + criterion.weight, 0)).toBe(100);
      for (const criterion of point.criteria) if (criterion.kind !== 'measured') expect([criterion.worstWords, criterion.bestWords]).not.toContain('');
      expect(point.why.length).toBeGreaterThan(60);
      for (const script of point.scripts) expect(scriptDraftSchema.parse(script)).toEqual(script);
    },
  );

  it.each(STARTING_POINTS.map((point) => [point.name, point] as const))('%s: a plan that may be saved and has setups to record', (_name, point) => {
    const plan = startPlan(alignPlan(emptyPlan(), records), point);
    expect(planDraftSchema.parse(plan)).toEqual(plan);
    for (const { kind, labels } of point.factors) expect(tickedLevels(plan.factors, kind).map((level) => level.label)).toEqual(labels);
    for (const kind of planKinds(plan.factors)) expect(tickedLevels(plan.factors, kind).length, kind).toBeGreaterThan(0);
    expect(plan.design.kind).toBe(point.design);
  });

  it('keeps the identity of levels that the plan has, and controls that were set', () => {
    const plan = { ...emptyPlan(), controls: [{ name: 'Clothes', value: 'wool' }] };
    const started = startPlan(plan, HIDDEN);
    expect(tickedLevels(started.factors, 'distance').map((level) => level.id)).toEqual(['1']);
    expect(started.controls.filter((control) => control.name === 'Clothes')).toEqual([{ name: 'Clothes', value: 'wool' }]);
    expect(startPlan(started, HIDDEN)).toEqual(started);
  });
});
