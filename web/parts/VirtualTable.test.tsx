// @vitest-environment jsdom
import type { ColumnDef } from '@tanstack/react-table';
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { VirtualTable } from './VirtualTable.tsx';

// No page is laid out here: the table is told that it has room for its rows.
vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(600);
vi.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(800);
afterEach(cleanup);

it('keeps the buttons of a row, and the focus on them, while what its columns show changes', () => {
  const rows = [{ id: 'one' }, { id: 'two' }];
  const table = (share: number) => {
    // As a table of files has them: made anew at each step of measuring.
    const columns = [
      {
        id: 'act',
        header: 'Act',
        cell: ({ row }) => (
          <button type="button">
            Stop {row.original.id} at {share} %
          </button>
        ),
      },
    ] as ColumnDef<{ id: string }, unknown>[];
    return <VirtualTable label="Files" rows={rows} columns={columns} rowKey={({ id }) => id} sorting={[]} onSorting={() => undefined} />;
  };
  const { rerender } = render(table(10));
  const button = screen.getByRole('button', { name: 'Stop two at 10 %' });
  button.focus();
  rerender(table(20));
  expect(screen.getByRole('button', { name: 'Stop two at 20 %' })).toBe(button);
  expect(document.activeElement).toBe(button);
});
