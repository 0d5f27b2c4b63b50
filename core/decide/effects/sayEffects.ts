import type { Criterion } from '../../domain/criterion.ts';
import { MEASURES } from '../../measure/catalogue.ts';
import { criterionUnit } from '../verdictCsv.ts';
import type { Difference, Effects, TermEffect } from './effects.ts';
import type { TermKind } from './observations.ts';
import type { Together } from './together.ts';

/** How the terms of a trial, and their levels, are called. */
export interface EffectWords {
  term(term: TermKind): string;
  level(term: TermKind, level: string): string;
}

/** Digits that a difference deserves. */
export const effectDigits = ({ measureId }: Pick<Criterion, 'measureId'>) => (measureId ? MEASURES[measureId].digits : 1);

/** Unit of a difference: two levels against full scale differ by decibels, two loudnesses by loudness units. */
export function effectUnit(criterion: Pick<Criterion, 'kind' | 'measureId'>): string {
  const unit = criterionUnit(criterion);
  return unit.startsWith('dB') ? 'dB' : unit === 'LUFS' ? 'LU' : unit;
}

/** A difference in the unit of its criterion, with its interval. */
export function differenceText({ estimate, low, high }: Pick<Difference, 'estimate' | 'low' | 'high'>, criterion: Criterion): string {
  const number = (value: number) => value.toFixed(effectDigits(criterion)).replace('-', '−');
  return `${number(estimate)} ${effectUnit(criterion)}${low === null || high === null ? '' : ` (${number(low)} to ${number(high)})`}`;
}

/** Whether a difference is shown: its interval does not reach nought. */
export const isShown = (most: Pick<Difference, 'low'> | null): boolean => most !== null && most.low !== null && most.low > 0;

/** What made the difference, as a sentence: what is shown, the largest first, and how much the model leaves open. */
export function effectsText({ terms, explained }: Effects, criterion: Criterion, words: EffectWords): string {
  const shown = terms.filter(({ most }) => isShown(most)).sort((a, b) => (b.most?.estimate ?? 0) - (a.most?.estimate ?? 0));
  const candidate = terms.find(({ term }) => term === 'candidate');
  const made = shown.map(({ term, most }, at) => `${words.term(term).toLocaleLowerCase()}${at === 0 ? ' made' : ''} ${differenceText(most as Difference, criterion)}`);
  const none = candidate?.most && !shown.includes(candidate) ? ` Between the candidates no difference is shown: ${differenceText(candidate.most, criterion)} at most.` : '';
  const rest = `What was varied explains ${Math.round(100 * explained)} % of what the values differ by.`;
  if (made.length === 0) return `Nothing that was varied is shown to have made a difference.${none} ${rest}`;
  const [first = '', ...others] = made;
  return `${[`${first.charAt(0).toLocaleUpperCase()}${first.slice(1)}`, ...others].join(', ')}.${none} ${rest}`;
}

/** Whether two terms work on each other, as a sentence. */
export function togetherText({ terms, most }: Together, criterion: Criterion, words: EffectWords): string {
  const [one, other] = terms.map((term) => words.term(term).toLocaleLowerCase());
  if (!most) return `Whether ${one} and ${other} work on each other cannot be told: too few of their levels met.`;
  const [more, less] = most.levels.map((level) => words.level(terms[0], level));
  const [here, there] = most.at.map((level) => words.level(terms[1], level));
  const how = `from ${there} to ${here}, ${more} gains ${differenceText(most, criterion)} on ${less}`;
  const said = `${how.charAt(0).toLocaleUpperCase()}${how.slice(1)}`;
  if (isShown(most)) return `${said}.`;
  return most.low === null ? `${said}, of too few takes to say how sure.` : `No sign that ${one} and ${other} work on each other: at most, ${how}.`;
}

/** Why nothing is said of a term; null where something is. */
export function untoldText({ most, aliasedWith }: Pick<TermEffect, 'most' | 'aliasedWith'>, words: EffectWords): string | null {
  if (most !== null) return aliasedWith.length > 0 ? `in part never changed without ${aliasedWith.map((term) => words.term(term).toLocaleLowerCase()).join(' and ')}` : null;
  return aliasedWith.length > 0
    ? `never changed without ${aliasedWith.map((term) => words.term(term).toLocaleLowerCase()).join(' and ')}: which of them it was cannot be told`
    : 'cannot be told';
}
