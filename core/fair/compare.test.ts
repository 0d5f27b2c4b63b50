import { describe, expect, it } from 'vitest';
import { type Compared, compareTakes, nearestFair } from './compare.ts';

const base: Compared = {
  takeId: 't1',
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
    expect(compareTakes([base, take({ candidateId: 'LB' })], 'candidate')).toMatchObject({ fair: true, differences: [{ what: 'candidate', spoils: false }] });
  });

  it.each([
    ['another windscreen', take({ candidateId: 'LB' }, { windscreen: 'foam' }), 'windscreen'],
    ['another control', take({ candidateId: 'LB', controls: [{ name: 'Talker', value: 'Netmaker' }] }), 'Talker'],
    ['a control that was not noted', take({ candidateId: 'LB', controls: [] }), 'Talker'],
    ['more wind', take({ candidateId: 'LB', windMs: 5 }), 'wind'],
    ['more noise', take({ candidateId: 'LB', noiseDba: 66 }), 'noise'],
  ])('%s spoils it', (_name, other, what) => {
    const { fair, differences } = compareTakes([base, other], 'candidate');
    expect(fair).toBe(false);
    expect(differences.filter((difference) => difference.spoils).map((difference) => difference.what)).toEqual([what]);
  });

  it('a candidate that is not under test spoils it', () => {
    expect(compareTakes([base, take({ candidateId: 'LB' }, { distance: '40' })], 'distance').fair).toBe(false);
    expect(compareTakes([base, take({}, { distance: '40' })], 'distance').fair).toBe(true);
  });

  it('gain of another candidate is told but matched; gain of the same candidate spoils', () => {
    const gained = (candidateId: string, recorder: number) => take({ candidateId, gains: { recorder } });
    expect(compareTakes([gained('QO', 30), gained('LB', 36)], 'candidate')).toMatchObject({ fair: true, differences: [{ kind: 'factor' }, { kind: 'gain', spoils: false }] });
    const same = compareTakes([gained('QO', 30), take({ gains: { recorder: 36 } }, { distance: '40' })], 'distance');
    expect(same.fair).toBe(false);
  });

  it('tells when takes lie half an hour apart', () => {
    expect(compareTakes([base, take({ candidateId: 'LB', startedAtMs: 45 * 60_000 })], 'candidate').differences.at(-1)).toMatchObject({
      kind: 'time',
      values: ['45 min apart'],
      spoils: false,
    });
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
