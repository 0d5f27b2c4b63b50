import { describe, expect, it } from 'vitest';
import { chainDraftSchema } from '../../domain/chain.ts';
import { type Item, itemDraftSchema } from '../../domain/item.ts';
import { placementDraftSchema } from '../../domain/placement.ts';
import { roleSchema } from '../../domain/trial.ts';
import { id, measured, take } from '../../testing/verdictInput.ts';
import type { VerdictRow } from '../verdict.ts';
import { type GearFrom, gearProblem } from './gearProblem.ts';
import { asksText } from './roleAsks.ts';
import { conflictTexts, unsureTexts, wishText } from './sayAllocation.ts';

const item = (key: string, draft: object): Item => ({ ...itemDraftSchema.parse({ name: key, ...draft }), id: id(key) });
const items = [
  item('mic', { kind: 'microphone', price: 100, owned: 2, outputConnector: 'locking mini-jack' }),
  item('loose', { kind: 'microphone', price: 50, outputConnector: 'mini-jack, 3-pole' }),
  item('fur', { kind: 'windscreen', price: 20 }),
  item('tx', { kind: 'transmitter', price: 300, adapterPrice: 40, inputConnector: 'locking mini-jack', outputConnector: 'radio' }),
  item('rx', { kind: 'receiver', price: 400, channels: 2, currency: 'USD', inputConnector: 'radio', outputConnector: 'XLR, 3-pin' }),
];
const chain = (key: string, links: string[], placement = '') => ({
  ...chainDraftSchema.parse({ name: key, tape: { kind: 0, letters: 'AA' }, rig: { placement } }),
  links: links.map((link) => ({ itemId: id(link), settings: {} as never })),
  id: id(key),
  trialId: 't',
});
const row = (key: string, value: number | null, change: Partial<VerdictRow> = {}): VerdictRow => ({
  candidate: { id: id(key), name: key, price: null, currency: null },
  cells: [{ criterionId: id('5'), value, count: 1, coverage: 1, sameConditions: true, desirability: 0.5 }],
  score: 50,
  lowest: 40,
  highest: 60,
  known: 1,
  missing: [],
  untested: [],
  ruledOut: [],
  rank: 1,
  beatenBy: [],
  ...change,
});
const criterion = { ...measured('noise.snrDb'), id: id('5'), name: 'Voice over noise' };
const role = roleSchema.parse({
  id: id('7'),
  name: 'Leads',
  count: 2,
  spares: 1,
  importance: 3,
  mustLock: true,
  mustHide: true,
  least: [{ criterionId: id('5'), limit: 30 }],
  robustness: 'rough',
});
const from = (change: Partial<GearFrom> = {}): GearFrom => ({
  trial: { roles: [role], budget: { amount: 2000, currency: 'EUR' } },
  criteria: [criterion],
  rows: [row('a', 35), row('b', 25), row('c', 40, { ruledOut: [{ criterionId: 'x', reason: '', value: 0, conditionKey: null }] })],
  chains: [chain('a', ['mic', 'fur', 'tx', 'rx'], 'breastbone'), chain('b', ['loose', 'tx', 'rx']), chain('c', ['mic'])],
  items,
  placements: [],
  takes: [],
  ...change,
});

describe('what is shared out', () => {
  it('takes parts with what is sold apart, at hand and shared, and none whose price is in other money', () => {
    const { parts, kinds, left, budget } = gearProblem(from());
    expect(budget).toBe(2000);
    expect(kinds.map(({ candidateId, points }) => [candidateId, points])).toEqual([
      [id('a'), 40],
      [id('b'), 40],
    ]);
    expect(left).toEqual([{ candidateId: id('c'), why: 'ruled out' }]);
    expect(parts.map(({ name, price, serves, atHand }) => [name, price, serves, atHand])).toEqual([
      ['mic', 100, 1, 2],
      ['fur', 20, 1, 0],
      ['tx', 340, 1, 0],
      ['rx', null, 2, 0],
      ['loose', 50, 1, 0],
    ]);
    expect(unsureTexts({ problem: gearProblem(from()) })).toEqual(['No price in EUR, so that only what is at hand is given out: rx.']);
  });

  it('knows who meets what a role asks: plugs that are known to lock, with a cover between; values reached; worn ones', () => {
    const { wishes } = gearProblem(from());
    expect(wishes.map((wish) => [wish.kind, 'met' in wish ? wish.met : null])).toEqual([
      ['people', null],
      ['spares', null],
      ['least', [id('a')]],
      ['lock', [id('a')]],
      ['hide', [id('a')]],
      ['budget', null],
    ]);
    // Where less is better, the limit is a most; a value that is not known meets nothing.
    const lessIsBetter = gearProblem(from({ criteria: [{ ...criterion, best: 0, worst: 40 }], rows: [row('a', 35), row('b', null)] }));
    expect(lessIsBetter.wishes.find(({ kind }) => kind === 'least')).toMatchObject({ met: [] });
  });

  it('takes for worn what was recorded on a body, and not what stood on a pole', () => {
    const placement = (key: string, on: 'body' | 'boom') => ({ ...placementDraftSchema.parse({ name: key, on }), id: id(key), trialId: 't' }) as never;
    const worn = { ...take(1, 'near', ['b']), condition: { station: 's', windscreen: 'bare', distance: 'near', script: 'x', placement: id('4') } };
    const found = (on: 'body' | 'boom') => gearProblem(from({ placements: [placement('4', on)], takes: [worn] })).wishes.find(({ kind }) => kind === 'hide');
    expect(found('body')).toMatchObject({ met: [id('a'), id('b')] });
    expect(found('boom')).toMatchObject({ met: [id('a')] });
  });

  it('says what is asked in the words of the trade', () => {
    expect(asksText(role, [criterion])).toBe('counts 3 times, 1 to spare, plugs that lock, worn or hidden, Voice over noise at least 30 dB');
    expect(asksText({ ...role, importance: 1, spares: 0, mustLock: false, mustHide: false, least: [] }, [criterion])).toBe('any candidate will do');
    const problem = gearProblem(from());
    expect(problem.wishes.map((wish) => wishText(wish, problem, [criterion]))).toEqual([
      'gear for Leads (2)',
      '1 to spare for Leads',
      'Voice over noise at least 30 dB for Leads',
      'plugs that lock for Leads',
      'worn or hidden for Leads',
      'to spend at most 2,000 EUR',
    ]);
    const none = { problem, best: null, second: null, next: null, step: null };
    expect(conflictTexts({ ...none, conflict: [problem.wishes[0]!, problem.wishes[5]!], leastCost: 2500 }, [criterion])).toEqual([
      'No share-out meets these 2 wishes together: gear for Leads (2) and to spend at most 2,000 EUR. Give up any one of them, and the rest of these can be met.',
      'Everything else that is asked for costs at least 2,500 EUR.',
    ]);
    expect(unsureTexts({ problem: gearProblem(from({ trial: { roles: [{ ...role, spares: 0, least: [] }], budget: null } })) })[1]).toBe(
      'Leads is said to break things, and has neither a spare nor a least mark for how it is built.',
    );
  });
});
