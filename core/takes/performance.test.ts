import { describe, expect, it } from 'vitest';
import { findPerformance } from './performance.ts';

const clues = { speech: [] as [number, number][], lengthS: 20, marked: null, logStartS: null, logIsRough: false, slateSpoken: false };
/** “Slate one, take one”, a breath, then a line with its own small pauses. */
const slated: [number, number][] = [
  [0.4, 1.0],
  [1.1, 2.0],
  [3.2, 5.1],
  [5.5, 8.2],
  [8.8, 12],
];

describe('the part that is judged', () => {
  it('begins after a spoken slate where slates are spoken, else at the first word', () => {
    expect(findPerformance({ ...clues, speech: slated, slateSpoken: true })).toEqual({ span: [3.2, 12], by: 'slate' });
    expect(findPerformance({ ...clues, speech: slated })).toEqual({ span: [0.4, 12], by: 'words' });
  });

  it('does not take the first sentence for a slate when no pause stands out', () => {
    const speech: [number, number][] = [
      [0.5, 3],
      [3.4, 6],
      [6.4, 9],
    ];
    expect(findPerformance({ ...clues, speech, slateSpoken: true }).by).toBe('words');
  });

  it('a start in the log outranks what is found, and a hand outranks the log', () => {
    expect(findPerformance({ ...clues, speech: slated, slateSpoken: true, logStartS: 5.3 })).toEqual({ span: [5.5, 12], by: 'log' });
    expect(findPerformance({ ...clues, speech: slated, slateSpoken: true, logStartS: 5.3, marked: [6, 30] })).toEqual({ span: [6, 20], by: 'hand' });
  });

  it('a start in the log that is known to a few seconds only never begins in the middle of words', () => {
    const rough = { ...clues, speech: slated, logIsRough: true };
    expect(findPerformance({ ...rough, logStartS: 6.1 })).toEqual({ span: [5.5, 12], by: 'log' });
    expect(findPerformance({ ...rough, logStartS: 2.5 })).toEqual({ span: [3.2, 12], by: 'log' });
    expect(findPerformance({ ...rough, logIsRough: false, logStartS: 6.1 })).toEqual({ span: [6.1, 12], by: 'log' });
  });

  it('without words it is all of it', () => {
    expect(findPerformance(clues)).toEqual({ span: [0, 20], by: 'whole' });
  });
});
