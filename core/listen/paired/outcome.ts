import type { HeardChoice, PairedKind } from '../../domain/round.ts';
import { BLIND_LETTERS } from '../blindOrder.ts';
import { GUESSED, holm, LEVEL, type Preferred, preferred, type Told, told } from './doubt.ts';
import { pairsOf } from './sequence.ts';
import { strengths } from './strength.ts';

/** What a listener answered, once identities are open. */
export interface HeardBy {
  id: string;
  name: string;
  choices: readonly HeardChoice[];
}

/** Whether two recordings were told apart: by all listeners together, and by each. */
export interface ToldOutcome {
  all: Told;
  /** `doubt` is that of guessing, held against that there were several listeners. */
  each: { id: string; name: string; told: Told; doubt: number; apart: boolean }[];
}

/** Whether X was named rightly, or the odd one found. @returns null where nothing was answered */
export function isRight(kind: 'same' | 'odd', { recordingIds, picks }: HeardChoice): boolean | null {
  const letter = picks[0]?.letter;
  if (letter === undefined) return null;
  const picked = recordingIds[BLIND_LETTERS.indexOf(letter)];
  return kind === 'same' ? picked === recordingIds[2] : recordingIds.filter((id) => id === picked).length === 1;
}

/** What came of "is X A or B" or "which is the odd one". */
export function toldOutcome(kind: 'same' | 'odd', listeners: readonly HeardBy[]): ToldOutcome {
  const counts = listeners.map(({ choices }) => {
    const answers = choices.map((choice) => isRight(kind, choice)).filter((each) => each !== null);
    return { right: answers.filter(Boolean).length, tries: answers.length };
  });
  const each = counts.map(({ right, tries }) => told(right, tries, GUESSED[kind]));
  const doubts = holm(each.map(({ byGuessing }) => byGuessing));
  return {
    all: told(
      counts.reduce((sum, { right }) => sum + right, 0),
      counts.reduce((sum, { tries }) => sum + tries, 0),
      GUESSED[kind],
    ),
    each: listeners.map(({ id, name }, at) => {
      const doubt = doubts[at] as number;
      return { id, name, told: each[at] as Told, doubt, apart: doubt <= LEVEL };
    }),
  };
}

/** Choices between two recordings on one criterion. */
export interface PairOutcome extends Preferred {
  ids: [string, string];
  /** `byChance`, held against that several pairs were compared. */
  doubt: number;
  /** Listeners of whom more than half of the choices went to the first, and to the second. */
  listeners: [first: number, second: number];
}

/** Which is better on one criterion. */
export interface BetterOutcome {
  criterionId: string;
  pairs: PairOutcome[];
  /** All recordings, the strongest first, as the chance to be chosen over one of middling strength; null where one was always or never chosen. */
  ranks: { recordingId: string; overMiddling: number }[] | null;
}

/** What came of "which is better", on each criterion. */
export function betterOutcome(recordingIds: readonly string[], criterionIds: readonly string[], listeners: readonly HeardBy[]): BetterOutcome[] {
  return criterionIds.map((criterionId) => {
    const won = listeners.map(({ choices }) => choices.flatMap((choice) => winOf(choice, criterionId) ?? []));
    const count = (wins: readonly Win[], over: string, under: string) => wins.filter((win) => win.over === over && win.under === under).length;
    const all = won.flat();
    const judged = pairsOf(recordingIds.length).map(([a, b]) => {
      const ids: [string, string] = [recordingIds[a] as string, recordingIds[b] as string];
      const leaning = won.map((wins) => Math.sign(count(wins, ids[0], ids[1]) - count(wins, ids[1], ids[0])));
      const outcome = preferred(count(all, ids[0], ids[1]), count(all, ids[1], ids[0]));
      return { ...outcome, ids, listeners: [leaning.filter((each) => each > 0).length, leaning.filter((each) => each < 0).length] as [number, number] };
    });
    const doubts = holm(judged.map(({ byChance }) => byChance));
    const found = strengths(recordingIds.map((over) => recordingIds.map((under) => count(all, over, under))));
    const ranks = found && recordingIds.map((recordingId, at) => ({ recordingId, overMiddling: 1 / (1 + Math.exp(-(found[at] as number))) }));
    return {
      criterionId,
      pairs: judged.map((pair, at) => ({ ...pair, doubt: doubts[at] as number })),
      ranks: ranks?.sort((a, b) => b.overMiddling - a.overMiddling) ?? null,
    };
  });
}

interface Win {
  over: string;
  under: string;
}

function winOf({ recordingIds, picks }: HeardChoice, criterionId: string): Win | null {
  const letter = picks.find((pick) => pick.criterionId === criterionId)?.letter;
  const [a, b] = recordingIds;
  if (letter === undefined || a === undefined || b === undefined) return null;
  return letter === 'A' ? { over: a, under: b } : { over: b, under: a };
}

/** Letters of the clips of one comparison. */
export const lettersOf = (kind: PairedKind): string[] => BLIND_LETTERS.slice(0, kind === 'better' ? 2 : 3);
