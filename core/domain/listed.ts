const LIST = new Intl.ListFormat('en-GB');

/**
 * Names as one reads them out.
 * @example listed(['a', 'b', 'c']) // "a, b and c"
 */
export const listed = (names: readonly string[]): string => LIST.format(names);
