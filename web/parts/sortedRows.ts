import type { ColumnDef, SortingState } from '@tanstack/react-table';

/** Texts as people order them: S2 before S10, small and capital letters alike. */
const words = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/**
 * Rows in the order of the column that is sorted by; rows without a value come last, whichever way.
 * Thousands of rows are put into order here before a table is made of the few that are seen: a table that
 * sorts makes an object of every row first.
 */
export function sortedRows<Row>(rows: readonly Row[], columns: readonly ColumnDef<Row, unknown>[], sorting: SortingState): Row[] {
  const [by] = sorting;
  const value = by && accessorOf(columns, by.id);
  if (!value) return [...rows];
  const way = by.desc ? -1 : 1;
  const keyed = rows.map((row, index) => ({ row, key: value(row, index) }));
  const known = keyed.filter(({ key }) => key !== undefined && key !== null);
  const unknown = keyed.filter(({ key }) => key === undefined || key === null);
  known.sort((a, b) => way * (typeof a.key === 'number' && typeof b.key === 'number' ? a.key - b.key : words.compare(String(a.key), String(b.key))));
  return [...known, ...unknown].map(({ row }) => row);
}

function accessorOf<Row>(columns: readonly ColumnDef<Row, unknown>[], id: string): ((row: Row, index: number) => unknown) | null {
  for (const column of columns) {
    if ('accessorFn' in column && column.id === id) return column.accessorFn;
    if ('accessorKey' in column && (column.id ?? column.accessorKey) === id) return (row) => row[column.accessorKey as keyof Row];
  }
  return null;
}
