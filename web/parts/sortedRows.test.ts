import { type ColumnDef, createColumnHelper } from '@tanstack/react-table';
import { describe, expect, it } from 'vitest';
import { sortedRows } from './sortedRows.ts';

interface Row {
  name: string;
  snrDb: number | undefined;
}
const column = createColumnHelper<Row>();
const columns = [
  column.accessor('name', { header: 'Name' }),
  column.accessor((row) => row.snrDb, { id: 'snr', header: 'SNR' }),
  column.display({ id: 'tray', header: 'Tray' }),
] as ColumnDef<Row, unknown>[];
const rows: Row[] = [
  { name: 'S10', snrDb: 9 },
  { name: 's2', snrDb: undefined },
  { name: 'S1', snrDb: 30.5 },
  { name: 'S3', snrDb: -2 },
];
const namesBy = (id: string, desc: boolean) => sortedRows(rows, columns, [{ id, desc }]).map((row) => row.name);

describe('rows in order', () => {
  it.each([
    ['name', false, ['S1', 's2', 'S3', 'S10']],
    ['name', true, ['S10', 'S3', 's2', 'S1']],
    ['snr', false, ['S3', 'S10', 'S1', 's2']],
    // What is not known is last either way: it is not the least, and not the most.
    ['snr', true, ['S1', 'S10', 'S3', 's2']],
  ] as const)('by %s, falling %s', (id, desc, names) => {
    expect(namesBy(id, desc)).toEqual(names);
  });

  it('stay as they are where nothing, or a column without values, is sorted by', () => {
    expect(sortedRows(rows, columns, [])).toEqual(rows);
    expect(namesBy('tray', false)).toEqual(['S10', 's2', 'S1', 'S3']);
    expect(namesBy('gone', true)).toEqual(['S10', 's2', 'S1', 'S3']);
  });

  it('what is given is not moved', () => {
    const given = Object.freeze([...rows]);
    expect(sortedRows(given, columns, [{ id: 'name', desc: false }])).not.toBe(given);
  });
});
