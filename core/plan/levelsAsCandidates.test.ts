import { describe, expect, it } from 'vitest';
import { type Chain, chainDraftSchema, NO_SETTINGS } from '../domain/chain.ts';
import { newId } from '../domain/identity.ts';
import { levelsAsCandidates, takesSaved } from './levelsAsCandidates.ts';

const chain = (name: string, letters: string, kind: number): Chain => ({
  ...chainDraftSchema.parse({ name, tape: { kind, letters }, links: [{ itemId: newId(), settings: NO_SETTINGS }], rig: { placement: 'somewhere', onSkin: true } }),
  id: newId(),
  trialId: newId(),
});
const levels = ['collar', 'breastbone'].map((label) => ({ id: label, label, value: null, ticked: true }));
const chains = [chain('Osier', 'OS', 0), chain('Heron', 'HE', 1)];

describe('levels recorded at one moment', () => {
  it('are candidates of their own, each with the gear of its chain and where it sits', () => {
    const made = levelsAsCandidates(chains, 'placement', levels);
    expect(made.map((draft) => [draft.name, draft.rig.placement, draft.rig.onSkin])).toEqual([
      ['Osier, collar', 'collar', true],
      ['Osier, breastbone', 'breastbone', true],
      ['Heron, collar', 'collar', true],
      ['Heron, breastbone', 'breastbone', true],
    ]);
    expect(made[1]?.links).toEqual(chains[0]?.links);
    for (const draft of made) expect(chainDraftSchema.parse(draft)).toEqual(draft);
  });

  it('carry tapes that nobody takes for each other', () => {
    const tapes = levelsAsCandidates(chains, 'placement', levels).map((draft) => draft.tape);
    expect(new Set(tapes.map((tape) => tape.letters)).size).toBe(4);
    expect(new Set(tapes.map((tape) => tape.kind)).size).toBe(4);
  });

  it('of a setting leave the rig as it is and say so in the remark', () => {
    const [first] = levelsAsCandidates(chains, 'processing', levels);
    expect(first).toMatchObject({ rig: { placement: 'somewhere' }, remark: 'processing: collar' });
  });

  it('save the takes that the others would have needed', () => {
    expect(takesSaved(12, 3)).toBe(8);
    expect(takesSaved(5, 2)).toBe(2);
  });
});
