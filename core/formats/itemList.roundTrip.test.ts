import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { fieldKind } from '../domain/fieldKind.ts';
import { type ItemDraft, itemDraftSchema } from '../domain/item.ts';
import { itemsToCsv, readItemList } from './itemList.ts';

/** Any value that the schema of a field takes, text with everything that a spreadsheet could take amiss. */
const text: fc.Arbitrary<string> = fc.oneof(
  fc.constantFrom('', '007', '1,650', '=1+1', "'quoted", "'=1", '-3', '@home', 'two; three', '"', 'a\nb', 'yes'),
  fc.string({ maxLength: 20 }),
);

/** Values that the schema of a field takes, under whatever is wrapped around it. */
function anyValueOf(schema: z.ZodType): fc.Arbitrary<unknown> {
  const nullable = schema.safeParse(null).success;
  const kind = fieldKind(schema);
  const some = (): fc.Arbitrary<unknown> => {
    if (kind.type === 'yes or no') return fc.boolean();
    if (kind.type === 'list') return fc.constant([]);
    if (kind.type === 'number') {
      const { min = -1000, max = 1000 } = kind;
      const whole = fc.integer({ min: Math.ceil(min), max: Math.floor(max) });
      // Nought has one sign.
      return kind.whole ? whole : fc.oneof(whole, fc.double({ min, max, noNaN: true })).map((value) => value + 0);
    }
    return text.map((written) => written.trim()).filter((written) => schema.safeParse(written).success);
  };
  const choices = choicesOf(schema);
  const value = choices ? fc.constantFrom(...choices) : some();
  return nullable ? fc.option(value, { nil: null }) : value;
}

/** The values of a field that is chosen from a list. */
function choicesOf(schema: z.ZodType): readonly string[] | null {
  let found = schema as { options?: readonly string[]; _zod: { def: { innerType?: z.ZodType } } };
  while (!found.options && found._zod.def.innerType) found = found._zod.def.innerType as never;
  return found.options ?? null;
}

const draft = fc
  .record({
    ...(Object.fromEntries(Object.entries(itemDraftSchema.shape).map(([name, schema]) => [name, anyValueOf(schema as z.ZodType)])) as Record<string, fc.Arbitrary<unknown>>),
    name: text.map((written) => written.trim() || 'Reed').map((written) => written.slice(0, 40).trim() || 'Reed'),
    currency: fc.constantFrom('EUR', 'USD'),
    sampleRatesHz: fc.uniqueArray(fc.constantFrom(44_100, 48_000, 96_000)),
    wordLengths: fc.uniqueArray(fc.constantFrom('16 bit', '24 bit', '32-bit float')),
  })
  .map((record) => {
    const { gainMinDb, gainMaxDb } = record as { gainMinDb?: number | null; gainMaxDb?: number | null };
    const least = typeof gainMinDb === 'number' && typeof gainMaxDb === 'number' ? { gainMinDb: Math.min(gainMinDb, gainMaxDb), gainMaxDb: Math.max(gainMinDb, gainMaxDb) } : {};
    return itemDraftSchema.parse({ ...record, ...least }) as ItemDraft;
  });

describe('the library as CSV', () => {
  it('every item that there can be comes back as it went out', () => {
    fc.assert(
      fc.property(fc.array(draft, { minLength: 1, maxLength: 4 }), (items) => {
        const { rows, trouble } = readItemList(itemsToCsv(items));
        expect(trouble).toBeNull();
        expect(rows.map((row) => row.errors)).toEqual(items.map(() => []));
        expect(rows.map((row) => row.draft)).toEqual(items);
      }),
      { numRuns: 150 },
    );
  });
});
