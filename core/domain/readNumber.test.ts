import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scriptDraftSchema } from './script.ts';
import './plainErrors.ts';
import { readNumber } from './readNumber.ts';

const value = (text: string, range = {}) => {
  const read = readNumber(text, range);
  return read.kind === 'number' ? read.value : read.kind;
};

describe('numbers as people write them', () => {
  it.each([
    ['2400', 2400],
    ['2,5', 2.5],
    ['2.5', 2.5],
    ['1 800', 1800],
    ['1\u202f800', 1800],
    ["1'650", 1650],
    ['1,650.50', 1650.5],
    ['1.650,50', 1650.5],
    ['1.234.567', 1234567],
    ['EUR 900', 900],
    ['900 €', 900],
    ['−12,5', -12.5],
    ['0,125', 0.125],
    ['.5', 0.5],
  ])('%s is %f', (text, expected) => expect(value(text)).toBe(expected));

  it.each(['2,400', '2.400', '1.650'])('%s can be two things, and is asked about', (text) => {
    const read = readNumber(text);
    expect(read.kind).toBe('either');
    if (read.kind === 'either') expect(read.readings[0]).toBe(read.readings[1] * 1000);
  });

  it('what only one reading fits is not asked', () => {
    expect(value('1.650', { max: 60 })).toBe(1.65);
    expect(value('54.531', { min: -90, max: 90 })).toBe(54.531);
    expect(value('2,400', { min: 100, whole: true })).toBe(2400);
  });

  it.each(['abc', '12 apples', '1,2,3', '1.23.4', '--5', '1 2345'])('%s is refused with a reason, not dropped', (text) => {
    const read = readNumber(text);
    expect(read.kind).toBe('refused');
    if (read.kind === 'refused') expect(read.why).toContain(text);
  });

  it('whatever is written with groups and a decimal mark is read back', () => {
    const style = fc.constantFrom(['en', ',', '.'], ['de', '.', ','], ['fr', ' ', ',']);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9_999_999 }), fc.integer({ min: 1, max: 99 }), style, (whole, cents, [, group, mark]) => {
        const text = `${String(whole).replace(/\B(?=(\d{3})+$)/g, group as string)}${mark}${String(cents).padStart(2, '0')}`;
        expect(value(text)).toBeCloseTo(whole + cents / 100, 9);
      }),
    );
  });

  it('a form says in words what is wrong, never in those of a schema', () => {
    const issue = (lengthS: unknown) => scriptDraftSchema.safeParse({ name: 'x', lengthS }).error?.issues[0]?.message;
    expect(issue('1,200')).toBe('“1,200” can be 1200 or 1.2. Write which');
    expect(issue('ten')).toBe('“ten” is not a number');
    expect(issue(Number.NaN)).not.toMatch(/expected|NaN|received/i);
  });
});
