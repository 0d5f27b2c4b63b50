import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_SETTINGS } from '../../domain/chain.ts';
import type { FaultTest } from '../../domain/faultSearch.ts';
import { type Item, itemDraftSchema } from '../../domain/item.ts';
import { searchState, triesFor } from './nextTest.ts';
import { suspectsOf } from './suspectsOf.ts';

const suspects = (count: number) => Array.from({ length: count }, (_, index) => ({ id: `s${index}`, name: `link ${index}`, instead: '' }));

/** Goes through a whole search for a guilty link, answering as it would sound. */
function searched(count: number, guiltyAt: number): { tests: FaultTest[]; found: string | undefined } {
  const tests: FaultTest[] = [];
  for (;;) {
    const state = searchState({ suspects: suspects(count), tests, seenShare: 1 });
    if (!state.next) return { tests, found: state.guilty?.id };
    const replacedIds = state.next.map((suspect) => suspect.id);
    tests.push({ replacedIds, heard: !replacedIds.includes(`s${guiltyAt}`) });
  }
}

describe('a search for the guilty link', () => {
  it('finds it in no more tests than halving needs, wherever it is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 40 }).chain((count) => fc.tuple(fc.constant(count), fc.nat(count - 1))),
        ([count, guiltyAt]) => {
          const { tests, found } = searched(count, guiltyAt);
          expect(found).toBe(`s${guiltyAt}`);
          expect(tests.length).toBeLessThanOrEqual(Math.ceil(Math.log2(count)));
        },
      ),
    );
  });

  it('of eight links takes exactly three tests, and says so from the start', () => {
    for (let guilty = 0; guilty < 8; guilty++) expect(searched(8, guilty).tests).toHaveLength(3);
    expect(searchState({ suspects: suspects(8), tests: [], seenShare: 1 })).toMatchObject({ testsLeft: 3, guilty: null, contradiction: false });
  });

  it('clears what was replaced when the fault is still heard, and the rest when it is not', () => {
    const left = (heard: boolean) => searchState({ suspects: suspects(4), tests: [{ replacedIds: ['s0', 's1'], heard }], seenShare: 1 }).left.map((suspect) => suspect.id);
    expect(left(true)).toEqual(['s2', 's3']);
    expect(left(false)).toEqual(['s0', 's1']);
  });

  it('says when answers contradict each other', () => {
    const tests = [
      { replacedIds: ['s0'], heard: true },
      { replacedIds: ['s1'], heard: true },
    ];
    expect(searchState({ suspects: suspects(2), tests, seenShare: 1 })).toMatchObject({ contradiction: true, next: null, guilty: null });
  });

  it.each([
    [1, 1],
    [0.5, 5],
    [0.25, 11],
    [0.1, 29],
  ])('a fault that shows in a share %f of tries is gone only after %i quiet ones', (share, tries) => {
    expect(triesFor(share)).toBe(tries);
    if (share < 1) {
      expect((1 - share) ** tries).toBeLessThanOrEqual(0.05);
      expect((1 - share) ** (tries - 1)).toBeGreaterThan(0.05);
    }
  });
});

describe('suspects of a chain', () => {
  const item = (id: string, change: Partial<Item>): [string, Item] => [id, { ...itemDraftSchema.parse({ kind: 'microphone', name: id }), id, ...change }];
  const items = new Map([item('mic', { powerNeeds: 'phantom 48 V' }), item('tx', { kind: 'transmitter' }), item('rec', { kind: 'recorder' })]);
  it('are its links in signal order, the feed, and a mic input that may be fed line level', () => {
    const links = ['mic', 'tx', 'gone', 'rec'].map((itemId) => ({ itemId, settings: { ...NO_SETTINGS, ...(itemId === 'rec' ? { lineLevel: 'mic' as const } : {}) } }));
    expect(suspectsOf({ links }, items).map((suspect) => suspect.name)).toEqual(['mic', 'phantom 48 V for mic', 'tx', 'rec', 'mic input of rec']);
  });
});
