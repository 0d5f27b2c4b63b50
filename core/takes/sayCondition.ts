import { NOT_KNOWN, WITHIN_KINDS, type WithinKind } from '../domain/factor.ts';
import type { Take } from '../domain/take.ts';

/** Kinds of condition that are said afterwards of a take that nobody logged. */
export const SAID_AFTERWARDS = ['station', 'distance', 'windscreen', 'script'] as const;
export type SaidAfterwards = (typeof SAID_AFTERWARDS)[number];

type Sayable = Pick<Take, 'condition' | 'setups'>;
const isWithin = (kind: SaidAfterwards): kind is SaidAfterwards & WithinKind => (WITHIN_KINDS as readonly string[]).includes(kind);

/** The level of a candidate in a take; of what all share where none is named. Undefined where it is another with each. */
export function levelIn({ condition, setups }: Sayable, kind: SaidAfterwards, candidateId: string | null): string | undefined {
  const own = isWithin(kind) ? setups.find((setup) => setup.candidateId === candidateId)?.levels[kind] : undefined;
  return own ?? condition[kind];
}

/**
 * A take with one thing said of it that nobody had written down: where, how far, behind which windscreen, or what was spoken. How far, and
 * what screen, may be another with each candidate; where all are alike again they share it.
 * @param candidateId whose; null where it is of all
 */
export function saidOf(take: Sayable, { kind, levelId, candidateId }: { kind: SaidAfterwards; levelId: string; candidateId: string | null }): Sayable {
  if (!isWithin(kind)) return { setups: take.setups, condition: { ...take.condition, [kind]: levelId } };
  const levels = take.setups.map((setup) => (candidateId === null || setup.candidateId === candidateId ? levelId : (setup.levels[kind] ?? take.condition[kind] ?? NOT_KNOWN)));
  const { [kind]: _shared, ...condition } = take.condition;
  const alike = levels.every((level) => level === levels[0]);
  const setups = take.setups.map((setup, index) => {
    const { [kind]: _own, ...others } = setup.levels;
    return { ...setup, levels: alike ? others : { ...others, [kind]: levels[index] as string } };
  });
  return { setups, condition: alike ? { ...condition, [kind]: levels[0] as string } : condition };
}
