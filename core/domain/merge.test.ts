import { describe, expect, it } from 'vitest';
import { mergeRecords } from './merge.ts';

const base = {
  name: 'Jetty',
  repeats: 1,
  controls: [{ name: 'Talker', value: 'Ferrier' }],
  factors: [
    {
      kind: 'distance',
      levels: [
        { id: '1', label: '1 m', ticked: true },
        { id: '10', label: '10 m', ticked: true },
      ],
    },
  ],
};

describe('two changes of one record', () => {
  it('that do not touch are both kept, and it is told which is whose', () => {
    const merged = mergeRecords(base, { ...base, repeats: 2 }, { ...base, controls: [{ name: 'Talker', value: 'Netmaker' }] });
    expect(merged).toMatchObject({ touching: false, value: { repeats: 2, controls: [{ value: 'Netmaker' }] } });
    expect(merged.changes.map(({ path, by }) => [path.join(' '), by])).toEqual([
      ['repeats', 'mine'],
      ['controls Talker value', 'theirs'],
    ]);
  });

  it('of two entries of a list do not touch; of one entry they do', () => {
    const ticked = (id: string) => ({
      ...base,
      factors: [{ kind: 'distance', levels: base.factors[0]!.levels.map((level) => (level.id === id ? { ...level, ticked: false } : level)) }],
    });
    const apart = mergeRecords(base, ticked('1'), ticked('10'));
    expect(apart.touching).toBe(false);
    expect(apart.value.factors[0]!.levels.map((level) => level.ticked)).toEqual([false, false]);
    const same = mergeRecords(base, { ...base, name: 'Quay' }, { ...base, name: 'Pier' });
    expect(same).toMatchObject({ touching: true, value: { name: 'Quay' }, changes: [{ path: ['name'], mine: 'Quay', theirs: 'Pier', by: 'both' }] });
  });

  it('an entry that one added and one that the other took away', () => {
    const mine = { ...base, controls: [...base.controls, { name: 'Clothes', value: 'wool' }] };
    const theirs = { ...base, controls: [] as typeof base.controls };
    expect(mergeRecords(base, mine, theirs).value.controls).toEqual([{ name: 'Clothes', value: 'wool' }]);
  });
});
