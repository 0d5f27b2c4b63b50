import Papa from 'papaparse';

/**
 * Rows as CSV text (RFC 4180), header first. Text cells that a spreadsheet would take for a formula
 * are defused with a leading apostrophe; numbers stay numbers, so that a level of -23 is not touched.
 * @param rows cells by column name; null becomes an empty cell
 */
export function toCsv(columns: readonly string[], rows: readonly Record<string, string | number | null>[]): string {
  const data = rows.map((row) => columns.map((column) => defused(row[column] ?? null)));
  return `${Papa.unparse({ fields: columns.map((column) => String(defused(column))), data })}\r\n`;
}

function defused(cell: string | number | null): string | number {
  if (cell === null) return '';
  if (typeof cell === 'string' && /^'*[=+\-@\t\r]/.test(cell)) return `'${cell}`;
  return cell;
}
