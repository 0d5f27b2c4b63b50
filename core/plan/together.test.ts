import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_SETTINGS } from '../domain/chain.ts';
import { newId } from '../domain/identity.ts';
import { type Item, itemDraftSchema } from '../domain/item.ts';
import { togetherLimitsSchema } from '../domain/plan.ts';
import { isWorn, togetherGroups, togetherSums } from './together.ts';

const item = (name: string, change: Partial<Item>): Item => ({ ...itemDraftSchema.parse({ kind: 'microphone', name }), id: name, ...change });
const items = new Map(
  [
    item('lav', { owned: 4 }),
    item('tx', { kind: 'transmitter', owned: 1 }),
    item('tx2', { kind: 'transmitter', owned: 4 }),
    item('rec', { kind: 'recorder', owned: 1 }),
    item('boom', { owned: 1 }),
  ].map((each) => [each.id, each]),
);
const chain = (name: string, ids: string[], split: { chainId: string; links: number } | null = null) => ({
  id: newId(),
  name,
  links: ids.map((itemId) => ({ itemId, settings: NO_SETTINGS })),
  split,
});
const limits = (change: object = {}) => togetherLimitsSchema.parse(change);

describe('which candidates share a take', () => {
  const worn = ['A', 'B', 'C'].map((name) => chain(name, ['lav', 'tx2', 'rec']));
  const boom = chain('Boom', ['boom', 'rec']);

  it('all of them where tracks, chest and units allow it; a recorder serves several', () => {
    expect(togetherGroups([...worn, boom], items, limits()).groups).toEqual([[...worn, boom].map((each) => each.id)]);
  });

  it('no more worn ones than a chest has room for; a boom takes none', () => {
    expect([...worn, boom].map((each) => isWorn(each, items))).toEqual([true, true, true, false]);
    const { groups } = togetherGroups([...worn, boom], items, limits({ onChest: 2 }));
    expect(groups.map((group) => group.length)).toEqual([3, 1]);
    expect(groups[0]).toContain(boom.id);
  });

  it('no more than the recorder has tracks', () => {
    expect(togetherGroups([...worn, boom], items, limits({ tracks: 2 })).groups.map((group) => group.length)).toEqual([2, 2]);
  });

  it('not two that need the one transmitter there is, and says why', () => {
    const [a, b] = [chain('A', ['lav', 'tx', 'rec']), chain('B', ['boom', 'tx', 'rec'])];
    const { groups, bars } = togetherGroups([a, b], items, limits());
    expect(groups).toEqual([[a.id], [b.id]]);
    expect(bars.map((bar) => bar.why)).toEqual(['A and B both need tx, of which there is one']);
  });

  it('not two that would disturb each other', () => {
    const [a, b, c] = worn as [(typeof worn)[0], (typeof worn)[0], (typeof worn)[0]];
    const { groups } = togetherGroups(worn, items, limits({ apart: [[a.id, b.id]] }));
    expect(groups.some((group) => group.includes(a.id) && group.includes(b.id))).toBe(false);
    expect(groups.flat().sort()).toEqual([a.id, b.id, c.id].sort());
  });

  it('a split shares its microphone with the chain that it is of', () => {
    const first = chain('To the recorder', ['boom', 'rec']);
    const second = chain('To the camera', ['boom', 'tx'], { chainId: first.id, links: 1 });
    expect(togetherGroups([first, second], items, limits()).groups).toEqual([[first.id, second.id]]);
  });

  it('a split takes no more room on the chest', () => {
    const first = chain('Worn', ['lav', 'tx2', 'rec']);
    const second = chain('Worn, to the camera', ['lav', 'tx2', 'rec'], { chainId: first.id, links: 2 });
    expect(togetherGroups([first, second], items, limits({ onChest: 1 })).groups).toHaveLength(1);
  });

  it('whatever the limits, each candidate is in one take, and no take breaks them', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 4 }), (count, tracks, onChest) => {
        const chains = Array.from({ length: count }, (_, index) => chain(`c${index}`, index % 3 === 0 ? ['boom', 'rec'] : ['lav', 'tx2', 'rec']));
        const { groups } = togetherGroups(chains, items, limits({ tracks, onChest }));
        expect(groups.flat().sort()).toEqual(chains.map((each) => each.id).sort());
        for (const group of groups) {
          expect(group.length).toBeLessThanOrEqual(tracks);
          expect(group.filter((id) => isWorn(chains.find((each) => each.id === id)!, items)).length).toBeLessThanOrEqual(onChest);
          expect(group.filter((id) => !isWorn(chains.find((each) => each.id === id)!, items)).length).toBeLessThanOrEqual(1);
        }
      }),
    );
  });

  it('says what sharing saves, and who is only compared across takes', () => {
    expect(togetherSums([['a', 'b'], ['c']], 12)).toEqual({
      takesApart: 36,
      takesTogether: 24,
      apartPairs: [
        ['a', 'c'],
        ['b', 'c'],
      ],
    });
  });
});
