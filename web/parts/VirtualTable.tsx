import { type ColumnDef, getCoreRowModel, type SortingState, useReactTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useMemo, useRef } from 'react';
import { sortedRows } from './sortedRows.ts';

const ROW_PX = 36;

interface VirtualTableProps<Row> {
  label: string;
  rows: Row[];
  columns: ColumnDef<Row, unknown>[];
  rowKey: (row: Row) => string;
  sorting: SortingState;
  onSorting: (sorting: SortingState) => void;
  picked?: (row: Row) => boolean;
}

/**
 * What a column shows, called and not mounted as a component: columns are made anew whenever something that they show changes,
 * and mounted as another component each time, a button would be taken away under the finger, and with it the focus.
 */
const drawnBy = <Context,>(shown: ((context: Context) => ReactNode) | ReactNode, context: Context): ReactNode => (typeof shown === 'function' ? shown(context) : shown);

/** A dense table that sorts by its headings and draws only the rows that are seen. Numeric columns say so in `meta.numeric`. */
export function VirtualTable<Row>({ label, rows, columns, rowKey, sorting, onSorting, picked }: VirtualTableProps<Row>) {
  const scroll = useRef<HTMLElement>(null);
  const sorted = useMemo(() => sortedRows(rows, columns, sorting), [rows, columns, sorting]);
  const virtual = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
    initialRect: { width: 800, height: 600 },
  });
  const items = virtual.getVirtualItems();
  const [first, last] = [items[0]?.index ?? 0, items.at(-1)?.index ?? -1];
  const seen = useMemo(() => sorted.slice(first, last + 1), [sorted, first, last]);
  const table = useReactTable({
    data: seen,
    columns,
    state: { sorting },
    onSortingChange: (update) => onSorting(typeof update === 'function' ? update(sorting) : update),
    getCoreRowModel: getCoreRowModel(),
    manualSorting: true,
    getRowId: rowKey,
    sortDescFirst: false,
  });
  const drawn = table.getRowModel().rows;
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  const numeric = (meta: unknown) => ((meta as { numeric?: boolean } | undefined)?.numeric ? 'num' : '');
  return (
    <section className="grid-scroll" ref={scroll} tabIndex={0} aria-label={label}>
      <table className="grid-table" aria-rowcount={sorted.length + 1}>
        <thead>
          <tr>
            {table.getFlatHeaders().map((header) => {
              const direction = header.column.getIsSorted();
              return (
                <th key={header.id} className={numeric(header.column.columnDef.meta)} aria-sort={direction === 'asc' ? 'ascending' : direction === 'desc' ? 'descending' : 'none'}>
                  {header.column.getCanSort() ? (
                    <button type="button" onClick={header.column.getToggleSortingHandler()}>
                      {drawnBy(header.column.columnDef.header, header.getContext())}
                      <span aria-hidden>{direction === 'asc' ? ' ▲' : direction === 'desc' ? ' ▼' : ''}</span>
                    </button>
                  ) : (
                    drawnBy(header.column.columnDef.header, header.getContext())
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {before > 0 && (
            <tr aria-hidden>
              <td style={{ height: before, padding: 0 }} />
            </tr>
          )}
          {drawn.map((row) => (
            <tr key={row.id} aria-rowindex={first + row.index + 2} className={picked?.(row.original) ? 'picked' : ''}>
              {row.getVisibleCells().map((cell) => (
                <td key={cell.id} className={numeric(cell.column.columnDef.meta)}>
                  {drawnBy(cell.column.columnDef.cell, cell.getContext())}
                </td>
              ))}
            </tr>
          ))}
          {after > 0 && (
            <tr aria-hidden>
              <td style={{ height: after, padding: 0 }} />
            </tr>
          )}
        </tbody>
      </table>
    </section>
  );
}
