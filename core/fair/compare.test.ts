import { describe, expect, it } from 'vitest';
import { NOT_KNOWN, UNKNOWN_CONDITION } from '../domain/factor.ts';
import { type Compared, compareTakes } from './compare.ts';
import { nearestFair } from './nearestFair.ts';

const base: Compared = {
  takeId: 't1',
  setupId: 's1',
  candidateId: 'QO',
  condition: { station: 'slipway', distance: '10', windscreen: 'fur', script: 'neutral' },
  gains: {},
  windMs: 3,
  noiseDba: 60,
  controls: [{ name: 'Talker', value: 'Ferrier' }],
  startedAtMs: 0,
};
const take = (change: Partial<Compared>, condition: Partial<Compared['condition']> = {}): Compared => ({ ...base, ...change, condition: { ...base.condition, ...condition } });

describe('fair or flagged', () => {
  it('two candidates of one take are fair', () => {
    expect(compareTakes([base, take({ candidateId: 'LB' })], 'candidate')).toMatchObject({ fairness: 'fair', differences: [{ what: 'candidate', spoils: false }] });
  });

  it.each([
    ['another windscreen', take({ candidateId: 'LB' }, { windscreen: 'foam' }), 'windscreen'],
    ['another control', take({ candidateId: 'LB', controls: [{ name: 'Talker', value: 'Netmaker' }] }), 'Talker'],
    ['more wind', take({ candidateId: 'LB', windMs: 5 }), 'wind'],
    ['more noise', take({ candidateId: 'LB', noiseDba: 66 }), 'noise'],
  ])('%s spoils it', (_name, other, what) => {
    const { fairness, differences } = compareTakes([base, other], 'candidate');
    expect(fairness).toBe('not fair');
    expect(differences.filter((difference) => difference.spoils).map((difference) => difference.what)).toEqual([what]);
  });

  it('a candidate that is not under test spoils it', () => {
    expect(compareTakes([base, take({ candidateId: 'LB' }, { distance: '40' })], 'distance').fairness).toBe('not fair');
    expect(compareTakes([base, take({}, { distance: '40' })], 'distance').fairness).toBe('fair');
  });

  it('gain of another candidate is told but matched; gain of the same candidate spoils', () => {
    const gained = (candidateId: string, recorder: number) => take({ candidateId, gains: { recorder } });
    expect(compareTakes([gained('QO', 30), gained('LB', 36)], 'candidate')).toMatchObject({ fairness: 'fair', differences: [{ kind: 'factor' }, { kind: 'gain', spoils: false }] });
    const same = compareTakes([gained('QO', 30), take({ gains: { recorder: 36 } }, { distance: '40' })], 'distance');
    expect(same.fairness).toBe('not fair');
  });

  it('tells when takes lie half an hour apart', () => {
    expect(compareTakes([base, take({ candidateId: 'LB', startedAtMs: 45 * 60_000 })], 'candidate').differences.at(-1)).toMatchObject({
      kind: 'time',
      values: ['45 min apart'],
      spoils: false,
    });
  });
});

describe('what is not known', () => {
  const other = (change: Partial<Compared>) => take({ takeId: 't2', candidateId: 'LB', ...change });

  it.each([
    ['wind that was read at one take only', other({ windMs: null }), 'wind'],
    ['noise that was read at one take only', other({ noiseDba: null }), 'noise'],
    ['a control that was noted at one take only', other({ controls: [] }), 'Talker'],
    ['a factor that one take says nothing of', take({ takeId: 't2', candidateId: 'LB' }, { rig: 'hidden' }), 'rig'],
  ])('%s is neither equal nor different', (_name, second, what) => {
    const { fairness, unknowns } = compareTakes([base, second], 'candidate');
    expect(fairness).toBe('cannot be told');
    expect(unknowns.map((unknown) => unknown.what)).toEqual([what]);
  });

  it('wind of 9 m/s against nothing, six hours apart, is not fair by silence', () => {
    const { fairness, unknowns, differences } = compareTakes([take({ windMs: 9 }), other({ windMs: null, noiseDba: null, startedAtMs: 6 * 3_600_000 })], 'candidate');
    expect(fairness).toBe('cannot be told');
    expect(unknowns).toEqual([
      { kind: 'conditions', what: 'wind', missing: [1] },
      { kind: 'conditions', what: 'noise', missing: [1] },
    ]);
    expect(differences.at(-1)?.values).toEqual(['6.0 h apart']);
  });

  it('nothing read at either of two takes leaves it open, too; within one take it was the same wind', () => {
    const bare = { windMs: null, noiseDba: null };
    expect(compareTakes([take(bare), other(bare)], 'candidate').fairness).toBe('cannot be told');
    expect(compareTakes([take(bare), take({ ...bare, setupId: 's2', candidateId: 'LB' })], 'candidate').fairness).toBe('fair');
  });

  it('a gain that is noted at one take of a candidate and not at its other', () => {
    const far = take({ takeId: 't2', gains: {} }, { distance: '40' });
    expect(compareTakes([take({ gains: { recorder: 30 } }), far], 'distance')).toMatchObject({ fairness: 'cannot be told', unknowns: [{ what: 'recorder gain', missing: [1] }] });
  });

  it('of a take without a plan what may differ within it is not known; what is one in a take is not asked for', () => {
    const unplanned = (change: Partial<Compared>) => ({ ...take(change), condition: UNKNOWN_CONDITION });
    const together = compareTakes([unplanned({}), unplanned({ setupId: 's2', candidateId: 'LB' })], 'candidate');
    expect(together.fairness).toBe('cannot be told');
    expect(together.unknowns.map(({ what }) => what)).toEqual(['windscreen', 'distance']);
    const apart = compareTakes([unplanned({}), unplanned({ takeId: 't2', setupId: 's2', candidateId: 'LB' })], 'candidate');
    expect(apart.unknowns.map(({ what }) => what)).toEqual(['station', 'windscreen', 'distance', 'script']);
  });

  it('not known beside known is not known; known levels that differ spoil whatever else is not known', () => {
    const third = take({ takeId: 't3', candidateId: 'WH' }, { windscreen: NOT_KNOWN });
    expect(compareTakes([base, third], 'candidate')).toMatchObject({ fairness: 'cannot be told', unknowns: [{ what: 'windscreen', missing: [1] }] });
    expect(compareTakes([base, other({}), third, take({ takeId: 't4', candidateId: 'BM' }, { windscreen: 'foam' })], 'candidate').fairness).toBe('not fair');
  });

  it('what is known to differ is not fair, whatever else is unknown', () => {
    expect(compareTakes([base, take({ takeId: 't2', candidateId: 'LB', noiseDba: null }, { windscreen: 'foam' })], 'candidate').fairness).toBe('not fair');
  });
});

describe('the nearest fair pair', () => {
  const foamLb = take({ takeId: 't2', candidateId: 'LB' }, { windscreen: 'foam' });
  const furLb = take({ takeId: 't3', candidateId: 'LB' });
  const farLb = take({ takeId: 't4', candidateId: 'LB' }, { distance: '40' });

  it('keeps the first and swaps the other', () => {
    expect(nearestFair([base, foamLb], [base, foamLb, furLb, farLb], 'candidate')?.map((each) => each.takeId)).toEqual(['t1', 't3']);
  });

  it('keeps the second where only that one has a partner', () => {
    const foamQo = take({ takeId: 't5' }, { windscreen: 'foam' });
    expect(nearestFair([base, foamLb], [base, foamLb, foamQo, farLb], 'candidate')?.map((each) => each.takeId)).toEqual(['t5', 't2']);
  });

  it('swaps both where neither has a partner, and says so when there is none at all', () => {
    const farQo = take({ takeId: 't6' }, { distance: '40' });
    expect(nearestFair([base, foamLb], [base, foamLb, farLb, farQo], 'candidate')?.map((each) => each.takeId)).toEqual(['t6', 't4']);
    expect(nearestFair([base, foamLb], [base, foamLb], 'candidate')).toBeNull();
  });
});
