import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTrack, toGpx, trackToCsv } from './trackPoints.ts';

const POINTS = [
  { atMs: Date.UTC(2026, 10, 27, 9, 0, 0), latitudeDeg: 52.1, longitudeDeg: 1.4, accuracyM: null },
  { atMs: Date.UTC(2026, 10, 27, 9, 0, 1), latitudeDeg: 52.10001, longitudeDeg: 1.40002, accuracyM: 4 },
];

describe('tracks', () => {
  it('go out as GPX and come back as they were', () => {
    const text = toGpx('Reed bank <out & back>', POINTS);
    expect(text).toContain('http://www.topografix.com/GPX/1/1');
    const read = readTrack(text);
    expect(read.trouble).toBeNull();
    expect(read.points.map(({ atMs, latitudeDeg, longitudeDeg }) => ({ atMs, latitudeDeg, longitudeDeg }))).toEqual(
      POINTS.map(({ atMs, latitudeDeg, longitudeDeg }) => ({ atMs, latitudeDeg, longitudeDeg })),
    );
  });

  it('go out as CSV and come back as they were', () => {
    expect(readTrack(trackToCsv(POINTS.map((point) => ({ ...point, distanceM: 3 })))).points).toEqual(POINTS);
  });

  it('a GPX of another program, with several segments and points without a time', () => {
    const text = `<?xml version="1.0"?><gpx version="1.1"><trk><trkseg><trkpt lat="52.1" lon="1.4"><ele>3</ele><time>2026-11-27T09:00:00Z</time></trkpt></trkseg>
      <trkseg><trkpt lat="52.2" lon="1.5"/><trkpt lat="52.3" lon="1.6"><time>2026-11-27T10:00:05+01:00</time></trkpt></trkseg></trk></gpx>`;
    const read = readTrack(text);
    expect(read).toMatchObject({ leftOut: 1, trouble: null });
    expect(read.points.map(({ atMs }) => new Date(atMs).toISOString())).toEqual(['2026-11-27T09:00:00.000Z', '2026-11-27T09:00:05.000Z']);
  });

  it('a log of sentences over midnight, with its day from RMC', () => {
    const read = readTrack(
      ['$GPRMC,235959,A,5206.000,N,00124.000,E,0,0,271126,,', '$GPGGA,235959,5206.000,N,00124.000,E,1,8,1,3,M,,M,,', '$GPGGA,000001,5206.001,N,00124.000,E,1,8,1,3,M,,M,,'].join(
        '\r\n',
      ),
    );
    expect(read.points.map(({ atMs }) => new Date(atMs).toISOString())).toEqual(['2026-11-27T23:59:59.000Z', '2026-11-28T00:00:01.000Z']);
  });

  it.each([
    ['', 'empty'],
    ['<html></html>', 'no GPX'],
    ['<gpx><trk>', 'well-formed'],
    ['<!DOCTYPE gpx [<!ENTITY a "x">]><gpx></gpx>', 'well-formed'],
    ['<gpx><trk><name>Reed bank</name></trk></gpx>', 'No point'],
    ['where,when\nhere,now', 'columns time, latitude and longitude'],
    ['time,latitude,longitude\n,,', 'No row'],
    ['$GPGGA,235959,5206.000,N,00124.000,E,1,8,1,3,M,,M,,', 'no date'],
  ])('%s says why it is none', (text, why) => {
    expect(readTrack(text)).toMatchObject({ points: [] });
    expect(readTrack(text).trouble).toContain(why);
  });

  it('whatever comes in is answered', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.string().map((text) => `<${text}`),
          fc.string().map((text) => `time,lat,lon\n${text}`),
        ),
        (text) => Array.isArray(readTrack(text).points),
      ),
    );
  });
});
