import { describe, expect, it } from 'vitest';
import type { HeardChoice } from '../../domain/round.ts';
import { preferred, told } from './doubt.ts';
import { betterOutcome, type HeardBy, isRight, toldOutcome } from './outcome.ts';
import { foreseenText, preferredText, toldText } from './sayDoubt.ts';

const choice = (recordingIds: string[], letter: string, criterionId: string | null = null): HeardChoice => ({ recordingIds, picks: [{ criterionId, letter }] });
const many = (count: number, each: HeardChoice) => Array.from({ length: count }, () => each);
const listener = (name: string, choices: HeardChoice[]): HeardBy => ({ id: name, name, choices });

describe('an answer with a right one', () => {
  it.each([
    ['same', ['p', 'q', 'p'], 'A', true],
    ['same', ['p', 'q', 'p'], 'B', false],
    ['same', ['q', 'p', 'p'], 'B', true],
    ['odd', ['p', 'q', 'p'], 'B', true],
    ['odd', ['p', 'q', 'p'], 'A', false],
    ['odd', ['p', 'q', 'q'], 'A', true],
    ['odd', ['p', 'p', 'q'], 'C', true],
  ] as const)('%s of %j, answered %s: %s', (kind, ids, letter, right) => expect(isRight(kind, choice([...ids], letter))).toBe(right));

  it('of several listeners all together, and each held against their number', () => {
    const [right, wrong] = [choice(['p', 'q', 'p'], 'A'), choice(['p', 'q', 'p'], 'B')];
    const { all, each } = toldOutcome('same', [listener('Orla', [...many(12, right), ...many(4, wrong)]), listener('Tam', [...many(8, right), ...many(8, wrong)])]);
    expect(all).toMatchObject({ right: 20, tries: 32 });
    // Alone 12 of 16 would be told apart; of two listeners one is as lucky in one test of thirteen.
    expect(each[0]).toMatchObject({ told: { apart: true }, apart: false });
    expect(each[0]!.doubt).toBeCloseTo(2 * each[0]!.told.byGuessing, 9);
    expect(each[1]).toMatchObject({ told: { right: 8, tries: 16 }, apart: false });
  });
});

describe('which is better', () => {
  it('counts what was heard, whichever letter it had, by criterion and by listener', () => {
    const [pq, qp] = [
      ['p', 'q'],
      ['q', 'p'],
    ] as [string[], string[]];
    const orla = listener('Orla', [...many(5, choice(pq, 'A', 'clear')), ...many(5, choice(qp, 'B', 'clear')), choice(pq, 'B', 'natural')]);
    const tam = listener('Tam', [...many(4, choice(pq, 'B', 'clear')), ...many(2, choice(qp, 'B', 'clear'))]);
    const [clear, natural] = betterOutcome(['p', 'q'], ['clear', 'natural'], [orla, tam]);
    expect(clear!.pairs[0]).toMatchObject({ ids: ['p', 'q'], first: 12, second: 4, listeners: [1, 1] });
    expect(natural!.pairs[0]).toMatchObject({ first: 0, second: 1 });
  });

  it('ranks three by their strength, and says that there is no measure where one was always chosen', () => {
    const choices = [
      ...many(3, choice(['p', 'q'], 'A', 'x')),
      choice(['p', 'q'], 'B', 'x'),
      ...many(3, choice(['q', 'r'], 'A', 'x')),
      choice(['q', 'r'], 'B', 'x'),
      ...many(3, choice(['p', 'r'], 'A', 'x')),
    ];
    const [found] = betterOutcome(['r', 'q', 'p'], ['x'], [listener('Orla', choices)]);
    expect(found!.ranks!.map(({ recordingId }) => recordingId)).toEqual(['p', 'q', 'r']);
    const [always] = betterOutcome(['p', 'q'], ['x'], [listener('Orla', many(4, choice(['p', 'q'], 'A', 'x')))]);
    expect(always!.ranks).toBeNull();
  });
});

describe('what is said', () => {
  it('is "told apart" from the right answer on that the table asks for, and never before', () => {
    expect(toldText(told(12, 16, 0.5))).toMatch(/^Told apart: 12 of 16 right, and who guesses gets as many in 3\.8 % of tests\. The difference was truly heard in 50 %/);
    expect(toldText(told(11, 16, 0.5))).toMatch(
      /^Cannot be told apart: 11 of 16 right, .* 12 would have been needed\. A difference heard in \d+ % of comparisons or more would have been found/,
    );
    expect(toldText(told(11, 16, 0.5))).not.toContain('wrong way round');
  });

  it('is "the wrong way round" only where so few are right that guessing hardly gets there', () => {
    expect(toldText(told(2, 16, 0.5))).toContain('named the wrong way round');
    expect(toldText(told(4, 16, 0.5))).not.toContain('named the wrong way round');
  });

  it('is "too few" where nothing could be proven, and nothing of nothing', () => {
    expect(toldText(told(4, 4, 0.5))).toContain('4 of 4 right: too few comparisons to say anything; guessing gets as many in 6.2 % of tests.');
    expect(toldText(told(2, 4, 0.5))).toContain('guessing gets as many in 69 % of tests');
    expect(toldText(told(0, 0, 0.5))).toBe('Nothing was answered.');
    expect(preferredText(preferred(0, 0), 1, ['p', 'q'])).toBe('Nothing was chosen.');
    expect(preferredText(preferred(3, 0), 0.25, ['p', 'q'])).toContain('too few');
  });

  it('names who is preferred only where it is more than chance, and the share on their side', () => {
    expect(preferredText(preferred(2, 14), preferred(2, 14).byChance, ['Osier', 'Heron'])).toMatch(/^Heron is preferred: 14 of 16 choices for Heron \(62 % to 98 %\)\./);
    expect(preferredText(preferred(12, 4), preferred(12, 4).byChance, ['Osier', 'Heron'])).toMatch(/^No preference is shown: 12 of 16 choices for Osier/);
    // What would be clear alone is not among many pairs.
    expect(preferredText(preferred(13, 3), 0.2, ['Osier', 'Heron'])).toMatch(/^No preference is shown/);
  });

  it('is foreseen: what proves nothing, and what a test finds', () => {
    expect(foreseenText('odd', 2)).toContain('prove nothing');
    expect(foreseenText('odd', 18)).toMatch(/^Of 18 comparisons by one listener 10 must be right/);
    expect(foreseenText('better', 12)).toMatch(/10 must go one way/);
  });
});
