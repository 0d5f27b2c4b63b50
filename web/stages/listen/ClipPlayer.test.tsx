// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { Listener, ServedClips } from '../../audio/clipSwitcher.ts';
import type { SwitcherReport } from '../../audio/switcherMessages.ts';
import { ClipPlayer } from './ClipPlayer.tsx';

/** An audio thread that hears what it is told, and tells nothing until it gets to it. */
interface Load {
  address: string;
  clips: number;
  done(): void;
  fail(error: Error): void;
}
const thread = vi.hoisted(() => ({ loads: [] as Load[], heard: [] as number[], playing: [] as boolean[], report: (_: SwitcherReport) => {} }));
vi.mock('../../audio/clipSwitcher.ts', () => ({
  START_GAIN: 0.1,
  secondsOf: (frame: number) => frame / 48_000,
  ClipSwitcher: class {
    lengthS = 0;
    load({ clips, addressOf }: ServedClips, { onReport }: Listener) {
      return new Promise<void>((resolve, reject) => {
        thread.loads.push({
          address: addressOf(3),
          clips,
          done: () => {
            this.lengthS = 5;
            thread.report = onReport;
            resolve();
          },
          fail: reject,
        });
      });
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
  render(<ClipPlayer clips={clips} matchedLufs={-23} source={{ pieces: 'of', question: '?both', otherwise: 'Equalised' }} />);
  expect(thread.loads.at(-1)).toMatchObject({ address: 'of/3?both', clips: 6 });
  await act(async () => thread.loads.at(-1)?.done());
  for (const key of ['b', '=', 'c', '=']) fireEvent.keyDown(document.body, { key, code: key === '=' ? 'Equal' : `Key${key.toUpperCase()}` });
  expect(thread.heard).toEqual([1, 4, 5, 2]);
  fireEvent.click(screen.getByRole('button', { name: 'Play' }));
  fireEvent.click(screen.getByRole('button', { name: 'Play' }));
  expect(thread.playing).toEqual([true, false]);
  act(() => thread.report({ frame: 0, heard: 4, playing: false, waiting: false }));
  expect(screen.getByRole('button', { name: /^B/ }).getAttribute('aria-pressed')).toBe('true');
});

it('takes other clips that are wanted before the first ones are there, and tells no trouble of those that nobody wants any more', async () => {
  const { rerender } = render(<ClipPlayer clips={clips} matchedLufs={-23} source={{ pieces: 'a' }} />);
  const first = thread.loads.at(-1);
  rerender(<ClipPlayer clips={clips} matchedLufs={-23} source={{ pieces: 'd' }} />);
  await act(async () => first?.fail(new Error('no execution context')));
  expect(screen.queryByRole('alert')).toBeNull();
  await act(async () => thread.loads.at(-1)?.done());
  expect(screen.getByRole('button', { name: 'Play' }).hasAttribute('disabled')).toBe(false);
  rerender(<ClipPlayer clips={clips} matchedLufs={-23} source={{ pieces: 'g' }} />);
  await act(async () => thread.loads.at(-1)?.fail(new Error('The clips cannot be fetched. Reload the page.')));
  expect(screen.getByRole('alert').textContent).toContain('cannot be fetched');
});

it('tells which clips were played, each once: those that were only chosen, or waited for, were not', async () => {
  const told = vi.fn();
  render(<ClipPlayer clips={clips} matchedLufs={-23} source={{ pieces: 'of', otherwise: 'Equalised' }} onPlayed={told} />);
  await act(async () => thread.loads.at(-1)?.done());
  const report = (heard: number, playing: boolean, waiting = false) => act(() => thread.report({ frame: 0, heard, playing, waiting }));
  report(0, false);
  report(1, true, true);
  expect(told).toHaveBeenLastCalledWith([]);
  report(2, true);
  report(4, true);
  report(4, true);
  expect(told).toHaveBeenLastCalledWith(['B', 'C']);
  expect(told).toHaveBeenCalledTimes(4);
});
