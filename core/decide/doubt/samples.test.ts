import { describe, expect, it } from 'vitest';
import { UNKNOWN_CONDITION } from '../../domain/factor.ts';
import type { Figures } from '../../domain/recording.ts';
import { candidates, heard, id, measured, recording, take } from '../../testing/verdictInput.ts';
import { observationsOf } from '../effects/observations.ts';
import type { VerdictInput } from '../usableRecordings.ts';
import { samplesOf } from './samples.ts';

const snr = (value: number): Figures => ({ 'noise.snrDb': value });
const near = take(1, '1', ['a', 'b']);
const far = take(2, '40', ['a', 'b']);
const spoiled = take(3, '40', ['a'], { flags: [{ id: id('5'), flag: 'spoiled', atMs: 1, setupIds: [] }] });
const recordings = [recording(near, 'a', snr(36)), recording(near, 'b', snr(30)), recording(far, 'a', snr(4)), recording(far, 'b', {}), recording(spoiled, 'a', snr(90))];
const criterion = measured('noise.snrDb');
const mark = { ...heard, id: 'mark', kind: 'inspected' as const };
const input: VerdictInput = {
  criteria: [criterion, heard, mark],
  candidates,
  takes: [near, far, spoiled],
  recordings,
  ratings: [
    { recordingId: recordings[0]!.id, criterionId: 'clear', points: 7, listener: 'orla', weight: 1.5 },
    { recordingId: recordings[0]!.id, criterionId: 'clear', points: 5, listener: 'tam' },
    { recordingId: recordings[4]!.id, criterionId: 'clear', points: 1, listener: 'tam' },
  ],
  marks: [
    { trialId: 't', chainId: id('b'), criterionId: 'mark', points: 4, remark: '' },
    { trialId: 't', chainId: id('a'), criterionId: 'mark', points: null, remark: '' },
  ],
  passes: null,
};

describe('what a verdict rests on, for drawing it anew', () => {
  it('is every value with its take and its listener; nothing of a spoiled take, and no figure that there is not', () => {
    const { samples, takeIds, listeners, candidateIds } = samplesOf(input);
    expect(candidateIds).toEqual(candidates.map((each) => each.id));
    expect(takeIds).toEqual([near.id, far.id]);
    expect(listeners).toEqual(['orla', 'tam']);
    expect(samples[0]!.map(({ candidate, take: at, listener, value, weight }) => [candidate, at, listener, value, weight])).toEqual([
      [0, 0, null, 36, 1],
      [1, 0, null, 30, 1],
      [0, 1, null, 4, 1],
    ]);
    expect(samples[1]!.map(({ candidate, take: at, listener, value, weight }) => [candidate, at, listener, value, weight])).toEqual([
      [0, 0, 0, 7, 1.5],
      [0, 0, 1, 5, 1],
    ]);
    expect(samples[2]!.map(({ candidate, take: at, value }) => [candidate, at, value])).toEqual([[1, null, 4]]);
  });

  it('looks only at the conditions that a criterion names', () => {
    const named = samplesOf({ ...input, criteria: [{ ...criterion, where: { distance: ['40'] } }] });
    expect(named.samples[0]!.map(({ value }) => value)).toEqual([4]);
  });
});

describe('values with what they can hang on', () => {
  it('have their candidate, the levels of their take and setup, and who listened; marks are none', () => {
    const [measuredOn, heardOn, ...more] = observationsOf(input);
    expect(more).toEqual([]);
    expect(measuredOn!.observations.map(({ value, levels }) => [value, levels.candidate, levels.distance])).toEqual([
      [36, id('a'), '1'],
      [30, id('b'), '1'],
      [4, id('a'), '40'],
    ]);
    expect(heardOn!.observations.map(({ value, levels, takeId }) => [value, levels.listener, takeId])).toEqual([
      [7, 'orla', near.id],
      [5, 'tam', near.id],
    ]);
  });

  it('are left out, and counted, where part of their condition is not known', () => {
    const unplanned = take(4, '1', ['a', 'b'], { condition: { ...near.condition, ...UNKNOWN_CONDITION } });
    const [told] = observationsOf({
      ...input,
      takes: [near, unplanned],
      recordings: [recording(near, 'a', snr(36)), recording(unplanned, 'a', snr(20)), recording(unplanned, 'b', snr(21))],
    });
    expect(told).toMatchObject({ leftOut: 2, observations: [{ value: 36 }] });
  });
});
