import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CONDITION_KINDS, type FactorKind } from '../domain/factor.ts';
import { matchChannels, slateInName } from '../takes/matchFile.ts';
import { type Compared, compareTakes } from './compare.ts';
import { nearestFair } from './nearestFair.ts';

const take = fc.record({
  takeId: fc.uuid(),
  setupId: fc.uuid(),
  candidateId: fc.constantFrom('QO', 'LB', 'WH'),
  condition: fc.record({
    station: fc.constantFrom('slipway', 'loft'),
    distance: fc.constantFrom('1', '10'),
    windscreen: fc.constantFrom('bare', 'fur'),
    script: fc.constantFrom('neutral', 'tone'),
  }),
  gains: fc.record({ recorder: fc.constantFrom(20, 26) }),
  windMs: fc.constantFrom(null, 2, 6),
  noiseDba: fc.constantFrom(null, 50, 60),
  controls: fc.constantFrom([], [{ name: 'Talker', value: 'Ferrier' }], [{ name: 'Talker', value: 'Netmaker' }]),
  startedAtMs: fc.constantFrom(null, 0, 90 * 60_000),
}) satisfies fc.Arbitrary<Compared>;
const takes = fc.array(take, { minLength: 2, maxLength: 12 });
const underTest = fc.constantFrom<FactorKind>('candidate', 'distance', 'windscreen', 'station', 'script');

describe('what must be true of every comparison', () => {
  it('the order of the takes does not matter', () => {
    fc.assert(
      fc.property(takes, underTest, (list, factor) => {
        const there = compareTakes(list, factor);
        const back = compareTakes([...list].reverse(), factor);
        expect(back.fairness).toBe(there.fairness);
        expect(back.unknowns.map((unknown) => unknown.what)).toEqual(there.unknowns.map((unknown) => unknown.what));
        expect(back.differences.map((difference) => difference.what)).toEqual(there.differences.map((difference) => difference.what));
      }),
    );
  });

  it('a take beside itself is fair and nothing differs', () => {
    fc.assert(
      fc.property(take, underTest, (one, factor) => {
        expect(compareTakes([one, one], factor)).toEqual({ differences: [], unknowns: [], fairness: 'fair' });
      }),
    );
  });

  it('one factor changed is fair when it is the one under test, and only then', () => {
    fc.assert(
      fc.property(take, underTest, fc.constantFrom(...CONDITION_KINDS), (one, factor, changed) => {
        const other = { ...one, condition: { ...one.condition, [changed]: 'another' } };
        const isFair = compareTakes([one, other], factor).fairness === 'fair';
        // A kind that the first says nothing of is not known to be another.
        expect(isFair).toBe(changed === factor);
        expect(compareTakes([one, { ...one, candidateId: 'BM' }], factor).fairness === 'fair').toBe(factor === 'candidate');
      }),
    );
  });

  it('one take more never makes an unfair comparison fair', () => {
    fc.assert(
      fc.property(takes, take, underTest, (list, more, factor) => {
        if (compareTakes(list, factor).fairness !== 'fair') expect(compareTakes([...list, more], factor).fairness).not.toBe('fair');
      }),
    );
  });

  it('the pair that is offered is fair, and tests the same two levels', () => {
    fc.assert(
      fc.property(takes, underTest, (list, factor) => {
        const level = (each: Compared) => (factor === 'candidate' ? each.candidateId : each.condition[factor]);
        const pair = list.slice(0, 2);
        const offered = nearestFair(pair, list, factor);
        if (!offered) return;
        expect(compareTakes(offered, factor).fairness).toBe('fair');
        expect(offered.map(level).sort()).toEqual(pair.map(level).sort());
        for (const each of offered) expect(list).toContain(each);
      }),
      { numRuns: 500 },
    );
  });

  it('the pair that is offered is as near as any: it keeps as many and differs as little as the best of all pairs', () => {
    fc.assert(
      fc.property(takes, underTest, (list, factor) => {
        const level = (each: Compared) => (factor === 'candidate' ? each.candidateId : each.condition[factor]);
        const pair: [Compared, Compared] = [list[0] as Compared, list[1] as Compared];
        fc.pre(level(pair[0]) !== level(pair[1]));
        const worth = ([a, b]: readonly Compared[]) => {
          const kept = Number(a === pair[0]) + Number(b === pair[1]);
          const apart = (one: Compared, other: Compared) => (one === other ? 0 : compareTakes([one, other], factor).differences.length);
          return [-kept, apart(a as Compared, pair[0]) + apart(b as Compared, pair[1])] as const;
        };
        const all = list.flatMap((a) => list.map((b) => [a, b]));
        const possible = all.filter(([a, b]) => level(a!) === level(pair[0]) && level(b!) === level(pair[1]) && compareTakes([a!, b!], factor).fairness === 'fair');
        const [least] = possible.map(worth).sort((a, b) => a[0] - b[0] || a[1] - b[1]);
        const offered = nearestFair(pair, list, factor);
        expect(offered === null ? undefined : worth(offered)).toEqual(least);
      }),
      { numRuns: 500 },
    );
  });

  it('where a fair partner of the first exists, a pair is offered', () => {
    fc.assert(
      fc.property(takes, (list) => {
        const [first, second] = list;
        if (!first || !second) return;
        fc.pre(first.candidateId !== second.candidateId);
        const partner = list.some((each) => each.candidateId === second.candidateId && compareTakes([first, each], 'candidate').fairness === 'fair');
        if (partner) expect(nearestFair([first, second], list, 'candidate')).not.toBeNull();
      }),
      { numRuns: 400 },
    );
  });
});

describe('what must be true of every match', () => {
  it('a name written from slate and pass is read back as both', () => {
    const style = fc.constantFrom(
      (slate: string, pass: string) => `SALT_S${slate}_T${pass}.wav`,
      (slate: string, pass: string) => `${slate}-${pass} QO.WAV`,
      (slate: string, pass: string) => `slate ${slate} take ${pass}.wav`,
      (slate: string, pass: string) => `scene_${slate}_t${pass}.wav`,
    );
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 999 }), fc.integer({ min: 1, max: 99 }), fc.boolean(), style, (slate, pass, padded, write) => {
        const text = (value: number, width: number) => String(value).padStart(padded ? width : 1, '0');
        expect(slateInName(write(text(slate, 3), text(pass, 2)))).toEqual({ slate, pass });
      }),
    );
  });

  it('no candidate gets two channels of a file', () => {
    const candidates = [
      { id: 'q', name: 'Quoinholt', tape: { kind: 0, letters: 'QO' } },
      { id: 'l', name: 'Lowbrack', tape: { kind: 1, letters: 'LB' } },
    ];
    fc.assert(
      fc.property(fc.array(fc.constantFrom('QO', 'LB', 'Lowbrack 2', 'mix', null), { minLength: 1, maxLength: 8 }), (names) => {
        const given = matchChannels('x.wav', names, candidates);
        expect(given).toHaveLength(names.length);
        const used = given.filter((id) => id !== null);
        expect(new Set(used).size).toBe(used.length);
      }),
    );
  });
});
