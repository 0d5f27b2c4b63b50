import type { FactorKind } from '@marvet/core/domain/factor';
import type { Comparison, Difference, Unknown } from '@marvet/core/fair/compare';

/** What the sentence needs to know of the setups that are compared. */
export interface FairWords {
  /** How a level is called. */
  label(kind: FactorKind, levelId: string): string;
  /** Two letters of a candidate. */
  letters(candidateId: string): string;
  /** Slate of the setup at a place. */
  slate(place: number): string;
}

/** Whether setups may be compared: an answer in a word or two, and why. */
export interface FairSentence {
  answer: string;
  why: string;
}

const list = (words: readonly string[]) => (words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`);

/** Fair, not fair or not to be told, in the words of a mixer, with what differs or what is to be filled in. */
export function fairSentence({ fairness, differences, unknowns }: Comparison, underTest: FactorKind, words: FairWords): FairSentence {
  if (fairness === 'not fair') {
    const spoiling = differences.filter((difference) => difference.spoils);
    const what = list(spoiling.map((difference) => difference.what));
    const values = spoiling.slice(0, 2).map((difference) => valuesText(difference, words));
    return { answer: `Not fair: ${what} ${spoiling.length === 1 ? 'differs' : 'differ'}.`, why: `${values.join('; ')}.` };
  }
  if (fairness === 'cannot be told') return { answer: 'Whether it is fair cannot be told.', why: unknownsText(unknowns, words) };
  const told = differences.filter((difference) => difference.what !== underTest);
  const alone = differences.some((difference) => difference.what === underTest) ? `Only the ${underTest} differs` : `The ${underTest} is the same, too`;
  const also = told.map((difference) => (difference.kind === 'time' ? `takes are ${difference.values[0]}` : `${difference.what} ${list(difference.values)}, matched in level`));
  return { answer: 'Fair.', why: `${[alone, ...also].join('; ')}.` };
}

/** What can be filled in, and what nobody wrote down where a plan was missing. */
function unknownsText(unknowns: readonly Unknown[], words: FairWords): string {
  const unplanned = unknowns.filter((unknown) => unknown.unplanned).map(({ what }) => what);
  const open = unknowns.filter((unknown) => !unknown.unplanned).map((unknown) => unknownText(unknown, words));
  return [unplanned.length > 0 && `Not known: ${list(unplanned)}.`, open.length > 0 && `Fill in: ${open.join('; ')}.`].filter(Boolean).join(' ');
}

function unknownText({ kind, what, missing }: Unknown, words: FairWords): string {
  const takes = [...new Set(missing.map((place) => words.slate(place)))];
  const where = `${takes.length === 1 ? 'take' : 'takes'} ${list(takes)}`;
  if (kind === 'conditions') return `${what} at ${where}`;
  return kind === 'factor' ? `which ${what} ${where} had` : `${what} of ${where}`;
}

function valuesText(difference: Difference, words: FairWords): string {
  if (difference.kind !== 'factor') return list(difference.values);
  if (difference.what === 'candidate') return list(difference.values.map((id) => words.letters(id)));
  return list([...new Set(difference.values)].map((id) => (id === 'not noted' ? 'not said' : words.label(difference.what as FactorKind, id))));
}
