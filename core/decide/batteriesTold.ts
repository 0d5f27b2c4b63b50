import { listed } from '../domain/listed.ts';
import type { JudgedCandidate } from './verdict.ts';

/** What of the prices are batteries, and whose nobody knows, in sentences; empty where they are not asked for. */
export function batteriesText(candidates: readonly JudgedCandidate[]): string {
  const counted = candidates.flatMap(({ name, batteries, price, currency }) =>
    batteries && price !== null ? [`${Math.round(batteries.price).toLocaleString('en')} ${currency} of ${name}`] : [],
  );
  if (counted.length === 0) return '';
  const unknown = candidates.flatMap(({ name, batteries }) => (batteries && batteries.unknown.length > 0 ? [`${listed(batteries.unknown)} in ${name}`] : []));
  const gaps = unknown.length > 0 ? ` Not counted, since what a battery costs or how long it lasts is not known: ${unknown.join('; ')}.` : '';
  return `Prices hold the batteries of a year: ${counted.join(', ')}.${gaps}`;
}
