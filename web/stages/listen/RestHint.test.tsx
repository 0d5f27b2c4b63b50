// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { RestHint } from './RestHint.tsx';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});
const pass = (minutes: number) => act(() => vi.advanceTimersByTime(minutes * 60_000));

it('asks for a rest after twenty minutes, not before, and again twenty minutes after it', () => {
  render(<RestHint />);
  pass(19.9);
  expect(screen.queryByRole('status')).toBeNull();
  pass(0.2);
  expect(screen.getByRole('status').textContent).toContain('rest your ears');
  pass(60);
  fireEvent.click(screen.getByRole('button', { name: 'I have rested' }));
  expect(screen.queryByRole('status')).toBeNull();
  pass(20.1);
  expect(screen.getByRole('status')).toBeTruthy();
});
