import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Setup, setupKey } from '../domain/factor.ts';
import type { PlanDraft } from '../domain/plan.ts';
import { gatherTakes } from '../plan/gather.ts';
import { matrixSetups, tickedLevels } from '../plan/matrix.ts';
import { planOf } from '../testing/plans.ts';
import { foreseen } from './foreseen.ts';

const outBut = (plan: PlanDraft, keep: (setup: Setup) => boolean): PlanDraft => ({
  ...plan,
  leftOut: matrixSetups(plan.factors)
    .filter((setup) => !keep(setup))
    .map(setupKey),
});
const number = (levelId: string) => levelId.at(-1);
const found = (plan: PlanDraft) => foreseen(plan, matrixSetups(plan.factors, plan), [], []);

describe('foreseen before anyone goes out', () => {
  it('two factors that always change together, and what mends it', () => {
    const plan = outBut(planOf({ station: 2, distance: 2, script: 2 }), (setup) => number(setup.station) === number(setup.distance));
    const [finding, ...others] = found(plan);
    expect(others).toEqual([]);
    expect(finding).toMatchObject({ kind: 'confounded', text: 'Station and distance always change together: what is heard can be due to either.' });
    expect(finding?.remedies.map((remedy) => remedy.label)).toEqual(['Take the cells left out by hand back in', 'Hold distance at distance 1', 'Hold station at station 1']);
    for (const { label, patch } of finding?.remedies ?? []) expect(found({ ...plan, ...patch }), label).toEqual([]);
  });

  it('a factor that changes only when another does', () => {
    const plan = outBut(planOf({ station: 3, windscreen: 2 }), (setup) => (setup.station === 'station1') === (setup.windscreen === 'windscreen1'));
    expect(found(plan).map((finding) => finding.text)).toEqual(['Windscreen changes only when station does: what is heard of it can be due to the station.']);
  });

  it('nothing of a full matrix', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 }), (station, distance, candidate) => {
        expect(found(planOf({ station, distance, candidate }))).toEqual([]);
      }),
    );
  });

  it('candidates that share no condition, and lets them meet', () => {
    const plan = outBut(planOf({ candidate: 2, distance: 4 }), (setup) => (setup.candidate === 'candidate1') === Number(number(setup.distance)) < 3);
    const stranger = found(plan).find((finding) => finding.kind === 'no comparison');
    expect(stranger?.text).toBe('candidate 1 and candidate 2 share no condition: they cannot be compared at all.');
    expect(stranger?.remedies[0]?.label).toBe('Take 4 cells back in where the other is recorded');
    expect(found({ ...plan, ...stranger?.remedies[0]?.patch })).toEqual([]);
  });

  it('candidates that are recorded at different hours, and both ways out', () => {
    const plan = planOf({ candidate: 2, distance: 2 }, { together: false });
    const takes = gatherTakes(matrixSetups(plan.factors), []).sort((a, b) => a.setups[0]!.candidateId.localeCompare(b.setups[0]!.candidateId));
    const [finding] = foreseen(plan, matrixSetups(plan.factors), takes, [0, 600, 3600, 4200]);
    expect(finding?.text).toBe('candidate 1 is recorded 60 min before candidate 2 on average: wind, traffic and light may judge instead of the gear.');
    expect(finding?.remedies.map((remedy) => remedy.patch)).toEqual([{ together: true }, { order: { ...plan.order, counterbalanced: true } }]);
    expect(foreseen(plan, matrixSetups(plan.factors), takes, [0, 3600, 3660, 60])).toEqual([]);
  });

  it('holding a factor leaves one level ticked and all of them in the plan', () => {
    const plan = outBut(planOf({ station: 2, distance: 2 }), (setup) => number(setup.station) === number(setup.distance));
    const patch = found(plan)[0]?.remedies.find((remedy) => remedy.label.startsWith('Hold distance'))?.patch;
    const held = { ...plan, ...patch };
    expect(tickedLevels(held.factors, 'distance')).toHaveLength(1);
    expect(held.factors.find((factor) => factor.kind === 'distance')?.levels).toHaveLength(2);
  });

  it('two factors that mostly change together, though each can still be told', () => {
    const plan = outBut(
      planOf({ station: 2, windscreen: 2, distance: 4 }),
      (setup) => number(setup.station) === number(setup.windscreen) || (setup.station === 'station1' && setup.distance === 'distance1'),
    );
    const [finding] = found(plan);
    expect(finding?.kind).toBe('partly confounded');
    expect(finding?.text).toMatch(/^Station and windscreen mostly change together \(association 0\.[789] of 1\)/);
  });

  it('a level that is always early and another that is always late, at one station', () => {
    const plan = planOf({ windscreen: 2, distance: 2 });
    const setups = matrixSetups(plan.factors);
    const takes = gatherTakes(setups, [['candidate1']]).sort((a, b) => a.condition.windscreen!.localeCompare(b.condition.windscreen!));
    const [finding] = foreseen(plan, setups, takes, [0, 60, 3600, 3660]);
    expect(finding?.text).toBe('At station 1 windscreen windscreen 1 is recorded 60 min before windscreen 2 on average: the hour may judge instead.');
    expect(finding?.remedies[0]?.patch).toEqual({ atOnce: ['windscreen'] });
    expect(foreseen(plan, setups, takes, [0, 3600, 3660, 60])).toEqual([]);
  });
});
