import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readBext, writeBext } from '../audio/chunks/bext.ts';
import { readIxml, writeIxml } from '../audio/chunks/ixml.ts';
import { readListInfo } from '../audio/chunks/listInfo.ts';
import { toCsv } from './csv.ts';

describe('CSV', () => {
  it.each(['=1+1', '+49', '-cmd', '@sum', '\tx'])('defuses %j', (text) => {
    expect(toCsv(['a'], [{ a: text }]).split('\r\n')[1]).toMatch(/^"?'/);
  });
  it('leaves numbers, quotes commas and line ends, and writes nothing for null', () => {
    expect(toCsv(['a', 'b', 'c'], [{ a: -23, b: 'one, "two"\nthree', c: null }])).toBe('a,b,c\r\n-23,"one, ""two""\nthree",\r\n');
  });
});

describe('bext', () => {
  it('reads what it wrote, and nothing from a stump', () => {
    const written = writeBext({
      description: 'sSCENE=4\r\nsTAKE=2',
      originator: 'R',
      originationDate: '2026-05-12',
      originationTime: '08:20:00',
      timeReferenceSamples: 1_440_000_000,
    });
    expect(readBext(written)).toMatchObject({ scene: '4', take: '2', originationDate: '2026-05-12', originationTime: '08:20:00', timeReferenceSamples: 1_440_000_000 });
    expect(readBext(written.subarray(0, 300))).toBeNull();
  });
});

describe('iXML', () => {
  it('reads what it wrote, whatever the names', () => {
    // A name is what a person types: letters, marks, spaces inside; control characters are no part of XML.
    const name = fc.stringMatching(/^[A-Za-z0-9&<>"'äöü](?:[A-Za-z0-9&<>"'äöü .-]{0,20}[A-Za-z0-9&<>"'äöü])?$/);
    fc.assert(
      fc.property(name, fc.array(name, { minLength: 1, maxLength: 8 }), (scene, trackNames) => {
        expect(readIxml(writeIxml({ project: 'P', scene, take: '1', tape: null, note: null, trackNames }))).toMatchObject({ scene, take: '1', tape: null, trackNames });
      }),
      { numRuns: 200 },
    );
  });
  it('follows the interleave index where tracks are listed out of order', () => {
    const xml =
      '<BWFXML><TRACK_LIST><TRACK><INTERLEAVE_INDEX>2</INTERLEAVE_INDEX><NAME>BM</NAME></TRACK><TRACK><INTERLEAVE_INDEX>1</INTERLEAVE_INDEX><NAME>QO</NAME></TRACK></TRACK_LIST></BWFXML>';
    expect(readIxml(new TextEncoder().encode(xml))?.trackNames).toEqual(['QO', 'BM']);
  });
  it('is null for other documents', () => {
    for (const xml of ['<OTHER/>', '<?xml version= 1.0"?><BWFXML></BWFXML>', '<BWFXML>']) expect(readIxml(new TextEncoder().encode(xml)), xml).toBeNull();
  });
});

it('LIST/INFO gives name and comment, and stops where a field runs past the end', () => {
  const field = (id: string, text: string, claimed = text.length) => [
    ...new TextEncoder().encode(id),
    claimed,
    0,
    0,
    0,
    ...new TextEncoder().encode(text),
    ...(text.length % 2 ? [0] : []),
  ];
  const bytes = Uint8Array.from([...new TextEncoder().encode('INFO'), ...field('INAM', 'Jetty'), ...field('ICMT', 'wind'), ...field('IART', 'x', 99)]);
  expect(readListInfo(bytes)).toEqual({ name: 'Jetty', comment: 'wind' });
});
