import { describe, expect, it } from 'vitest';
import { newId } from '../domain/identity.ts';
import { type Gains, type Take, untouchedTake } from '../domain/take.ts';
import { startGains } from './startGains.ts';

const [one, other] = [newId(), newId()];
const take = (startedAtMs: number | null, gains: [Gains | null, Gains | null] = [null, null]): Take => {
  const setups = [one, other].map((candidateId) => ({ id: newId(), candidateId, levels: {} }));
  const made = untouchedTake({ id: newId(), trialId: newId(), slate: 1, position: 0, condition: { station: 's', script: 'x' }, setups });
  return { ...made, startedAtMs, gains: Object.fromEntries(setups.flatMap(({ id }, index) => (gains[index] ? [[id, gains[index]]] : []))) };
};
const told = (takes: Take[], next: Take, kit: Record<string, Gains> = {}) => {
  const found = startGains(takes, next, kit);
  return next.setups.map(({ id }) => found[id] ?? null);
};

describe('gains with which a take starts', () => {
  it('are those of the take before, stage by stage, and Kit’s where nothing was recorded yet', () => {
    const next = take(null);
    const kit = { [next.setups[0]!.id]: { transmitter: 10, recorder: 30 }, [next.setups[1]!.id]: { recorder: 20 } };
    expect(told([next], next, kit)).toEqual([{ transmitter: 10, recorder: 30 }, { recorder: 20 }]);
    const before = [take(1000, [{ recorder: 33 }, null]), take(500, [{ recorder: 31 }, { recorder: 24 }]), next];
    expect(told(before, next, kit)).toEqual([{ transmitter: 10, recorder: 33 }, { recorder: 24 }]);
  });

  it('are not those of a take that was never started, nor of another candidate', () => {
    const next = take(null);
    expect(told([take(null, [{ recorder: 33 }, null]), take(900, [null, { recorder: 5 }]), next], next)).toEqual([null, { recorder: 5 }]);
  });
});
