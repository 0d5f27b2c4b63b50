import { withoutEnding } from '../../domain/withoutEnding.ts';

/** What tells which recorder wrote a file. */
interface WrittenFile {
  name: string;
  /** The folder that it came in, from the root of what was chosen; null where it came by itself. */
  folder: string | null;
  /** What the recorder calls itself in the file. */
  originator: string | null;
}

const WORDLESS = /^[\d\s_.-]*$/;

/**
 * A name for the recorder that wrote a file: what the file says of it, the folder it lay in, and the part of its name that does not
 * count up. Files of one name are taken to be of one recorder, with one clock.
 * @example recorderOf({ name: 'T1_0007.WAV', folder: 'Cards/Gull', originator: null }) // 'Gull, T1'
 */
export function recorderOf({ name, folder, originator }: WrittenFile): string {
  // A folder that is only a date or a number is not the name of a device.
  const place = (folder ?? '').split('/').findLast((part) => !WORDLESS.test(part)) ?? null;
  const parts = [place, stemOf(name), originator?.trim() || null].filter((part): part is string => part !== null && part !== '');
  return [...new Set(parts)].join(', ').slice(0, 120) || 'Files without a name';
}

/** A file name without what counts up: slate and take, numbers of two figures and more, dates and times. */
function stemOf(name: string): string {
  const base = withoutEnding(name);
  return base
    .replace(/(?<![A-Za-z])(?:slate|scene|sl|s|take|tk|t|p)[-_ ]?\d{2,}/gi, ' ')
    .replace(/\d{2,}/g, ' ')
    .replace(/[\s_.-]+/g, ' ')
    .trim();
}
