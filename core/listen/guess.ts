import { LEVEL } from './paired/doubt.ts';
import { percentText } from './paired/sayDoubt.ts';

/**
 * How likely so many places or more come out right when things are dealt out blindly, each once: the matching problem (P. R. de
 * Montmort, 1708). Of n things k lie right in C(n, k) times the dealings of n - k in which none does, over all n! of them.
 * @example rightByChance(1, 4) // 0.625
 */
export function rightByChance(right: number, things: number): number {
  return matches([things])
    .slice(right)
    .reduce((sum, each) => sum + each, 0);
}

/** The same for several dealings together, of so many things each. */
export function rightByChanceOfAll(right: number, things: readonly number[]): number {
  return Math.min(
    1,
    matches(things)
      .slice(right)
      .reduce((sum, each) => sum + each, 0),
  );
}

/** How likely 0, 1, 2 and so on lie right, over all dealings. */
function matches(dealings: readonly number[]): number[] {
  return dealings.reduce<number[]>(
    (all, things) => {
      const own = Array.from({ length: things + 1 }, (_, right) => noneRight(things - right) / factorial(right));
      return Array.from({ length: all.length + things }, (_, sum) => all.reduce((total, each, at) => total + each * (own[sum - at] ?? 0), 0));
    },
    [1],
  );
}

const factorial = (n: number): number => (n <= 1 ? 1 : n * factorial(n - 1));

/** Part of dealings of n things in which none lies right: 1 - 1 + 1/2! - 1/3! and so on. */
function noneRight(n: number): number {
  let sum = 0;
  for (let k = 0; k <= n; k++) sum += (k % 2 === 0 ? 1 : -1) / factorial(k);
  return sum;
}

/** What came of a guess which is which: how many were right, of how many. */
export interface Guessed {
  right: number;
  of: number;
}

/** Counts what of a guess was right. @param candidateOf the candidate of a recording */
export function guessedRight(
  guess: Readonly<Record<string, string>>,
  letters: Readonly<Record<string, string>>,
  candidateOf: (recordingId: string) => string | undefined,
): Guessed {
  const asked = Object.keys(guess).filter((letter) => letters[letter] !== undefined);
  return { right: asked.filter((letter) => candidateOf(letters[letter] as string) === guess[letter]).length, of: asked.length };
}

/** Guesses as a sentence, against chance. */
export function guessText(guesses: readonly Guessed[]): string {
  const right = guesses.reduce((sum, each) => sum + each.right, 0);
  const of = guesses.reduce((sum, each) => sum + each.of, 0);
  const doubt = rightByChanceOfAll(
    right,
    guesses.map((each) => each.of),
  );
  const known = doubt <= LEVEL ? 'they are known by ear' : 'it is not shown that they are known by ear';
  return `${right} of ${of} guessed right; who guesses blindly gets as many in ${percentText(doubt)} of cases: ${known}.`;
}
