import Papa from 'papaparse';
import { type FieldKind, fieldKind } from '../domain/fieldKind.ts';
import { type Item, type ItemDraft, itemDraftSchema } from '../domain/item.ts';
import '../domain/plainErrors.ts';
import { readNumber } from '../domain/readNumber.ts';
import { toCsv } from './csv.ts';

/** Columns of an item in a list, in the order in which they are written. */
export const ITEM_COLUMNS = Object.keys(itemDraftSchema.shape) as (keyof ItemDraft)[];
const KINDS = Object.fromEntries(ITEM_COLUMNS.map((column) => [column, fieldKind(itemDraftSchema.shape[column])])) as Record<string, FieldKind>;

/** One row of a list that is brought in: what it is, or why it is not. */
export interface ItemRow {
  /** Number of the row in the file, the heading being row 1; in JSON the place in the list. */
  row: number;
  name: string;
  draft: ItemDraft | null;
  errors: { field: string; message: string }[];
}

/** A list of items as it was read; `trouble` says why nothing could be read at all. */
export interface ItemList {
  rows: ItemRow[];
  /** Headings that mean nothing here and are left out. */
  strangeColumns: string[];
  trouble: string | null;
}

/** Items as CSV, a column for each datum; lists inside a cell are separated by spaces or semicolons. */
export function itemsToCsv(items: readonly ItemDraft[]): string {
  return toCsv(
    ITEM_COLUMNS,
    items.map((item) => Object.fromEntries(ITEM_COLUMNS.map((column) => [column, cellOf(item[column])]))),
  );
}

/** Items as JSON: a list of objects with the same names as the columns. */
export function itemsToJson(items: readonly (ItemDraft | Item)[]): string {
  return `${JSON.stringify(
    items.map((item) => Object.fromEntries(ITEM_COLUMNS.map((column) => [column, item[column]]))),
    null,
    2,
  )}\n`;
}

function cellOf(value: ItemDraft[keyof ItemDraft]): string | number | null {
  if (value === null || typeof value === 'number') return value;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return Array.isArray(value) ? value.join('; ') : value;
}

/**
 * Reads a list of items from CSV or JSON; what it is shows by its first character. Every row is judged
 * by itself, so that one wrong price does not keep the others out.
 */
export function readItemList(text: string): ItemList {
  const trimmed = text.replace(/^\uFEFF/, '').trim();
  if (!trimmed) return { rows: [], strangeColumns: [], trouble: 'The file is empty' };
  return /^[[{]/.test(trimmed) ? readJson(trimmed) : readCsv(trimmed);
}

function readJson(text: string): ItemList {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return { rows: [], strangeColumns: [], trouble: `The file is not JSON: ${(error as Error).message}` };
  }
  if (!Array.isArray(value)) return { rows: [], strangeColumns: [], trouble: 'The file is not a list of items: it must begin with [' };
  return { rows: value.map((each, index) => judged(index + 1, each as object)), strangeColumns: [], trouble: null };
}

function readCsv(text: string): ItemList {
  const { data, meta } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: 'greedy', transformHeader: (heading) => heading.trim() });
  const fields = meta.fields ?? [];
  if (!fields.includes('kind') || !fields.includes('name')) {
    return { rows: [], strangeColumns: [], trouble: `The first row must name the columns, kind and name among them; it has ${fields.join(', ')}` };
  }
  const known = new Set<string>(ITEM_COLUMNS);
  // Where commas part the cells a point is the decimal mark, as the library writes it; else whoever wrote it may mean either.
  const pointIsDecimal = meta.delimiter === ',';
  const rows = data.map((cells, index) => {
    const record = Object.fromEntries(
      Object.entries(cells).flatMap(([column, cell]) => (known.has(column) && cell?.trim() ? [[column, cellValue(column, cell.trim(), pointIsDecimal)]] : [])),
    );
    return judged(index + 2, record);
  });
  return { rows, strangeColumns: fields.filter((field) => field && !known.has(field)), trouble: null };
}

/** A cell as the schema wants it; what cannot be read stays as it is, for the schema to refuse. */
function cellValue(column: string, cell: string, pointIsDecimal: boolean): unknown {
  return cellAs(KINDS[column] ?? { type: 'text' }, pointIsDecimal, cell.replace(/^'(?='*[=+\-@\t\r])/, ''));
}

function cellAs(kind: FieldKind, pointIsDecimal: boolean, text: string): unknown {
  switch (kind.type) {
    case 'number': {
      if (pointIsDecimal && /^[+-]?\d+\.\d+$/.test(text)) return Number(text);
      const read = readNumber(text, kind);
      return read.kind === 'number' ? read.value : text;
    }
    case 'yes or no':
      if (/^(yes|true|1)$/i.test(text)) return true;
      return /^(no|false|0)$/i.test(text) ? false : text;
    case 'list': {
      const numbers = kind.entries?.type === 'number';
      // Numbers may stand apart by spaces, too; a word length has one inside.
      const parts = text.split(numbers ? /\s*;\s*|\s+/ : /\s*;\s*/).filter(Boolean);
      return parts.map((part) => cellAs(kind.entries ?? { type: 'text' }, pointIsDecimal, part));
    }
    default:
      return text;
  }
}

function judged(row: number, record: object): ItemRow {
  const result = itemDraftSchema.safeParse(record);
  const name = String((record as { name?: unknown } | null)?.name ?? '');
  if (result.success) return { row, name, draft: result.data, errors: [] };
  return { row, name, draft: null, errors: result.error.issues.map((issue) => ({ field: issue.path.join('.') || 'row', message: issue.message })) };
}
