import { describe, expect, it } from 'vitest';
import { chainDraftSchema } from '../../domain/chain.ts';
import { type Item, itemDraftSchema } from '../../domain/item.ts';
import { placementDraftSchema } from '../../domain/placement.ts';
import { roleSchema } from '../../domain/trial.ts';
import { id, measured, take } from '../../testing/verdictInput.ts';
import type { VerdictRow } from '../verdict.ts';
import type { Allocation, GearProblem, Wish } from './gear.ts';
import { type GearFrom, gearProblem } from './gearProblem.ts';
import { asksText } from './roleAsks.ts';
import { besideTexts, conflictTexts, unsureTexts, wishText } from './sayAllocation.ts';

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
  cells: [{ criterionId: id('5'), value, count: 1, coverage: 1, sameConditions: true, reckoned: 0, reckonedBy: null, desirability: 0.5 }],
  score: 50,
  lowest: 40,
  highest: 60,
  known: 1,
  missing: [],
  unlike: [],
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
    expect(left).toEqual([{ candidateId: id('c'), name: 'c', why: 'ruled out' }]);
    expect(parts.map(({ name, price, serves, atHand }) => [name, price, serves, atHand])).toEqual([
      ['mic', 100, 1, 2],
      ['fur', 20, 1, 0],
      ['tx', 340, 1, 0],
      ['rx', null, 2, 0],
      ['loose', 50, 1, 0],
    ]);
    const unsure = (problem: GearProblem) => unsureTexts({ problem, best: null });
    expect(unsure(gearProblem(from()))).toEqual(['Not given out: c (ruled out).', 'No price in EUR, so that only what is at hand is given out: rx.']);
    expect(unsure(gearProblem(from({ chains: [chain('a', []), chain('b', [])] })))[0]).toBe('Not given out: a (no parts in Kit), b (no parts in Kit) and c (ruled out).');
    expect(unsure(gearProblem(from({ rows: [row('b', 25)], chains: [chain('b', ['loose'])] })))).toEqual([]);
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
    expect(conflictTexts({ problem, conflict: [problem.wishes[0]!, problem.wishes[5]!], leastCost: 2500 }, [criterion])).toEqual([
      'No share-out meets these 2 wishes together: gear for Leads (2) and to spend at most 2,000 EUR. Give up any one of them, and the rest of these can be met.',
      'Everything else that is asked for costs at least 2,500 EUR.',
    ]);
    const rough = unsureTexts({ problem: gearProblem(from({ trial: { roles: [{ ...role, spares: 0, least: [] }], budget: null } })), best: null });
    expect(rough).toContain('Leads is said to break things, and has neither a spare nor a least mark for how it is built.');
  });

  it('says why a conflict cannot be met, and says it of no other one', () => {
    const problem = gearProblem(from());
    const [people, spares, least] = problem.wishes as [Wish, Wish, Wish];
    const why = (conflict: Wish[], change: Partial<GearProblem> = {}) => conflictTexts({ problem: { ...problem, ...change }, conflict, leastCost: null }, [criterion]).join(' ');
    expect(why([people, { ...least, met: [] } as Wish])).toContain('No candidate that may be given out meets it.');
    // Each is met by somebody, not by the same: that is no fault of one of them.
    expect(why([people, least, { kind: 'lock', roleId: role.id, met: [id('b')] }])).toMatch(/Give up any one of them, and the rest of these can be met\.$/);
    // People and their spares that do not suffice are no wish that a candidate fails.
    expect(why([people, spares])).not.toContain('No candidate');
    expect(why([people])).toContain('What is at hand is not enough for it, and the rest has no price.');
    expect(why([people], { kinds: [] })).toContain('No candidate may be given out.');
    expect(why([])).toBe('');
  });

  it('names who is given out although a limit was not tested, and only who is given out', () => {
    const problem = gearProblem(from({ rows: [row('a', 35, { untested: ['x'] }), row('b', 25, { untested: ['x'] })] }));
    const share = { points: 1, cost: 1, given: [{ roleId: role.id, kinds: [{ candidateId: id('a'), count: 1, spares: 0 }] }], buy: [], fromHand: [] };
    expect(unsureTexts({ problem, best: share })).toContain('Given out though a limit was not tested on it: a.');
    expect(unsureTexts({ problem: gearProblem(from()), best: share }).join(' ')).not.toContain('not tested');
  });

  it('tells what more money buys only where it buys something', () => {
    const problem = gearProblem(from());
    const share = (points: number, cost: number, candidateId: string) => ({
      points,
      cost,
      given: [{ roleId: role.id, kinds: [{ candidateId: id(candidateId), count: 2, spares: 1 }] }],
      buy: [],
      fromHand: [],
    });
    const texts = (change: Partial<Allocation>) =>
      besideTexts({ problem, best: share(60, 1900, 'a'), second: null, next: null, step: null, conflict: [], leastCost: null, ...change });
    expect(texts({})).toEqual([
      'There is no other way to share out that meets the wishes.',
      '100 EUR more would buy nothing better. No money would bring half a point more: it is not what limits it.',
    ]);
    expect(texts({ second: share(55, 1500, 'b'), next: share(70, 2050, 'b') })).toEqual([
      'Second best: Leads 2 × b: 55.0 points, 1,500 EUR.',
      '100 EUR more would buy: Leads 2 × b: 70.0 points, 2,050 EUR.',
    ]);
    expect(texts({ step: share(70, 2500, 'b') })[1]).toBe(
      '100 EUR more would buy nothing better. The next step up costs 500 EUR more than the budget: Leads 2 × b: 70.0 points, 2,500 EUR.',
    );
    expect(besideTexts({ problem: { ...problem, budget: null }, best: share(60, 1900, 'a'), second: null, next: null, step: null, conflict: [], leastCost: null })).toHaveLength(1);
  });
});
