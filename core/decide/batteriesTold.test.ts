import { describe, expect, it } from 'vitest';
import { batteriesOfYear } from '../chain/burden.ts';
import { type Item, itemDraftSchema } from '../domain/item.ts';
import { batteriesText } from './batteriesTold.ts';

const item = (id: string, rest: Partial<Item>): [string, Item] => [id, { ...itemDraftSchema.parse({ kind: 'transmitter', name: id }), id, ...rest }];
const items = new Map([
  item('two of 0.50 for 5 h', { batteryCount: 2, batteryPrice: 0.5, runningTimeH: 5 }),
  item('charged', { batteryCount: 1, batteryPrice: 0, runningTimeH: null }),
  item('no price', { batteryCount: 2, batteryPrice: null, runningTimeH: 8 }),
  item('no time', { batteryCount: 2, batteryPrice: 1, runningTimeH: null }),
  item('none', { batteryCount: 0, batteryPrice: 3, runningTimeH: 2 }),
]);
const chain = (...names: string[]) => ({ links: names.map((itemId) => ({ itemId, settings: {} as never })) });

describe('batteries of a year', () => {
  it.each([
    ['run down as often as their time goes into the hours', chain('two of 0.50 for 5 h'), { price: 60, unknown: [] }],
    ['cost nothing where they are charged, or where there are none', chain('charged', 'none'), { price: 0, unknown: [] }],
    [
      'are named where their price or their time is not known, and not counted as nothing',
      chain('no price', 'two of 0.50 for 5 h', 'no time'),
      { price: 60, unknown: ['no price', 'no time'] },
    ],
    ['of a link that is there twice count twice', chain('two of 0.50 for 5 h', 'two of 0.50 for 5 h'), { price: 120, unknown: [] }],
  ])('%s', (_what, links, year) => {
    expect(batteriesOfYear(links, items, 300)).toEqual(year);
  });

  const candidate = (name: string, batteries?: { price: number; unknown: string[] }) => ({ id: name, name, price: 1000, currency: 'EUR', ...(batteries ? { batteries } : {}) });
  it('what of a price they are is said, and whose are not in it', () => {
    expect(batteriesText([candidate('Osier', { price: 60.4, unknown: [] }), candidate('Heron', { price: 0, unknown: ['Reach', 'Weir'] })])).toBe(
      'Prices hold the batteries of a year: 60 EUR of Osier, 0 EUR of Heron. Not counted, since what a battery costs or how long it lasts is not known: Reach and Weir in Heron.',
    );
    expect(batteriesText([candidate('Osier'), candidate('Heron')])).toBe('');
  });
});
