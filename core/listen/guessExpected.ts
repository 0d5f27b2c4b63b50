import type { Listener } from '../domain/round.ts';
import { LEVEL } from './paired/doubt.ts';
import { percentText } from './paired/sayDoubt.ts';

/** What somebody expected to win, opened once the verdict is. */
export interface OpenExpectation {
  person: string;
  candidateId: string;
}

/** The points of a listener for the clip that they took for what they expected to win, against the others. */
export interface HeardExpectation {
  name: string;
  candidateId: string;
  /** Mean points of the clip that was taken for it, of the one that was it, and of all others than the one taken for it. */
  takenFor: number;
  was: number;
  others: number;
  /** The clip that was taken for it is another one than it was. */
  mistaken: boolean;
  /** Clips with the most points, and whether the one taken for it is among them. */
  most: number;
  isMost: boolean;
  clips: number;
}

const sameName = (one: string, other: string) => one.trim().toLocaleLowerCase() === other.trim().toLocaleLowerCase();
const meanOf = (values: readonly number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;

/** How listeners who wrote down whom they expected to win scored the clip that they took for it. Who guessed nothing, or expected nothing, is left out. */
export function heardAsExpected(
  listeners: readonly Pick<Listener, 'name' | 'guess' | 'letters' | 'ratings'>[],
  expectations: readonly OpenExpectation[],
  candidateOf: (recordingId: string) => string | undefined,
): HeardExpectation[] {
  return listeners.flatMap(({ name, guess, letters, ratings }): HeardExpectation[] => {
    const expected = expectations.find(({ person }) => sameName(person, name));
    if (!expected || !guess || !letters) return [];
    const { candidateId } = expected;
    const clips = Object.keys(guess).filter((letter) => letters[letter] !== undefined);
    const points = new Map(clips.map((letter) => [letter, meanOf(ratings.filter((rating) => rating.letter === letter).map((rating) => rating.points))]));
    const taken = clips.find((letter) => guess[letter] === candidateId);
    const was = clips.find((letter) => candidateOf(letters[letter] as string) === candidateId);
    if (taken === undefined || was === undefined || clips.length < 2) return [];
    const top = Math.max(...points.values());
    const others = clips.filter((letter) => letter !== taken).map((letter) => points.get(letter) as number);
    const takenFor = points.get(taken) as number;
    return [
      {
        ...{ name, candidateId, takenFor, was: points.get(was) as number, others: meanOf(others), mistaken: taken !== was },
        ...{ most: [...points.values()].filter((each) => each === top).length, isMost: takenFor === top, clips: clips.length },
      },
    ];
  });
}

/**
 * How likely so many of some have the most points by chance, each of whom has it with a chance of its own (the sum of unequal coins).
 * @example likelyAsMany(1, [0.5, 0.25]) // 0.625
 */
export function likelyAsMany(most: number, chances: readonly number[]): number {
  let counts = [1];
  for (const chance of chances) counts = Array.from({ length: counts.length + 1 }, (_, at) => (counts[at] ?? 0) * (1 - chance) + (counts[at - 1] ?? 0) * chance);
  return Math.min(
    1,
    counts.slice(most).reduce((sum, each) => sum + each, 0),
  );
}

/**
 * Whether points followed the name. Only who took another clip for the one they expected to win can show it: whoever was right may
 * have heard that it is good. Without any such effect the clip that was taken for it has the most points as often as any other.
 * @returns null where nobody was mistaken in it
 */
export function expectationText(heard: readonly HeardExpectation[]): string | null {
  const mistaken = heard.filter((each) => each.mistaken);
  if (mistaken.length === 0) return null;
  const most = mistaken.filter(({ isMost }) => isMost).length;
  const doubt = likelyAsMany(
    most,
    mistaken.map((each) => each.most / each.clips),
  );
  const many = mistaken.length === 1 ? 'One listener' : `${mistaken.length} listeners`;
  const found = doubt <= LEVEL ? 'points followed the name more than the sound' : 'it is not shown that points followed the name';
  return `${many} took another clip for the one they expected to win, and ${most} gave it the most points; names that move nothing come to as many in ${percentText(doubt)} of cases: ${found}.`;
}
