import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { MEASURE_IDS, type MeasureId } from '../domain/measureId.ts';
import { type Take, untouchedTake } from '../domain/take.ts';
import { MEASURES } from '../measure/catalogue.ts';
import { figuresCsv, figuresJson, figuresOf, type Measured } from './figuresOut.ts';

const take: Take = {
  ...untouchedTake({
    id: 'take',
    trialId: 'trial',
    slate: 7,
    position: 0,
    condition: { station: 'slip', script: 'neutral' },
    setups: [
      { id: 'a', candidateId: 'gull', levels: { distance: 'near' } },
      { id: 'b', candidateId: 'tern', levels: { distance: 'far' } },
    ],
  }),
  startedAtMs: Date.UTC(2026, 3, 14, 9),
  windMs: 4.5,
  note: '=boat, passed',
};
const file = { id: 'f', name: 'S007.wav', sha256: '00', state: 'done' as const, methodVersion: 5, warnings: ['lossy: MP3'], format: {} as never };
const recording = (id: string, channel: number, setupId: string | null, figures: Partial<Record<MeasureId, number>> | null, takeId: string | null = 'take') => ({
  id,
  fileId: 'f',
  channels: [channel],
  trackName: null,
  startS: null,
  endS: null,
  takeId,
  setupId,
  figures,
  stereo: null,
  backup: null,
});
const names = [
  { kind: 'station', levels: [{ id: 'slip', label: 'Slipway' }] },
  {
    kind: 'distance',
    levels: [
      { id: 'near', label: '1 m' },
      { id: 'far', label: '10 m' },
    ],
  },
  { kind: 'script', levels: [{ id: 'neutral', label: 'Neutral' }] },
] as never as Measured['names'];
const chains = [
  { id: 'gull', name: 'Gull', tape: { kind: 0, letters: 'GU' } },
  { id: 'tern', name: 'Tern', tape: { kind: 1, letters: 'TE' } },
] as Measured['chains'];
const rows = figuresOf({
  names,
  takes: [take],
  chains,
  files: [file],
  recordings: [
    recording('3', 2, null, null, null),
    recording('2', 1, 'b', { 'noise.snrDb': 21.25, 'levels.dcOffset': 0 }),
    recording('1', 0, 'a', { 'noise.snrDb': -3.5 }),
    { ...recording('4', 0, null, null), fileId: 'in the bin' },
  ],
});

describe('all figures of all recordings', () => {
  it('come in the order of takes and channels, with what each is of; what lies in the bin is left out', () => {
    expect(rows.map(({ slate, candidate, condition, channels }) => [slate, candidate, condition, channels])).toEqual([
      [7, 'Gull', { station: 'Slipway', distance: '1 m', script: 'Neutral' }, [1]],
      [7, 'Tern', { station: 'Slipway', distance: '10 m', script: 'Neutral' }, [2]],
      [null, null, {}, [3]],
    ]);
  });

  it('as CSV: a column a figure with its unit, an empty cell where nothing was measured, zero where it is zero', () => {
    const { data } = Papa.parse<Record<string, string>>(figuresCsv(rows), { header: true, skipEmptyLines: true });
    const snr = `${MEASURES['noise.snrDb'].label}, dB (noise.snrDb)`;
    const dc = Object.keys(data[0]!).find((heading) => heading.endsWith('(levels.dcOffset)'))!;
    expect(data.map((row) => [row.Slate, row.Tape, row.distance, row[snr], row[dc]])).toEqual([
      ['7', 'GU', '1 m', '-3.5', ''],
      ['7', 'TE', '10 m', '21.25', '0'],
      ['', '', '', '', ''],
    ]);
    expect(data[0]).toMatchObject({ 'Wind, m/s': '4.5', Started: '2026-04-14T09:00:00.000Z', 'Method version': '5' });
    // No cell is taken for a formula.
    expect(data[0]!.Remarks).toBe("'=boat, passed; lossy: MP3");
    expect(Object.keys(data[0]!).some((heading) => heading.includes('character.'))).toBe(false);
  });

  it('say of two channels how they go together, and of a backup what it is of, where there are such', () => {
    const files: Measured['files'] = [file];
    const own = [recording('1', 0, 'a', {}), { ...recording('2', 1, null, {}), backup: { ofChannel: 0, lowerByDb: 12, clipped: 5, saved: 4 } }];
    const stereo = { ...recording('3', 2, 'b', {}), channels: [2, 3], stereo: { correlation: 0.5, monoLossDb: 1.25 } };
    const csv = figuresCsv(figuresOf({ names, takes: [take], chains, files, recordings: [...own, stereo] }));
    const { data } = Papa.parse<Record<string, string>>(csv, { header: true, skipEmptyLines: true });
    expect(data.map((row) => [row.Channel, row['Backup of channel'], row['Backup of file'], row['Lower by, dB'], row['Correlation of channels'], row['Lost in mono, dB']])).toEqual(
      [
        ['1', '', '', '', '', ''],
        ['2', '1', file.name, '12', '', ''],
        ['3 and 4', '', '', '', '0.5', '1.25'],
      ],
    );
    // Where there are none, no column stands empty.
    expect(figuresCsv(rows)).not.toContain('Correlation of channels');
  });

  it('as JSON: every figure explained, null where it could not be measured', () => {
    const { measures, recordings } = JSON.parse(JSON.stringify(figuresJson('Saltreach', rows))) as {
      measures: Record<string, { unit: string }>;
      recordings: { figures: Record<string, number | null> }[];
    };
    expect(measures['noise.snrDb']).toMatchObject({ unit: 'dB', better: 'higher' });
    expect(recordings[0]?.figures).toMatchObject({ 'noise.snrDb': -3.5, 'levels.dcOffset': null });
    expect(Object.keys(recordings[0]!.figures).sort()).toEqual(MEASURE_IDS.filter((id) => !id.startsWith('range.')).sort());
  });
});
