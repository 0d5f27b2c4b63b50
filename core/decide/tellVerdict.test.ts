import { describe, expect, it } from 'vitest';
import { type Criterion, criterionDraftSchema } from '../domain/criterion.ts';
import { UNKNOWN_CONDITION } from '../domain/factor.ts';
import type { Figures } from '../domain/recording.ts';
import type { RangeRow } from '../radio/rangeWindows.ts';
import { candidates, heard, id, measured, recording, take } from '../testing/verdictInput.ts';
import { tellVerdict } from './tellVerdict.ts';
import type { VerdictInput } from './usableRecordings.ts';

const tell = (input: Partial<VerdictInput>) => tellVerdict({ criteria: [], candidates, takes: [], recordings: [], ratings: [], marks: [], passes: null, ...input });
const rowsOf = (verdict: ReturnType<typeof tell>) => Object.fromEntries(verdict.rows.map((row) => [row.candidate.name, row]));

describe('a verdict that can be defended', () => {
  const near = take(1, '1', ['a', 'b', 'c']);
  const far = take(2, '40', ['a', 'b']);
  const snr = (value: number): Figures => ({ 'noise.snrDb': value });
  const limit = measured('noise.snrDb', { dealbreaker: { side: 'below', limit: 10 } });
  const both = [recording(near, 'a', snr(36)), recording(near, 'b', snr(30)), recording(far, 'a', snr(4)), recording(far, 'b', snr(20))];

  it('a candidate that fails at 40 m stays ruled out when another is added that was recorded only at 1 m', () => {
    const before = rowsOf(tell({ criteria: [limit], candidates: candidates.slice(0, 2), takes: [near, far], recordings: both }));
    expect(before.a).toMatchObject({ rank: null, ruledOut: [{ value: 4 }] });
    const after = rowsOf(tell({ criteria: [limit], takes: [near, far], recordings: [...both, recording(near, 'c', snr(34))] }));
    expect(after.a).toMatchObject({ rank: null, ruledOut: [{ value: 4 }] });
    expect(after.b?.rank).toBe(1);
    // It looks better, but where it could fail it was never tried: it does not stand above one that was.
    expect(after.c).toMatchObject({ untested: [limit.id], rank: 2 });
    expect(after.c!.cells[0]!.coverage).toBe(0.5);
  });

  it('repeats of one condition count once, as their mean, or their middle: three good repeats do not outweigh one bad place', () => {
    const repeats = [1, 3, 4].map((slate) => take(slate, '1', ['a']));
    const recordings = [...repeats.map((each, index) => recording(each, 'a', snr([30, 36, 90][index]!))), recording(far, 'a', snr(4))];
    const cellsBy = (aggregation: 'mean' | 'median') => rowsOf(tell({ criteria: [measured('noise.snrDb', { aggregation })], takes: [...repeats, far], recordings })).a!.cells;
    expect(cellsBy('median')[0]).toMatchObject({ value: (36 + 4) / 2, count: 2 });
    expect(cellsBy('mean')[0]).toMatchObject({ value: (52 + 4) / 2, count: 2 });
  });

  it('the break-ups of a wireless chain rule it out', () => {
    const breakUps = measured('events.dropout.perMinute', { best: 0, worst: 20, dealbreaker: { side: 'above', limit: 6 } });
    const recordings = [recording(near, 'a', { 'events.dropout.perMinute': 120 }), recording(near, 'b', { 'events.dropout.perMinute': 0 })];
    const rows = rowsOf(tell({ criteria: [breakUps], candidates: candidates.slice(0, 2), takes: [near], recordings }));
    expect(rows.a?.ruledOut[0]).toMatchObject({ value: 120 });
    expect(rows.b).toMatchObject({ rank: 1, score: 100 });
  });

  it('one with a tenth of the weight known does not lead', () => {
    const recordings = [recording(near, 'a', snr(40)), recording(near, 'b', snr(20))];
    const ratings = [{ recordingId: 'r11b', criterionId: 'clear', points: 7 }];
    const rows = rowsOf(tell({ criteria: [measured('noise.snrDb'), heard], candidates: candidates.slice(0, 2), takes: [near], recordings, ratings }));
    expect(rows.a).toMatchObject({ score: 100, rank: 2 });
    expect(rows.a?.known).toBeCloseTo(0.1, 6);
    expect(rows.b?.rank).toBe(1);
  });

  it('says which slates have no audio, and how little was listened to', () => {
    const ratings = [{ recordingId: 'r11a', criterionId: 'clear', points: 7 }];
    const third = take(3, '10', ['a', 'b']);
    const verdict = tell({ criteria: [heard], takes: [near, far, third], recordings: [...both, recording(near, 'c', snr(30))], ratings });
    expect(verdict.notes.map((note) => note.text)).toEqual(['Done but without any audio: take 03.', 'Listening covered 1 of 2 conditions that were recorded.']);
  });

  it('of 05 and 05/2 one counts until it is said that both shall', () => {
    const first = take(5, '1', ['a']);
    const second = take(5, '1', ['a'], { pass: 2 });
    const input = {
      criteria: [measured('noise.snrDb')],
      candidates: candidates.slice(0, 1),
      takes: [first, second],
      recordings: [recording(first, 'a', snr(10)), recording(second, 'a', snr(30))],
    };
    const open = tell(input);
    expect(open.rows[0]?.cells[0]?.value).toBe(30);
    expect(open.notes.map((note) => note.kind)).toContain('passes');
    expect(tell({ ...input, passes: 'last' }).notes).toEqual([]);
    expect(tell({ ...input, passes: 'all' }).rows[0]?.cells[0]?.value).toBe(20);
  });

  it('a file that was cut short and the one that came in its place count once, and it is told which', () => {
    const recordings = [recording(near, 'a', snr(30), { id: 'whole', fileName: 'S1 again.wav' }), recording(near, 'a', snr(5), { cutShort: true, uploadedAtMs: 9 })];
    const verdict = tell({ criteria: [measured('noise.snrDb')], candidates: candidates.slice(0, 1), takes: [near], recordings });
    expect(verdict.rows[0]?.cells[0]?.value).toBe(30);
    expect(verdict.notes.map((note) => note.text)).toContain('Take 01 has one microphone twice: S1 again.wav counts, S1_a.wav does not.');
  });

  it('recordings from lossy files count, and whose they are is told', () => {
    const input = { criteria: [measured('noise.snrDb')], candidates: candidates.slice(0, 2), takes: [near, far] };
    const own = [recording(near, 'a', snr(30)), recording(far, 'a', snr(20), { lossyCodec: 'MP3' }), recording(near, 'b', snr(10))];
    const verdict = tell({ ...input, recordings: own });
    expect(verdict.rows.every(({ cells }) => cells[0]?.value !== null)).toBe(true);
    const [note, ...others] = verdict.notes.filter(({ kind }) => kind === 'lossy');
    expect(others).toEqual([]);
    expect(note?.text).toMatch(/^From lossy files: [^;]+ 1 of 2 \(MP3\)\. Their noise/);
    expect(tell({ ...input, recordings: own.map((each) => ({ ...each, lossyCodec: null })) }).notes.filter(({ kind }) => kind === 'lossy')).toEqual([]);
  });

  it('of takes without a plan only what one moment has is compared, and what is not known is told', () => {
    const unplanned = (slate: number, own: string[]) => ({ ...take(slate, '1', own), condition: UNKNOWN_CONDITION });
    const [quiet, loud] = [unplanned(1, ['a', 'b']), unplanned(2, ['b', 'c'])];
    const input = { criteria: [measured('noise.snrDb')], takes: [quiet, loud], candidates };
    const verdict = tell({ ...input, recordings: [recording(quiet, 'a', snr(20)), recording(quiet, 'b', snr(30)), recording(loud, 'b', snr(5)), recording(loud, 'c', snr(8))] });
    // c was never heard beside a: that it was in a louder place is no fault of c.
    const { a, b, c } = rowsOf(verdict);
    expect([a, b, c].map((row) => row?.cells[0]?.count)).toEqual([1, 2, 1]);
    expect([a, c].map((row) => row?.cells[0]?.sameConditions)).toEqual([false, false]);
    expect([a, b, c].map((row) => row?.cells[0]?.value)).toEqual([7.5, 17.5, 20.5]);
    expect(verdict.notes.filter(({ kind }) => kind === 'not known').map(({ text }) => text)).toEqual([
      'Recorded without a plan: station, windscreen, distance, script of 2 takes are not known, so nobody can say that they were equal for all. Only what one moment has of several candidates is compared.',
    ]);
    const alone = unplanned(3, ['a']);
    expect(tell({ ...input, takes: [alone], recordings: [recording(alone, 'a', snr(9))] }).notes[0]?.text).toContain('Take 03 has one candidate alone');
    expect(tell({ ...input, takes: [near], recordings: [recording(near, 'a', snr(9))] }).notes.filter(({ kind }) => kind === 'not known')).toEqual([]);
  });

  it('a level that differs within a take is a condition of its own', () => {
    const within = take(7, '1', ['a'], { setups: ['high', 'low'].map((rig, index) => ({ id: id(`3${index}`), candidateId: id('a'), levels: { rig } })) });
    const recordings = within.setups.map((setup, index) => ({
      ...recording(take(7, '1', ['a']), 'a', snr(index === 0 ? 10 : 30)),
      id: `w${index}`,
      takeId: within.id,
      setupId: setup.id,
    }));
    const criterion = measured('noise.snrDb', { where: { rig: ['low'] } });
    expect(tell({ criteria: [criterion], candidates: candidates.slice(0, 1), takes: [within], recordings }).rows[0]?.cells[0]).toMatchObject({ value: 30, count: 1 });
  });
});

describe('how far links hold, as a criterion', () => {
  const range = (who: string, stationId: string, side: 'facing' | 'turned', reliableToM: number): RangeRow => ({
    candidateId: id(who),
    stationId,
    side,
    marks: [],
    range: { windows: 10, brokeUp: 3, nearestM: 5, farthestM: 100, reliableToM, lowM: null, highM: null, atLeastM: null },
  });
  const turned = (rest: Partial<Criterion> = {}): Criterion => ({
    ...criterionDraftSchema.parse({ name: 'Turned', kind: 'measured', measureId: 'range.turnedM', weight: 10, best: 80, worst: 0, dealbreaker: { side: 'below', limit: 15 } }),
    id: 'turned',
    trialId: 't',
    ...rest,
  });
  const ranges = [range('a', 's', 'turned', 40), range('a', 's', 'facing', 90), range('b', 's', 'turned', 12), range('a', 'other', 'turned', 8)];

  it('ranks by the side that it names, and rules out below its limit, without any audio', () => {
    const rows = rowsOf(tell({ criteria: [turned({ where: { station: ['s'] } })], ranges }));
    expect(rows.a).toMatchObject({ rank: 1, cells: [{ value: 40 }], ruledOut: [] });
    expect(rows.b).toMatchObject({ rank: null, ruledOut: [{ value: 12 }] });
    expect(rows.c).toMatchObject({ missing: ['turned'], untested: ['turned'] });
  });

  it('looks at every station where none is named', () => {
    expect(rowsOf(tell({ criteria: [turned()], ranges })).a).toMatchObject({ rank: null, ruledOut: [{ value: 8 }] });
  });

  it('of a walk no audio is asked for', () => {
    const walked = take(1, '1', ['a'], { walk: [{ what: 'mark', distanceM: 10, by: 'peg', id: id('7'), atMs: 1 }] });
    expect(tell({ criteria: [], takes: [walked] }).notes).toEqual([]);
    expect(tell({ criteria: [], takes: [take(1, '1', ['a'])] }).notes).toHaveLength(1);
  });
});

describe('candidates that were not recorded under the same conditions', () => {
  const snr = (value: number): Figures => ({ 'noise.snrDb': value });
  const [near, far] = [take(1, '1', ['a', 'b', 'c']), take(2, '40', ['a', 'b', 'c'])];
  const all = (who: string[], of: typeof near, base: number) => who.map((name) => recording(of, name, snr(base + 'abc'.indexOf(name))));
  const criterion = measured('noise.snrDb');
  const kinds = (verdict: ReturnType<typeof tell>) => verdict.notes.map(({ kind }) => kind).filter((kind) => kind === 'reckoned' || kind === 'unlike');

  it('one that lacks a hard condition does not gain by it, and it is said what was reckoned', () => {
    const whole = tell({ criteria: [criterion], takes: [near, far], recordings: [...all(['a', 'b', 'c'], near, 30), ...all(['a', 'b', 'c'], far, 10)] });
    const lacks = tell({ criteria: [criterion], takes: [near, far], recordings: [...all(['a', 'b', 'c'], near, 30), ...all(['b', 'c'], far, 10)] });
    expect(rowsOf(lacks).a?.cells[0]?.value).toBeCloseTo(rowsOf(whole).a?.cells[0]?.value as number, 9);
    expect(rowsOf(lacks).a?.cells[0]).toMatchObject({ count: 1, reckoned: 1, reckonedBy: 'condition', coverage: 0.5 });
    expect(kinds(whole)).toEqual([]);
    expect(lacks.notes.find(({ kind }) => kind === 'reckoned')?.text).toContain('Not recorded under all conditions that are compared: a, in noise.snrDb.');
  });

  it('one that met none of the others is held against none, and its own limit still rules it out', () => {
    const limit = measured('noise.snrDb', { dealbreaker: { side: 'below', limit: 11 } });
    const verdict = tell({ criteria: [limit], takes: [near, far], recordings: [...all(['a', 'b'], near, 30), recording(far, 'c', snr(10))] });
    expect(rowsOf(verdict).c).toMatchObject({ score: null, rank: null, missing: [limit.id], unlike: [limit.id], ruledOut: [{ value: 10 }] });
    expect(rowsOf(verdict).b?.rank).toBe(1);
    expect(kinds(verdict)).toEqual(['unlike']);
    expect(verdict.notes.find(({ kind }) => kind === 'unlike')?.text).toContain('noise.snrDb of c cannot be held against that of the others');
  });
});
