/** Rows with those of one file exchanged, each in its place. */
export function replaced<Row>(rows: readonly Row[], fileId: string, fileOf: (row: Row) => string, own: readonly Row[]): Row[] {
  const at = rows.findIndex((row) => fileOf(row) === fileId);
  const others = rows.filter((row) => fileOf(row) !== fileId);
  return at < 0 ? [...others, ...own] : [...others.slice(0, at), ...own, ...others.slice(at)];
}
