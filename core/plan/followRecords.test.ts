import { describe, expect, it } from 'vitest';
import { BASIC_KINDS } from '../domain/factor.ts';
import { planDraftSchema } from '../domain/plan.ts';
import { alignPlan, emptyPlan } from './followRecords.ts';
import { levelLabel } from './levelWords.ts';

const records = (...names: string[]) => names.map((name) => ({ id: `id-${name}`, name }));
const aligned = (plan = emptyPlan(), stations = records('slipway', 'loft')) => alignPlan(plan, { candidate: records('Quoinholt'), station: stations, script: records('Neutral') });
const stationsOf = (plan: ReturnType<typeof aligned>) => plan.factors.find((factor) => factor.kind === 'station')!.levels;

describe('a plan and the records it speaks of', () => {
  it('starts as a plan that may be saved, with one level ticked where it brings its own', () => {
    expect(planDraftSchema.parse(emptyPlan())).toEqual(emptyPlan());
    expect(emptyPlan().factors.map((factor) => factor.kind)).toEqual([...BASIC_KINDS]);
    for (const kind of ['distance', 'windscreen'])
      expect(
        emptyPlan()
          .factors.find((factor) => factor.kind === kind)
          ?.levels.filter((level) => level.ticked),
      ).toHaveLength(1);
  });

  it('takes new records in ticked, and drops those that are gone', () => {
    expect(stationsOf(aligned()).map((level) => [level.label, level.ticked])).toEqual([
      ['slipway', true],
      ['loft', true],
    ]);
    expect(stationsOf(aligned(aligned(), records('loft', 'deck'))).map((level) => level.label)).toEqual(['loft', 'deck']);
  });

  it('keeps what was unticked, and follows a new name', () => {
    const plan = aligned();
    const unticked = {
      ...plan,
      factors: plan.factors.map((factor) =>
        factor.kind === 'station' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.label !== 'loft' })) } : factor,
      ),
    };
    const renamed = aligned(unticked, [
      { id: 'id-slipway', name: 'slipway' },
      { id: 'id-loft', name: 'net loft' },
    ]);
    expect(stationsOf(renamed).map((level) => [level.label, level.ticked])).toEqual([
      ['slipway', true],
      ['net loft', false],
    ]);
  });

  it('leaves distances and windscreens alone', () => {
    const distances = (plan: ReturnType<typeof aligned>) => plan.factors.find((factor) => factor.kind === 'distance');
    expect(distances(aligned())).toEqual(distances(emptyPlan()));
  });

  it('names levels, and says of others that they are gone', () => {
    expect(levelLabel(aligned().factors, 'distance', '10')).toBe('10 m');
    expect(levelLabel(aligned().factors, 'distance', '99')).toBe('no longer in the plan');
  });
});
