import fc from 'fast-check';
import { Matrix, pseudoInverse } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { drawnOf, layoutsOf } from './drawn.ts';
import { wholeDraw } from './drawnCell.ts';
import type { DrawnSample } from './samples.ts';
import { openCriterion } from './simulatedTrial.ts';

const TAKES = 7;
const CANDIDATES = 3;

interface Place {
  candidate: number;
  take: number;
  value: number;
}

/** Candidate and take parts by the pseudo-inverse, and what each candidate comes to over all takes: its own where there is one, else what is reckoned. */
function byPseudoInverse(places: readonly Place[], values: readonly number[]): { told: number[]; means: number[] } {
  const row = (candidate: number, take: number) => Array.from({ length: CANDIDATES + TAKES }, (_, at) => Number(at === candidate || at === CANDIDATES + take));
  const parts = pseudoInverse(new Matrix(places.map(({ candidate, take }) => row(candidate, take)))).mmul(Matrix.columnVector([...values]));
  const at = (candidate: number, take: number) => row(candidate, take).reduce((sum, there, part) => sum + there * parts.get(part, 0), 0);
  const means = Array.from({ length: CANDIDATES }, (_, candidate) => {
    const under = Array.from({ length: TAKES }, (__, take) => {
      const own = places.findIndex((place) => place.candidate === candidate && place.take === take);
      return own >= 0 ? (values[own] as number) : at(candidate, take);
    });
    return under.reduce((sum, value) => sum + value, 0) / TAKES;
  });
  return { told: places.map(({ candidate, take }) => at(candidate, take)), means };
}

describe('what a model reckons, drawn anew', () => {
  const value = fc.double({ min: 0, max: 60, noNaN: true });
  const counts = fc.array(fc.integer({ min: 0, max: 4 }), { minLength: TAKES, maxLength: TAKES });

  it('is what fitting again to the moved values gives, by another way', () => {
    fc.assert(
      fc.property(fc.array(value, { minLength: CANDIDATES * TAKES, maxLength: CANDIDATES * TAKES }), fc.integer({ min: 0, max: TAKES - 1 }), counts, (values, gap, times) => {
        // Two of the three lack a take, not the same one, so that all takes are compared.
        const places = values.flatMap((each, at): Place[] => {
          const [candidate, take] = [at % CANDIDATES, Math.floor(at / CANDIDATES)];
          const missing = (candidate === 0 && take === gap) || (candidate === 1 && take === (gap + 1) % TAKES);
          return missing ? [] : [{ candidate, take, value: each }];
        });
        const samples = places.map(({ candidate, take, value: each }): DrawnSample => ({ candidate, take, listener: null, condition: `c${take}`, value: each, weight: 1 }));
        const [layout] = layoutsOf({
          criteria: [openCriterion('k')],
          candidateIds: ['a', 'b', 'c'],
          takeIds: Array.from({ length: TAKES }, (_, take) => `t${take}`),
          listeners: [],
          samples: [samples],
        });
        const draw = wholeDraw(TAKES, 0);
        draw.takes.set(times);
        const drawn = { values: new Float64Array(CANDIDATES), overLimit: new Float64Array(CANDIDATES) };
        drawnOf(layout!, draw, drawn);
        const own = places.map((place) => place.value);
        const { told } = byPseudoInverse(places, own);
        const df = places.length - (CANDIDATES + TAKES - 1);
        expect(layout!.scattered!.df).toBe(df);
        const larger = Math.sqrt(places.length / df);
        const moved = places.map(({ take, value: each }, at) => each + larger * (each - told[at]!) * (times[take]! - 1));
        const { means } = byPseudoInverse(places, moved);
        for (const [candidate, mean] of means.entries()) expect(drawn.values[candidate]).toBeCloseTo(mean, 6);
      }),
      { numRuns: 60 },
    );
  });

  it('as things are is what the verdict says, and nothing moves where the model leaves nothing', () => {
    const exact = [0, 1, 2, 3].flatMap((take) => [0, 1, 2].flatMap((candidate) => (candidate === 2 && take === 1 ? [] : [{ candidate, take, value: 10 * candidate + take }])));
    const samples = exact.map(({ candidate, take, value: each }): DrawnSample => ({ candidate, take, listener: null, condition: `c${take}`, value: each, weight: 1 }));
    const [layout] = layoutsOf({ criteria: [openCriterion('k')], candidateIds: ['a', 'b', 'c'], takeIds: ['0', '1', '2', '3'], listeners: [], samples: [samples] });
    const drawn = { values: new Float64Array(3), overLimit: new Float64Array(3) };
    const draw = wholeDraw(4, 0);
    draw.takes.set([3, 0, 1, 0]);
    drawnOf(layout!, draw, drawn);
    expect([...drawn.values].map((each) => Math.round(each * 1e9) / 1e9)).toEqual([1.5, 11.5, 21.5]);
  });

  it('listeners move it too, each by what the model leaves of their points', () => {
    const samples = [0, 1, 2].flatMap((take) =>
      [0, 1].flatMap((candidate) =>
        candidate === 1 && take === 2
          ? []
          : [0, 1].map(
              (listener): DrawnSample => ({
                candidate,
                take,
                listener,
                condition: `c${take}`,
                value: 5 + candidate + take + (listener === 0 ? 1 : -1) * (candidate + 1),
                weight: 1,
              }),
            ),
      ),
    );
    const [layout] = layoutsOf({ criteria: [openCriterion('k')], candidateIds: ['a', 'b'], takeIds: ['0', '1', '2'], listeners: ['l', 'm'], samples: [samples] });
    const drawn = { values: new Float64Array(2), overLimit: new Float64Array(2) };
    const draw = wholeDraw(3, 2);
    const at = (listeners: number[]) => {
      draw.listeners.set(listeners);
      drawnOf(layout!, draw, drawn);
      return drawn.values[1]! - drawn.values[0]!;
    };
    // The first listener likes the second candidate more than the other one does.
    expect(at([1, 1])).toBeCloseTo(1, 9);
    expect(at([2, 0])).toBeGreaterThan(1.5);
    expect(at([0, 2])).toBeCloseTo(2 - at([2, 0]), 9);
  });
});
