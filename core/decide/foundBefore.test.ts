import { describe, expect, it } from 'vitest';
import { candidates, id, measured, recording, take } from '../testing/verdictInput.ts';
import { believedOf, foundBefore, foundTexts } from './foundBefore.ts';
import { tellVerdict } from './tellVerdict.ts';

const criterion = { ...measured('noise.snrDb', { dealbreaker: { side: 'below', limit: 8 } }), name: 'Voice over noise' };
const first = take(1, 'near', ['a', 'b', 'c']);
const spoiled = take(2, 'near', ['a'], { startedAtMs: 999, flags: [{ id: id('8'), flag: 'spoiled', atMs: 1, setupIds: [] }] });
const chain = (key: string, ...links: string[]) => ({
  id: id(key),
  trialId: 'now',
  links: links.map((link) => ({ itemId: link, settings: {} as never })),
  rig: { placement: 'breastbone', onSkin: false },
});
const chains = [chain('a', 'mic a', 'fur', 'tx'), chain('b', 'mic b', 'fur'), chain('c', 'mic c')];
const found = () => {
  const input = {
    criteria: [criterion],
    candidates,
    takes: [first, spoiled],
    recordings: [recording(first, 'a', { 'noise.snrDb': 30 }), recording(first, 'b', { 'noise.snrDb': 20 }), recording(first, 'c', { 'noise.snrDb': 4 })],
    ratings: [],
    marks: [],
    passes: null,
  };
  return foundBefore({
    trial: { id: 'then', name: 'Ferry' },
    criteria: [criterion],
    rows: tellVerdict(input).rows,
    chains,
    takes: [first, spoiled],
    recorded: new Set([...first.setups, ...spoiled.setups].map((setup) => setup.id)),
    stationName: () => 'slip',
  });
};

describe('kept for the next time', () => {
  it('keeps place, points, figures and the conditions that they are of, and counts no spoiled take', () => {
    const [a, b, c] = found();
    expect(a).toMatchObject({
      trialName: 'Ferry',
      rank: 1,
      of: 3,
      score: 75,
      takes: 1,
      atMs: 1,
      stations: ['slip'],
      best: ['Voice over noise'],
      figures: [{ name: 'Voice over noise', text: '30 dB', conditions: 1 }],
    });
    expect(b).toMatchObject({ rank: 2, worst: [] });
    expect(c).toMatchObject({ rank: null, ruledOut: ['Voice over noise'] });
    expect(foundTexts(a!)).toEqual(['Place 1 of 3, 75 points of 100, in 1 take at slip; breastbone.', 'Best of all in Voice over noise.']);
    expect(foundTexts(c!)[0]).toBe('Ruled out by Voice over noise, 10 points of 100, in 1 take at slip; breastbone.');
  });

  it('is believed of a chain that shares what makes its sound, and not of one that shares a cover; never from the trial itself', () => {
    const items = new Map(
      (
        [
          ['mic a', 'microphone'],
          ['mic b', 'microphone'],
          ['fur', 'windscreen'],
          ['tx', 'transmitter'],
        ] as const
      ).map(([name, kind]) => [name, { kind, name }]),
    );
    const believed = believedOf(chain('new', 'mic b', 'fur', 'tx'), found(), items);
    expect(believed.map(({ found: { candidateName }, shared }) => [candidateName, shared])).toEqual([
      ['a', ['tx']],
      ['b', ['mic b']],
    ]);
    expect(believedOf(chain('new', 'fur'), found(), items)).toEqual([]);
    expect(believedOf({ ...chain('new', 'mic b'), trialId: 'then' }, found(), items)).toEqual([]);
  });
});
