import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type ItemDraft, itemDraftSchema, itemKindSchema, pickupPatternSchema } from '../domain/item.ts';
import { ITEM_COLUMNS, itemsToCsv, itemsToJson, readItemList } from './itemList.ts';

const text = fc.string({ maxLength: 30 }).map((value) => value.replace(/[\r\n\0]/g, ' ').trim());
const maybe = (low: number, high: number) =>
  fc.option(
    fc.double({ min: low, max: high, noNaN: true }).map((value) => Math.round(value * 100) / 100 + 0),
    { nil: null },
  );
const item: fc.Arbitrary<ItemDraft> = fc
  .record({
    kind: fc.constantFrom(...itemKindSchema.options),
    name: text.filter((value) => value !== '' && !/^['=+\-@]/.test(value)),
    price: maybe(0, 9000),
    selfNoiseDba: maybe(-5, 40),
    sensitivityMvPerPa: maybe(1, 90),
    outputMaxDbu: maybe(-60, 24),
    pattern: fc.option(fc.constantFrom(...pickupPatternSchema.options), { nil: null }),
    balancedOutput: fc.option(fc.boolean(), { nil: null }),
    sampleRatesHz: fc.subarray([44_100, 48_000, 96_000]),
    wordLengths: fc.subarray(['16 bit', '24 bit', '32-bit float']),
    channels: fc.integer({ min: 1, max: 8 }),
    wiring: fc.constantFrom('', 'tip hot, ring not used'),
  })
  .map((record) => itemDraftSchema.parse(record));

describe('a list of items', () => {
  it('comes back from CSV and from JSON as it went out', () => {
    fc.assert(
      fc.property(fc.array(item, { minLength: 1, maxLength: 5 }), (items) => {
        expect(readItemList(itemsToCsv(items)).rows.map((row) => row.draft)).toEqual(items);
        expect(readItemList(itemsToJson(items)).rows.map((row) => row.draft)).toEqual(items);
      }),
      { numRuns: 80 },
    );
  });

  it('judges each row by itself, with field, reason and row number', () => {
    const list = readItemList('kind,name,price,selfNoiseDba\nmicrophone,Osier,240,26\nmicrophone,Bittern,dear,260\nvessel,Punt,1,\n');
    expect(list.rows.map((row) => [row.row, row.name, row.draft?.price ?? null])).toEqual([
      [2, 'Osier', 240],
      [3, 'Bittern', null],
      [4, 'Punt', null],
    ]);
    expect(list.rows[1]?.errors.map((error) => error.field)).toEqual(['price', 'selfNoiseDba']);
    expect(list.rows[2]?.errors[0]?.field).toBe('kind');
  });

  it('reads a comma for the point, yes and no, lists, and a cell that was defused', () => {
    const list = readItemList(`\uFEFFkind;name;sensitivityMvPerPa;balancedInput;sampleRatesHz;wiring\nrecorder;Lade;"7,9";yes;"48000 96000";'=tip\n`);
    expect(list.rows[0]?.draft).toMatchObject({ sensitivityMvPerPa: 7.9, balancedInput: true, sampleRatesHz: [48_000, 96_000], wiring: '=tip' });
  });

  it('says which columns mean nothing here', () => {
    expect(readItemList('kind,name,colour\nmicrophone,Osier,grey\n').strangeColumns).toEqual(['colour']);
  });

  it.each([
    ['', /empty/],
    ['{"kind": "microphone"}', /must begin with \[/],
    ['[{"kind": ', /not JSON/],
    ['name,price\nOsier,2\n', /kind and name among them/],
  ])('%j: says what is wrong with the whole', (input, why) => {
    expect(readItemList(input)).toMatchObject({ rows: [], trouble: expect.stringMatching(why) });
  });

  it('has a column for every datum of an item', () => {
    expect(ITEM_COLUMNS).toContain('adapterPrice');
    expect(new Set(ITEM_COLUMNS)).toEqual(new Set(Object.keys(itemDraftSchema.parse({ kind: 'cable', name: 'x' }))));
  });
});
