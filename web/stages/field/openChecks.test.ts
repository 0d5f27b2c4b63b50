import { type Chain, chainDraftSchema, NO_SETTINGS } from '@marvet/core/domain/chain';
import { type Item, itemDraftSchema } from '@marvet/core/domain/item';
import { describe, expect, it } from 'vitest';
import { openChecks } from './openChecks.ts';

const transmitter: Item = { ...itemDraftSchema.parse({ kind: 'transmitter', name: 'tx', batteryType: 'AA', batteryCount: 2 }), id: 'tx' };
const items = new Map([[transmitter.id, transmitter]]);
const chainOf = (id: string, candidate = true): Chain => ({
  ...chainDraftSchema.parse({ name: id, candidate, tape: { kind: 0, letters: 'AA' }, links: [] }),
  links: [{ itemId: 'tx', settings: NO_SETTINGS }],
  id,
  trialId: 'trial',
});
const chains = ['a', 'b', 'c'].map((id) => chainOf(id));
const chargedOf = (candidateIds: string[], ticked: string[] = []) =>
  openChecks(chains, candidateIds, items, 60, new Set(ticked)).filter((check) => check.text.startsWith('charged'));

describe('what of the pre-flight is open before a take', () => {
  it('names the unit that is in the take, not the first of its model', () => {
    expect(chargedOf(['c']).map((check) => check.unit)).toEqual(['tx, unit 3']);
  });

  it('is not closed by a tick for another unit of the model', () => {
    const [first] = chargedOf(['a']);
    expect(chargedOf(['c'], [first?.key ?? ''])).toHaveLength(1);
    const [own] = chargedOf(['c']);
    expect(chargedOf(['c'], [own?.key ?? ''])).toEqual([]);
  });

  it('counts no chain that is only kept for reference', () => {
    expect(openChecks([chainOf('old', false), ...chains], ['a'], items, 60, new Set()).find((check) => check.text.startsWith('charged'))?.unit).toBe('tx, unit 1');
  });
});
