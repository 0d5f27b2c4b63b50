/** What a number may be where it stands; readings outside are no readings. */
export interface NumberRange {
  min?: number;
  max?: number;
  whole?: boolean;
}

/** What was typed, read as a number. */
export type NumberRead =
  | { kind: 'empty' }
  | { kind: 'number'; value: number; currency: string | null }
  /** Both can be meant: whoever typed it is asked. */
  | { kind: 'either'; readings: [grouped: number, decimal: number]; currency: string | null }
  | { kind: 'refused'; why: string };

const SPACES = /[\s\u00a0\u2007\u2009\u202f]+/g;
const CURRENCY = /^(?:([A-Za-z]{3}|[€$£])\s*)?(.*?)(?:\s*([A-Za-z]{3}|[€$£]))?$/;
const SIGNS: Record<string, string> = { '€': 'EUR', $: 'USD', '£': 'GBP' };

/**
 * Reads a number as people of any country write it: 1,650; 1.650; 1 650; 1'650; 2,5; EUR 900. One point
 * or comma before three digits can be a thousand or a decimal: what the range leaves open is asked.
 * @example readNumber('1.650', { max: 60 }) // 1.65
 * @example readNumber('2,400') // 2400 or 2.4
 */
export function readNumber(typed: string, range: NumberRange = {}): NumberRead {
  const text = typed
    .replace(/\u2212/g, '-')
    .replace(SPACES, ' ')
    .trim();
  if (text === '') return { kind: 'empty' };
  const [, before, body = '', after] = CURRENCY.exec(text) ?? [];
  const written = before ?? after;
  const currency = written ? (SIGNS[written] ?? written.toUpperCase()) : null;
  if (/^[+-]?\d+(?:\.\d+)?e[+-]?\d+$/i.test(body)) return { kind: 'number', value: Number(body), currency: null };
  const match = /^([+-]?)\s*(\d[\d.,'’ ]*|[.,]\d+)$/.exec(body);
  if (!match) return { kind: 'refused', why: `“${typed.trim()}” is not a number` };
  const sign = match[1] === '-' ? -1 : 1;
  const readings = [...new Set(readingsOf((match[2] as string).trim()).map((reading) => sign * reading))];
  if (readings.length === 0) return { kind: 'refused', why: `“${typed.trim()}” is not a number: its digits are not in groups of three` };
  const fitting = readings.filter((reading) => fits(reading, range));
  const [first, second] = fitting;
  if (first !== undefined && second !== undefined) return { kind: 'either', readings: [first, second], currency };
  // Out of range it is still what was typed: the range has its own words for that.
  return { kind: 'number', value: first ?? (readings.at(-1) as number), currency };
}

/** What an ambiguous number is asked with. */
export function eitherText(typed: string, [grouped, decimal]: [number, number]): string {
  return `“${typed.trim()}” can be ${grouped} or ${decimal}. Write which`;
}

const fits = (value: number, { min = Number.NEGATIVE_INFINITY, max = Number.POSITIVE_INFINITY, whole = false }: NumberRange) =>
  value >= min && value <= max && (!whole || Number.isInteger(value));

/** Every way to read digits with marks between them; the thousand first. */
function readingsOf(digits: string): number[] {
  const marks = digits.match(/[.,'’ ]/g) ?? [];
  const kinds = [...new Set(marks)];
  if (marks.length === 0) return [Number(digits)];
  const last = marks.at(-1) as string;
  const decimalMark = last === '.' || last === ',';
  if (kinds.length === 1 && marks.length === 1 && decimalMark) {
    const [whole = '', rest = ''] = digits.split(last);
    const decimal = Number(`${whole || '0'}.${rest}`);
    // A thousand does not begin with a nought, and has one to three digits before three.
    return /^[1-9]\d{0,2}$/.test(whole) && rest.length === 3 ? [Number(whole + rest), decimal] : [decimal];
  }
  if (kinds.length === 1) return grouped(digits, last);
  if (kinds.length > 2 || !decimalMark || digits.indexOf(last) !== digits.lastIndexOf(last)) return [];
  const [whole = '', rest = ''] = digits.split(last);
  return grouped(whole, kinds.find((kind) => kind !== last) as string).map((value) => Number(`${value}.${rest}`));
}

function grouped(digits: string, mark: string): number[] {
  const [first = '', ...rest] = digits.split(mark);
  return /^\d{1,3}$/.test(first) && rest.every((group) => /^\d{3}$/.test(group)) ? [Number(first + rest.join(''))] : [];
}
