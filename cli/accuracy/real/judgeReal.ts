import type { AudioEvent } from '@marvet/core/measure/report.types';
import { reportOf } from '../judge.ts';
import { RATE_HZ } from './decoded.ts';
import { type RealGroup, type RealTake, realTake } from './realTake.ts';
import type { Half } from './talkers.ts';

/** What a take with a recorded talker was, and what was measured of it. */
export interface JudgedReal extends Omit<RealTake, 'samples' | 'voice'> {
  group: RealGroup;
  half: Half;
  lengthS: number;
  found: Pick<AudioEvent, 'kind' | 'startS' | 'endS'>[];
  measuredFloorDbfs: number | null;
  measuredDecayS: number | null;
}

/** Renders a take and measures it. */
export function judgeReal(seed: string, group: RealGroup, half: Half, folder: string): JudgedReal {
  const { samples, voice: _voice, ...truth } = realTake(seed, group, half, folder);
  const { events, noise, character } = reportOf(samples, RATE_HZ);
  return {
    ...truth,
    group,
    half,
    lengthS: samples.length / RATE_HZ,
    found: events.map(({ kind, startS, endS }) => ({ kind, startS, endS })),
    measuredFloorDbfs: noise.floorDbfs,
    measuredDecayS: character.reverberationS,
  };
}
