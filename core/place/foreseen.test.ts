import { describe, expect, it } from 'vitest';
import { THIRD_OCTAVE_HZ } from '../audio/bands.ts';
import { rigRecordSchema } from '../domain/rigRecord.ts';
import { acousticsSchema } from '../domain/station.ts';
import { eyringS } from '../simulate/imageRoom.ts';
import { type FoundRecording, foreseenRows, foreseenSums, offWords } from './foreseen.ts';
import { windAgainstScreens } from './windFigures.ts';

const NOTHING = { snrDb: null, reverberationS: null, activeLevelDbfs: null, spectra: null };
let count = 0;
const recording = (given: Partial<Omit<FoundRecording, 'found'>> & { found?: Partial<FoundRecording['found']> }): FoundRecording => ({
  recordingId: `r${count++}`,
  takeId: 't1',
  candidateId: 'c1',
  stationId: 's1',
  place: acousticsSchema.parse({ noiseDba: 40 }),
  noiseDba: null,
  windMs: null,
  screen: null,
  as: { kind: 'boom', placement: null },
  boomDistanceM: 1,
  pattern: { pressureShare: 1, tubeM: 0 },
  gains: 'null',
  ...given,
  found: { ...NOTHING, ...given.found },
});
const only = (kind: string, ...recordings: FoundRecording[]) => foreseenRows(recordings).filter((row) => row.kind === kind);

describe('voice over noise foreseen', () => {
  it('is 60 dB A at 1 m over the noise: 20 dB over 40, 6.02 less at twice the distance', () => {
    expect(only('voice over noise', recording({ found: { snrDb: 23 } }))[0]).toMatchObject({ foreseen: 20, error: 3 });
    expect(only('voice over noise', recording({ boomDistanceM: 2, found: { snrDb: 13 } }))[0]!.foreseen).toBeCloseTo(20 - 6.02, 2);
  });

  it('goes by the noise that was read at the take before that of the station, and by the pattern', () => {
    expect(only('voice over noise', recording({ noiseDba: 50, found: { snrDb: 10 } }))[0]!.foreseen).toBeCloseTo(10, 6);
    expect(only('voice over noise', recording({ pattern: { pressureShare: 0.5, tubeM: 0 }, found: { snrDb: 20 } }))[0]!.foreseen).toBeCloseTo(24.77, 1);
  });

  it('holds wind in the open behind the screen of the plan, and none within walls', () => {
    const windy = { windMs: 6, place: acousticsSchema.parse({ noiseDba: 0 }), found: { snrDb: 0 } };
    const bare = only('voice over noise', recording({ ...windy, screen: 'bare' }))[0]!.foreseen;
    expect(bare).toBeCloseTo(windAgainstScreens(6, 60)[0]!.overDb, 1);
    expect(only('voice over noise', recording({ ...windy, screen: 'fur' }))[0]!.foreseen).toBeGreaterThan(bare + 20);
    const room = acousticsSchema.parse({ noiseDba: 40, sizeM: [5, 4, 3], absorption: Array(6).fill(0.2) });
    expect(only('voice over noise', recording({ ...windy, place: room, screen: 'bare' }))[0]!.foreseen).toBeCloseTo(20, 6);
  });

  it('is not foreseen where noise, distance or the screen against a wind that blows are not known', () => {
    expect(only('voice over noise', recording({ place: acousticsSchema.parse({}), found: { snrDb: 20 } }))).toEqual([]);
    expect(only('voice over noise', recording({ boomDistanceM: null, found: { snrDb: 20 } }))).toEqual([]);
    expect(only('voice over noise', recording({ windMs: 5, screen: null, found: { snrDb: 20 } }))).toEqual([]);
  });
});

describe('level by distance foreseen', () => {
  it('falls by 6.02 dB a doubling in the open, against the nearest of the same candidate and gain', () => {
    const near = recording({ found: { activeLevelDbfs: -20 } });
    const far = recording({ boomDistanceM: 2, found: { activeLevelDbfs: -27 } });
    const [row] = only('level by distance', near, far);
    expect(row!.foreseen).toBeCloseTo(-6.02, 2);
    expect(row!.error).toBeCloseTo(-0.98, 2);
  });

  it('falls less in a room, where its own sound stays', () => {
    const place = acousticsSchema.parse({ sizeM: [5, 4, 3], absorption: Array(6).fill(0.1) });
    const [row] = only('level by distance', recording({ place, found: { activeLevelDbfs: -20 } }), recording({ place, boomDistanceM: 2, found: { activeLevelDbfs: -21 } }));
    expect(row!.foreseen).toBeGreaterThan(-2);
  });

  it('is not told of another gain', () => {
    expect(
      only('level by distance', recording({ found: { activeLevelDbfs: -20 } }), recording({ gains: '{"recorder":6}', boomDistanceM: 2, found: { activeLevelDbfs: -20 } })),
    ).toEqual([]);
  });
});

describe('decay foreseen', () => {
  it('is Eyring’s of the middle bands, its error a share', () => {
    const walls = { sizeM: [5, 4, 3] as [number, number, number], absorption: [0.1, 0.1, 0.2, 0.2, 0.1, 0.1] };
    const foreseen = eyringS(walls)[2] as number;
    const [row] = only('decay', recording({ place: acousticsSchema.parse(walls), found: { reverberationS: 1.2 * foreseen } }));
    expect(row!.foreseen).toBeCloseTo(foreseen, 9);
    expect(row!.error).toBeCloseTo(0.2, 6);
  });
});

describe('top against the boom foreseen', () => {
  const spectra = (topDb: number) => ({ speechDb: THIRD_OCTAVE_HZ.map((hz) => (hz > 2500 ? -40 + topDb : -40)), pauseDb: THIRD_OCTAVE_HZ.map(() => -90) });
  const boom = recording({ found: { spectra: spectra(0) } });
  const worn = (under: boolean, rig: object | null) =>
    recording({
      as: { kind: 'worn', spot: 'lapel', under, placement: null, rig: rig && (rigRecordSchema.partial().parse(rig) as never) },
      found: { spectra: spectra(-5) },
    });

  it('is found as the takes have it', () => {
    const [row] = only('top against the boom', worn(false, null), boom);
    expect(row!.found).toBeCloseTo(-5 + 0.4, 0);
  });

  it('is not foreseen under a cloth that nobody noted', () => {
    expect(only('top against the boom', worn(true, null), boom)).toEqual([]);
  });
});

describe('how right it was', () => {
  const rows = (errors: number[], distances = [1, 2, 4, 8]) =>
    errors.map((error, index) => ({
      kind: 'voice over noise' as const,
      recordingId: `${index}`,
      takeId: 't',
      candidateId: 'c',
      stationId: 's',
      distanceM: distances[index % distances.length] as number,
      foreseen: 20,
      found: 20 + error,
      error,
    }));

  it('is said to be off where all are off alike, and not where they scatter or are few', () => {
    expect(foreseenSums(rows([8, 9, 8, 9]))[0]).toMatchObject({ count: 4, medianError: 8.5, off: true });
    expect(foreseenSums(rows([-9, 12, -10, 25]))[0]).toMatchObject({ off: false, scattered: true });
    expect(foreseenSums(rows([8, 9]))[0]!.off).toBe(false);
    expect(foreseenSums(rows([1, 2, 1, 2]))[0]).toMatchObject({ off: false, scattered: false });
  });

  it('has a trend by doubling of the distance, from three distances on', () => {
    expect(foreseenSums(rows([0, -2, -4, -6]))[0]!.perDoubling).toBeCloseTo(-2, 9);
    expect(foreseenSums(rows([0, -2, -4], [1, 1, 2]))[0]!.perDoubling).toBeNull();
  });

  it('says other words for too much than for too little', () => {
    for (const kind of ['voice over noise', 'level by distance', 'decay', 'top against the boom'] as const)
      expect(offWords({ kind, medianError: 1 })).not.toBe(offWords({ kind, medianError: -1 }));
  });
});
