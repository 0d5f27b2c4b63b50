import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { balancedOrders, nextOrder } from './balancedOrder.ts';

/** How often each clip stands at each place, and follows each other. */
function counts(orders: readonly number[][], count: number): { places: number[]; pairs: number[] } {
  const places: number[] = [];
  const pairs: number[] = [];
  for (let clip = 0; clip < count; clip++) {
    for (let at = 0; at < count; at++) places.push(orders.filter((order) => order[at] === clip).length);
    for (let before = 0; before < count; before++)
      if (before !== clip) pairs.push(orders.filter((order) => order.some((each, at) => each === clip && order[at - 1] === before)).length);
  }
  return { places, pairs };
}

describe('orders that are balanced over listeners', () => {
  it.each([2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])('of %i clips each stands at each place, and follows each other, equally often', (count) => {
    const orders = balancedOrders(count);
    for (const order of orders) expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, clip) => clip));
    const each = count % 2 === 0 ? 1 : 2;
    const { places, pairs } = counts(orders, count);
    expect(new Set(places)).toEqual(new Set([each]));
    expect(new Set(pairs)).toEqual(new Set([each]));
  });

  it('come one by one, whatever is drawn, and are balanced once all have come, and again', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 7 }), fc.infiniteStream(fc.double({ min: 0, max: 0.999999, noNaN: true })), (count, stream) => {
        const uniform = () => stream.next().value as number;
        const all = balancedOrders(count).length;
        const given: number[][] = [];
        for (let listener = 0; listener < 2 * all; listener++) given.push(nextOrder(count, given, uniform));
        for (const orders of [given.slice(0, all), given]) {
          const { places, pairs } = counts(orders, count);
          expect(new Set(places).size).toBe(1);
          expect(new Set(pairs).size).toBe(1);
        }
      }),
      { numRuns: 40 },
    );
  });
});
