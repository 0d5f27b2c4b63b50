import { describe, expect, it } from 'vitest';
import { promptAt, promptOf } from './scriptPrompt.ts';
import { STARTING_SCRIPTS } from './startingScripts.ts';

const script = (name: string) => STARTING_SCRIPTS.find((each) => each.name === name)!;

describe('what a talker is shown', () => {
  it.each([
    ['Neutral', 'words'],
    ['Plosives', 'words'],
    ['Counting, turn at five', 'count'],
    ['Room tone', 'silence'],
  ])('%s is %s', (name, kind) => {
    expect(promptOf(script(name)).kind).toBe(kind);
  });

  it('a script without words has its name, and one that only speaks of a turn of phrase is read', () => {
    expect(promptOf({ name: 'Song', text: '', lengthS: 20 })).toEqual({ kind: 'words', text: 'Song' });
    expect(promptOf({ name: 'Line', text: 'A turn of the tide.', lengthS: 5 }).kind).toBe('words');
  });

  it('counts a number a second, turns after five, and stays when it is over', () => {
    const prompt = promptOf(script('Counting, turn at five'));
    expect([0, 0.9, 4.2, 5, 9.9, 10.1].map((seconds) => promptAt(prompt, seconds).large)).toEqual(['1', '1', '5', '6', '10', 'Stay']);
    expect([4.2, 5].map((seconds) => promptAt(prompt, seconds).small)).toEqual(['then turn round', 'turned round']);
    expect(promptAt(promptOf({ name: 'Counting', text: '', lengthS: 10 }), 4.2).small).not.toContain('turn');
  });

  it('counts silence down to its end', () => {
    const prompt = promptOf(script('Room tone'));
    expect([0, 9.2, 10].map((seconds) => promptAt(prompt, seconds))).toMatchObject([{ large: '10' }, { large: '1' }, { large: 'Thank you', over: true }]);
  });
});
