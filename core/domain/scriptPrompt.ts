import type { Script } from './script.ts';

/** What a talker is shown: words to read, a count with a turn in the middle, or silence that is timed. */
export type Prompt = { kind: 'words'; text: string } | { kind: 'count'; to: number; turnAt: number | null } | { kind: 'silence'; lengthS: number };

const COUNT_TO = 10;
const TURN_AT = 5;

/** What a script asks of its talker, by its own words. */
export function promptOf({ name, text, lengthS }: Pick<Script, 'name' | 'text' | 'lengthS'>): Prompt {
  const words = `${name} ${text}`;
  if (/\b(silence|room tone|nobody moves)\b/i.test(words)) return { kind: 'silence', lengthS };
  if (/\b(count|counting|one to ten)\b/i.test(words)) return { kind: 'count', to: COUNT_TO, turnAt: /\bturn/i.test(words) ? TURN_AT : null };
  return { kind: 'words', text: text || name };
}

/** What stands large in a prompt that has run so long: the number that is to be said, the seconds that are left, or that it is over. */
export function promptAt(prompt: Prompt, seconds: number): { large: string; small: string; over: boolean } {
  if (prompt.kind === 'words') return { large: prompt.text, small: '', over: false };
  if (prompt.kind === 'count') {
    const number = Math.floor(seconds) + 1;
    if (number > prompt.to) return { large: 'Stay', small: 'until it is cut', over: true };
    const turned = prompt.turnAt !== null && number > prompt.turnAt;
    return { large: String(number), small: number === prompt.turnAt ? 'then turn round' : turned ? 'turned round' : 'aloud, a number a second', over: false };
  }
  const left = Math.ceil(prompt.lengthS - seconds);
  return left > 0 ? { large: String(left), small: 'nobody moves, nobody speaks', over: false } : { large: 'Thank you', small: 'until it is cut', over: true };
}
