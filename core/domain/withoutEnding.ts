/** A file name without its ending. @example withoutEnding('BELT_0007.wav') // 'BELT_0007' */
export const withoutEnding = (name: string): string => name.replace(/\.[A-Za-z0-9]{1,5}$/, '');
