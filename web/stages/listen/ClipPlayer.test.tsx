// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { SwitcherReport } from '../../audio/switcherMessages.ts';
import { ClipPlayer } from './ClipPlayer.tsx';

/** An audio thread that hears what it is told, and tells nothing until it gets to it. */
const thread = vi.hoisted(() => ({ heard: [] as number[], playing: [] as boolean[], report: (_: SwitcherReport) => {} }));
vi.mock('../../audio/clipSwitcher.ts', () => ({
  START_GAIN: 0.1,
  secondsOf: (frame: number) => frame / 48_000,
  ClipSwitcher: class {
    lengthS = 0;
    async load(_urls: string[], report: (report: SwitcherReport) => void) {
      this.lengthS = 5;
      thread.report = report;
    }
    hear = (clip: number) => thread.heard.push(clip);
    play = async (playing: boolean) => thread.playing.push(playing);
    setGain() {}
    close() {}
  },
}));
afterEach(cleanup);

const clips = ['A', 'B', 'C'].map((letter) => ({ letter, said: '' }));

it('goes on from what was asked for last, when keys come faster than the audio thread answers', async () => {
  render(<ClipPlayer clips={clips} matchedLufs={-23} source={{ each: ['a', 'b', 'c'], otherwise: { name: 'Equalised', each: ['a', 'b2', 'c2'] } }} />);
  await act(async () => {});
  for (const key of ['b', '=', 'c', '=']) fireEvent.keyDown(document.body, { key, code: key === '=' ? 'Equal' : `Key${key.toUpperCase()}` });
  expect(thread.heard).toEqual([1, 4, 5, 2]);
  fireEvent.click(screen.getByRole('button', { name: 'Play' }));
  fireEvent.click(screen.getByRole('button', { name: 'Play' }));
  expect(thread.playing).toEqual([true, false]);
  act(() => thread.report({ frame: 0, heard: 4, playing: false }));
  expect(screen.getByRole('button', { name: /^B/ }).getAttribute('aria-pressed')).toBe('true');
});
