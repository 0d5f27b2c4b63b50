import { describe, expect, it } from 'vitest';
import { replaced } from './replaced.ts';

const row = (fileId: string, id: string) => ({ fileId, id });
const fileOf = (each: { fileId: string }) => each.fileId;

describe('the rows of one file among thousands', () => {
  const rows = [row('a', '1'), row('b', '2'), row('b', '3'), row('c', '4')];
  it('take the place of those that were there', () => {
    expect(replaced(rows, 'b', fileOf, [row('b', '2 new'), row('b', '3 new')]).map((each) => each.id)).toEqual(['1', '2 new', '3 new', '4']);
  });
  it('come at the end when the file is new, and go when it is gone', () => {
    expect(replaced(rows, 'd', fileOf, [row('d', '5')]).at(-1)).toEqual(row('d', '5'));
    expect(replaced(rows, 'b', fileOf, []).map((each) => each.id)).toEqual(['1', '4']);
  });
});
