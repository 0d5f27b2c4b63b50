import { createHash } from 'node:crypto';

/** An identity that is always the same for the same words, so that the demo is the same everywhere. */
export function demoId(...words: (string | number)[]): string {
  const hex = createHash('sha256')
    .update(['saltreach', ...words].join('/'))
    .digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-5${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
