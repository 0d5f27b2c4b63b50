// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { keptDrafts } from './keptDrafts.ts';
import { useDraft } from './useDraft.ts';

interface Plan {
  version: number;
  name: string;
  tracks: number;
}
const SAVED: Plan = { version: 1, name: 'Harbour', tracks: 2 };

/** A record on a server that is in the hands of the test: each save waits until it is answered. */
function opened() {
  const sent: { patch: Partial<Plan>; version: number; answer: (result: { data?: Plan; error?: unknown }) => void }[] = [];
  const save = (_draft: Plan, patch: Partial<Plan>, version: number) =>
    new Promise<{ data?: Plan; error?: unknown }>((resolve) => {
      sent.push({ patch, version, answer: resolve });
    });
  const { result, rerender } = renderHook(({ saved, fetching }: { saved: Plan; fetching: boolean }) => useDraft(saved, fetching, save), {
    initialProps: { saved: SAVED, fetching: false },
  });
  const answer = (at: number, reply: { data?: Plan; error?: unknown }) => act(async () => sent[at]?.answer(reply));
  return {
    result,
    sent,
    answer,
    arrive: (saved: Plan, fetching = false) => act(() => rerender({ saved, fetching })),
    change: (patch: Partial<Plan>) => act(() => result.current.change(patch)),
  };
}

afterEach(cleanup);

describe('a record that is being changed', () => {
  it('asks whoever leaves before the last change is saved, and nobody after', async () => {
    const leaving = () => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }));
    const page = opened();
    expect(leaving()).toBe(false);
    page.change({ name: 'Harbour wall' });
    page.change({ tracks: 4 });
    await page.answer(0, { data: { ...SAVED, name: 'Harbour wall', version: 2 } });
    expect(leaving()).toBe(true);
    await page.answer(1, { data: { name: 'Harbour wall', tracks: 4, version: 3 } });
    expect(leaving()).toBe(false);
  });

  it('shows a change at once, and what comes while it is on its way goes together after it, over its version', async () => {
    const page = opened();
    page.change({ name: 'Harbour wall' });
    expect(page.result.current.draft).toEqual({ ...SAVED, name: 'Harbour wall' });
    page.change({ tracks: 4 });
    page.change({ tracks: 6 });
    expect(page.sent.map(({ patch }) => patch)).toEqual([{ name: 'Harbour wall' }]);
    await page.answer(0, { data: { version: 2, name: 'Harbour wall', tracks: 2 } });
    expect(page.sent[1]).toMatchObject({ patch: { tracks: 6 }, version: 2 });
    expect(page.result.current.draft).toMatchObject({ name: 'Harbour wall', tracks: 6 });
  });

  it('does not jump back while an answer that is older than the change is on its way', async () => {
    const page = opened();
    page.change({ tracks: 4 });
    page.arrive(SAVED, true);
    await page.answer(0, { data: { version: 2, name: 'Harbour', tracks: 4 } });
    expect(page.result.current.draft.tracks).toBe(4);
    page.arrive({ version: 2, name: 'Harbour', tracks: 4 });
    page.arrive({ version: 3, name: 'Quay', tracks: 4 });
    expect(page.result.current.draft.name).toBe('Quay');
  });

  it('a change that is refused is taken back', async () => {
    const page = opened();
    page.change({ tracks: 99 });
    expect(page.result.current.draft.tracks).toBe(99);
    await page.answer(0, { error: { code: 'invalid', message: 'Tracks are 1 to 64' } });
    expect(page.result.current.draft).toEqual(SAVED);
  });

  it('where another page was first, nothing is sent until it is said what stays; both stay where they do not touch', async () => {
    const page = opened();
    page.change({ tracks: 4 });
    const theirs = { version: 5, name: 'Quay', tracks: 2 };
    await page.answer(0, { error: { code: 'changed', current: theirs } });
    expect(page.result.current.conflict).toMatchObject({ touching: false });
    page.change({ tracks: 8 });
    expect(page.sent).toHaveLength(1);
    await act(async () => page.result.current.conflict?.both?.());
    // What was changed while it was open is not lost.
    expect(page.sent[1]).toMatchObject({ version: 5, patch: { tracks: 8 } });
    expect(page.result.current.draft).toMatchObject({ name: 'Quay', tracks: 8 });
    expect(page.result.current.conflict).toBeNull();
  });

  it('where they touch there is theirs or mine', async () => {
    const page = opened();
    page.change({ name: 'Wall' });
    await page.answer(0, { error: { code: 'changed', current: { version: 5, name: 'Quay', tracks: 2 } } });
    expect(page.result.current.conflict).toMatchObject({ touching: true, both: null });
    await act(async () => page.result.current.conflict?.theirs());
    expect(page.result.current.draft.name).toBe('Quay');
    expect(page.sent).toHaveLength(1);
  });
});

describe('drafts of dialogs', () => {
  beforeEach(() => sessionStorage.clear());

  it('are there again until they were saved or given up', () => {
    expect(keptDrafts.get('chain new')).toBeNull();
    keptDrafts.set('chain new', { name: 'Osier' });
    expect(keptDrafts.get('chain new')).toEqual({ name: 'Osier' });
    expect(keptDrafts.get('chain other')).toBeNull();
    keptDrafts.remove('chain new');
    expect(keptDrafts.get('chain new')).toBeNull();
  });

  it('one that cannot be read is dropped and said, and stands in nobody’s way', () => {
    const warned = vi.spyOn(console, 'warn').mockImplementation(() => undefined);
    sessionStorage.setItem('marvet/draft/chain new', '{"name":');
    expect(keptDrafts.get('chain new')).toBeNull();
    expect(warned).toHaveBeenCalledOnce();
    keptDrafts.set('chain new', { name: 'again' });
    expect(keptDrafts.get('chain new')).toEqual({ name: 'again' });
    warned.mockRestore();
  });
});
