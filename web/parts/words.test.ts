import { describe, expect, it } from 'vitest';
import { troubleText } from '../data/api.ts';
import { clockText, dateText, dateTimeText } from './dateText.ts';
import { durationText } from './durationText.ts';

describe('lengths of time', () => {
  it.each([
    [0, '0 s'],
    [59.4, '59 s'],
    [60, '1 min'],
    [89, '1 min'],
    [3599, '1 h'],
    [5400, '1 h 30 min'],
    [7200, '2 h'],
    [7229, '2 h'],
    [7260, '2 h 1 min'],
    [86_400, '24 h'],
    [0.6, '1 s'],
    [45, '45 s'],
    [119, '2 min'],
  ])('%f s are %s', (seconds, text) => {
    expect(durationText(seconds)).toBe(text);
  });
});

describe('days and hours', () => {
  const local = new Date(2026, 4, 3, 7, 5).getTime();
  it('have the month in letters, so that nobody takes it for the day', () => {
    expect(dateText(local)).toBe('3 May 2026');
  });
  it('are told on 24 hours', () => {
    expect(clockText(local)).toBe('07:05');
    expect(clockText(new Date(2026, 4, 3, 19, 5).getTime())).toBe('19:05');
    expect(dateTimeText(local)).toBe('3 May 2026, 07:05');
  });
});

describe('what went wrong', () => {
  it('is told in the server’s words', () => {
    expect(troubleText({ status: 422, code: 'invalid', message: 'Give it a name', fields: {} })).toBe('Give it a name');
  });
  it('is nothing where nothing did', () => {
    expect(troubleText(undefined)).toBeNull();
    expect(troubleText(null)).toBeNull();
  });
  it('says what to do where nobody knows', () => {
    expect(troubleText(new TypeError())).toBe('');
    expect(troubleText({})).toContain('Reload it');
  });
});
