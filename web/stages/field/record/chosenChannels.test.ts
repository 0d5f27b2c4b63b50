import { describe, expect, it } from 'vitest';
import { ChannelLevel, LOWEST_DBFS } from './channelLevel.ts';
import { type ChannelUse, chosenChannels } from './chosenChannels.ts';

const take = { setups: ['a', 'b', 'a'].map((candidateId, index) => ({ id: `s${index}`, candidateId, levels: {} })) };
const chains = ['a', 'b', 'c'].map((id) => ({ id, tape: { kind: 0, letters: id.toUpperCase() } }) as never);
const names = ['1', '2', '3', '4'];
const chosen = (...uses: ChannelUse[]) => chosenChannels(take, uses, chains, names).map(({ channel, name, setupId }) => [channel, name, setupId]);

describe('which channels of the inputs are recorded of a take', () => {
  it('a candidate that is in it twice has its channels in the order of its setups; a third of it is left out', () => {
    expect(chosen({ chainId: 'a' }, { chainId: 'b' }, { chainId: 'a' }, { chainId: 'a' })).toEqual([
      [0, 'A', 's0'],
      [1, 'B', 's1'],
      [2, 'A', 's2'],
    ]);
  });
  it('one that is not in it is left out, what is recorded along has no candidate, and what is off is off', () => {
    expect(chosen({ chainId: 'c' }, 'along', 'off', { chainId: 'b' })).toEqual([
      [1, '2', null],
      [3, 'B', 's1'],
    ]);
  });
});

describe('a meter', () => {
  it('rises at once, falls 20 dB a second, and holds its peak for a second and a half', () => {
    const loud = new ChannelLevel().heard(1, 0.5, false, 10_000);
    expect([loud.peakDbfs, loud.heldDbfs, Math.round(loud.rmsDbfs)]).toEqual([0, 0, -3]);
    const later = loud.heard(0, 0, false, 11_000);
    expect([later.peakDbfs, later.heldDbfs, later.highestDbfs]).toEqual([-20, 0, 0]);
    expect(later.heard(0, 0, false, 12_000).heldDbfs).toBe(-40);
    expect(later.heard(0, 0, false, 20_000).peakDbfs).toBe(LOWEST_DBFS);
  });
  it('says that nothing comes where there are but zeros for two seconds, which no microphone gives', () => {
    const first = new ChannelLevel().heard(0, 0, false, 1000);
    expect([first.dead, first.heard(0, 0, false, 3000).dead]).toEqual([false, true]);
    expect(first.heard(1e-7, 1e-14, false, 3000).dead).toBe(false);
  });
  it('keeps the light of clipping until it is put out', () => {
    const clipped = new ChannelLevel().heard(1, 1, true, 0).heard(0, 0, false, 9000);
    expect(clipped.clipped).toBe(true);
    expect(clipped.released()).toMatchObject({ clipped: false, highestDbfs: LOWEST_DBFS });
  });
});
