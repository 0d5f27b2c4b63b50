import { z } from 'zod';
import { eitherText, readNumber } from './readNumber.ts';

/** Units at the end of a field's name, as people write them. */
const UNITS: [suffix: RegExp, unit: string][] = [
  [/DbfsA$/, 'dBFS A'],
  [/DbuA$/, 'dBu A'],
  [/Dbtp$/, 'dBTP'],
  [/Dbfs$/, 'dBFS'],
  [/Dbu$/, 'dBu'],
  [/Dba$/, 'dB A'],
  [/Lufs$/, 'LUFS'],
  [/MvPerPa$/, 'mV/Pa'],
  [/Db$/, 'dB'],
  [/Hz$/, 'Hz'],
  [/Deg$/, 'degrees'],
  [/Min$/, 'min'],
  [/Gb$/, 'GB'],
  [/Ms$/, ''],
  [/H$/, 'h'],
  [/M$/, 'm'],
  [/S$/, 's'],
];

/**
 * A field's name as a person reads it.
 * @example fieldWords('targetLufs') // "Target (LUFS)"
 */
export function fieldWords(path: string): string {
  const last =
    path
      .split('.')
      .filter((part) => !/^\d+$/.test(part))
      .at(-1) ?? '';
  if (last === '' || last === 'body') return '';
  const found = UNITS.find(([suffix]) => suffix.test(last));
  const bare = found ? last.replace(found[0], '') : last;
  const words = bare
    .replace(/Ids?$/, '')
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .toLowerCase();
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}${found?.[1] ? ` (${found[1]})` : ''}`;
}

const WANTED: Record<string, string> = {
  number: 'Enter a number',
  int: 'Enter a whole number',
  string: 'Enter a text',
  boolean: 'Say yes or no',
  array: 'Give a list',
  object: 'Something is missing here',
};

/** Why a text was not taken as a number. */
function numberText(typed: string): string {
  const read = readNumber(typed);
  if (read.kind === 'either') return eitherText(typed, read.readings);
  return read.kind === 'refused' ? read.why : 'Enter a number';
}

/** What is wrong with a value, without the words of a schema. */
export function plainError(issue: z.core.$ZodRawIssue): string | undefined {
  switch (issue.code) {
    case 'invalid_type':
      if ((issue.expected === 'number' || issue.expected === 'int') && typeof issue.input === 'string' && issue.input.trim() !== '') return numberText(issue.input);
      return WANTED[issue.expected] ?? 'That is not what is asked for here';
    case 'invalid_value':
      return issue.values.length <= 12 ? `Choose one of: ${issue.values.map((value) => (value === null ? 'nothing' : String(value))).join(', ')}` : 'Choose one from the list';
    case 'too_small':
      return issue.origin === 'string' || issue.origin === 'array' ? `Give at least ${issue.minimum}` : `${issue.minimum} is the least`;
    case 'too_big':
      return issue.origin === 'string' ? `Use at most ${issue.maximum} characters` : issue.origin === 'array' ? `At most ${issue.maximum} of them` : `${issue.maximum} is the most`;
    case 'invalid_format':
      return issue.format === 'uuid' ? 'That is no record of Marvet' : 'That is written in another way';
    case 'invalid_union':
      return 'That is none of the forms that are understood here';
    case 'invalid_key':
    case 'unrecognized_keys':
      return 'That is not known here';
    default:
      return undefined;
  }
}

z.config({ customError: plainError });
