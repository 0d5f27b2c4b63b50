import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NOT_KNOWN, UNKNOWN_CONDITION } from '../domain/factor.ts';
import { setupCondition, type Take } from '../domain/take.ts';
import { levelIn, SAID_AFTERWARDS, saidOf } from './sayCondition.ts';

const setups = ['GU', 'TE', 'WH'].map((candidateId) => ({ id: `setup ${candidateId}`, candidateId, levels: {} }));
const take: Pick<Take, 'condition' | 'setups'> = { condition: UNKNOWN_CONDITION, setups };
const distances = (now: Pick<Take, 'condition' | 'setups'>) => now.setups.map((setup) => setupCondition(now, setup).distance);

describe('what is said of a take afterwards', () => {
  it('of place and text is of all of it', () => {
    const said = saidOf(take, { kind: 'station', levelId: 'slip', candidateId: 'GU' });
    expect(said.condition).toEqual({ ...UNKNOWN_CONDITION, station: 'slip' });
    expect(said.setups).toEqual(setups);
  });

  it('of distance is of one candidate: of the others it stays not known', () => {
    const said = saidOf(take, { kind: 'distance', levelId: '1', candidateId: 'TE' });
    expect(distances(said)).toEqual([NOT_KNOWN, '1', NOT_KNOWN]);
    expect(said.condition.distance).toBeUndefined();
    expect(levelIn(said, 'distance', 'TE')).toBe('1');
  });

  it('is shared again once all are alike, and can be taken back', () => {
    const all = ['GU', 'TE', 'WH'].reduce((now, candidateId) => saidOf(now, { kind: 'distance', levelId: '10', candidateId }), take);
    expect(all).toEqual({ condition: { ...UNKNOWN_CONDITION, distance: '10' }, setups });
    expect(saidOf(all, { kind: 'distance', levelId: NOT_KNOWN, candidateId: null })).toEqual(take);
  });

  it('changes nothing else, whatever is said in whatever order', () => {
    const step = fc.record({ kind: fc.constantFrom(...SAID_AFTERWARDS), levelId: fc.constantFrom('a', 'b', NOT_KNOWN), candidateId: fc.constantFrom('GU', 'TE', 'WH', null) });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), step, (before, last) => {
        const now = before.reduce(saidOf, take);
        const said = saidOf(now, last);
        for (const setup of said.setups) {
          const [was, is] = [setupCondition(now, now.setups.find(({ id }) => id === setup.id)!), setupCondition(said, setup)];
          const isMeant = last.candidateId === null || last.kind === 'station' || last.kind === 'script' || setup.candidateId === last.candidateId;
          expect(is).toEqual(isMeant ? { ...was, [last.kind]: last.levelId } : was);
        }
      }),
    );
  });
});
