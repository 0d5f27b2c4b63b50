import { describe, expect, it } from 'vitest';
import { measured } from '../../testing/verdictInput.ts';
import type { Difference, Effects, TermEffect } from './effects.ts';
import { effectsText, effectUnit, togetherText, untoldText } from './sayEffects.ts';

const criterion = measured('noise.snrDb');
const words = { term: (term: string) => `${term.charAt(0).toUpperCase()}${term.slice(1)}`, level: (_: string, level: string) => level };
const difference = (estimate: number, low: number | null, high: number | null): Difference => ({ levels: ['x', 'y'], estimate, low, high });
const term = (kind: TermEffect['term'], most: Difference | null, rest: Partial<TermEffect> = {}): TermEffect => ({
  term: kind,
  most,
  levels: [],
  share: 0.1,
  aliasedWith: [],
  ...rest,
});
const effects = (...terms: TermEffect[]): Effects => ({ criterionId: 'k', terms, observations: 20, takes: 8, leftOut: 0, explained: 0.83, strange: [], together: [] });

describe('what made the difference, in a sentence', () => {
  it('names what is shown, the largest first, with its interval', () => {
    expect(effectsText(effects(term('candidate', difference(3, 1, 5)), term('distance', difference(14, 12, 16)), term('script', difference(2, -1, 5))), criterion, words)).toBe(
      'Distance made 14 dB (12 to 16), candidate 3 dB (1 to 5). What was varied explains 83 % of what the values differ by.',
    );
  });

  it('says that no difference between the candidates is shown where their interval reaches nought', () => {
    expect(effectsText(effects(term('candidate', difference(2, -1, 5)), term('distance', difference(14, 12, 16))), criterion, words)).toBe(
      'Distance made 14 dB (12 to 16). Between the candidates no difference is shown: 2 dB (−1 to 5) at most. What was varied explains 83 % of what the values differ by.',
    );
  });

  it('claims nothing where nothing is shown, nor where there are too few takes to say how sure', () => {
    for (const most of [difference(14, -2, 30), difference(14, null, null)])
      expect(effectsText(effects(term('distance', most)), criterion, words)).toBe(
        'Nothing that was varied is shown to have made a difference. What was varied explains 83 % of what the values differ by.',
      );
  });

  it('tells a difference of two levels in decibels, and of two loudnesses in loudness units', () => {
    expect(['noise.practicalFloorDbfsA', 'loudness.integratedLufs', 'noise.snrDb'].map((measureId) => effectUnit({ kind: 'measured', measureId: measureId as never }))).toEqual([
      'dB',
      'LU',
      'dB',
    ]);
    expect(effectUnit({ kind: 'listened', measureId: null })).toBe('points');
  });

  it('says of what was never changed alone that it cannot be told, and with what', () => {
    expect(untoldText(term('placement', null, { aliasedWith: ['candidate'] }), words)).toBe('never changed without candidate: which of them it was cannot be told');
    expect(untoldText(term('rig', difference(1, 0, 2), { aliasedWith: ['placement'] }), words)).toBe('in part never changed without placement');
    expect(untoldText(term('distance', difference(1, 0, 2)), words)).toBeNull();
  });
});

describe('whether two factors work on each other, in a sentence', () => {
  const together = (low: number | null, high: number | null) => ({
    terms: ['candidate', 'windscreen'] as ['candidate', 'windscreen'],
    most: { levels: ['osier', 'heron'] as [string, string], at: ['bare', 'fur'] as [string, string], estimate: 5, low, high },
    share: 0.1,
  });
  it.each([
    ['shown', together(3, 7), 'From fur to bare, osier gains 5 dB (3 to 7) on heron.'],
    ['not shown', together(-1, 11), 'No sign that candidate and windscreen work on each other: at most, from fur to bare, osier gains 5 dB (−1 to 11) on heron.'],
    ['of too few takes', together(null, null), 'From fur to bare, osier gains 5 dB on heron, of too few takes to say how sure.'],
    ['not to be told', { ...together(1, 2), most: null }, 'Whether candidate and windscreen work on each other cannot be told: too few of their levels met.'],
  ])('%s', (_what, told, text) => {
    expect(togetherText(told, criterion, words)).toBe(text);
  });
});
