import { z } from 'zod';

/**
 * Kinds of tape in the order in which they are handed out. Colour never stands alone: each colour has
 * a pattern of its own and carries two letters.
 */
export const TAPE_KINDS = [
  { colour: '#F2C230', pattern: 'plain', dash: '', marker: 'circle' },
  { colour: '#7FC4E8', pattern: 'diagonal', dash: '7 3', marker: 'square' },
  { colour: '#F08A4B', pattern: 'dots', dash: '2 3', marker: 'triangle' },
  { colour: '#9CCB6B', pattern: 'bars', dash: '10 3 2 3', marker: 'diamond' },
  { colour: '#E9E4D8', pattern: 'cross-hatch', dash: '5 2 1 2', marker: 'cross' },
  { colour: '#D9A6DD', pattern: 'chevron', dash: '1 2', marker: 'star' },
  { colour: '#F4A7A0', pattern: 'grid', dash: '12 4', marker: 'wye' },
  { colour: '#A9B8F0', pattern: 'rings', dash: '4 4', marker: 'circle' },
] as const;

/** A candidate's tape: which kind, and the two letters on its pale patch. */
export const tapeSchema = z.object({
  kind: z
    .number()
    .int()
    .min(0)
    .max(TAPE_KINDS.length - 1),
  letters: z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^[A-Z0-9]{2}$/, 'Two letters or digits, for example QO'),
});
export type Tape = z.infer<typeof tapeSchema>;

/**
 * The next free tape for a chain of this name: the first unused kind, and two letters from the name
 * that no other tape carries.
 * @example nextTape('Quay One', []) // { kind: 0, letters: 'QO' }
 */
export function nextTape(name: string, taken: readonly Tape[]): Tape {
  const usedKinds = new Set(taken.map((tape) => tape.kind));
  const usedLetters = new Set(taken.map((tape) => tape.letters));
  const free = TAPE_KINDS.findIndex((_, kind) => !usedKinds.has(kind));
  const kind = free >= 0 ? free : taken.length % TAPE_KINDS.length;
  const letters = candidateLetters(name).find((pair) => !usedLetters.has(pair)) ?? 'ZZ';
  return { kind, letters };
}

function* pairs(name: string): Generator<string> {
  const words = name
    .toUpperCase()
    .split(/[^A-Z0-9]+/)
    .filter(Boolean);
  const [first = 'X', second] = words;
  if (second) yield first.charAt(0) + second.charAt(0);
  for (const letter of first.slice(1)) yield first.charAt(0) + letter;
  for (let code = 0; code < 26 * 26; code++) {
    yield String.fromCharCode(65 + Math.floor(code / 26), 65 + (code % 26));
  }
}

function candidateLetters(name: string): string[] {
  return [...pairs(name)];
}
