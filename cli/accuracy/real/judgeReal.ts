import { Cascade } from '@marvet/core/audio/biquad';
import { aWeighting } from '@marvet/core/audio/weighting';
import { type Claim, claimsOf } from '@marvet/core/measure/eventWords';
import type { AudioEvent } from '@marvet/core/measure/report.types';
import { FRAME_S, FrameEnergies } from '@marvet/core/measure/tracks/frames';
import { reportOf } from '../judge.ts';
import { RATE_HZ } from './decoded.ts';
import { meanOfLoud } from './pops.ts';
import { type RealGroup, type RealTake, realTake } from './realTake.ts';
import { stiTruth } from './stiTruth.ts';
import type { Half } from './talkers.ts';

/** What a take with a recorded talker was, and what was measured of it. */
export interface JudgedReal extends Omit<RealTake, 'samples' | 'voice' | 'response' | 'underWords'> {
  group: RealGroup;
  half: Half;
  lengthS: number;
  found: Pick<AudioEvent, 'kind' | 'startS' | 'endS'>[];
  measuredFloorDbfs: number | null;
  measuredDecayS: number | null;
  /** Speech transmission index that is known of it, where a room and steady noise are all there is; and what was measured. */
  sti: number | null;
  measuredSti: number | null;
  /** Voice over all noise, A-weighted: as it was laid, and as it was measured. */
  snrDb: number;
  measuredSnrDb: number | null;
  claims: Claim[];
}

/** Renders a take and measures it. */
export function judgeReal(seed: string, group: RealGroup, half: Half, folder: string): JudgedReal {
  const { samples, voice, response, underWords, ...truth } = realTake(seed, group, half, folder);
  const report = reportOf(samples, RATE_HZ);
  const { events, noise, character, intelligibility } = report;
  // Many of these talkers were recorded in rooms of their own, which nobody knows: beside a room that was laid they hardly count.
  const known = group === 'room';
  const bed = samples.map((x, index) => x - (voice[index] as number) + (underWords[index] as number));
  return {
    ...truth,
    group,
    half,
    lengthS: samples.length / RATE_HZ,
    found: events.map(({ kind, startS, endS }) => ({ kind, startS, endS })),
    measuredFloorDbfs: noise.floorDbfs,
    measuredDecayS: character.reverberationS,
    sti: known ? stiTruth(voice, bed, response, RATE_HZ) : null,
    measuredSti: intelligibility.sti,
    snrDb: 10 * Math.log10(meanOfLoud(weightedFrames(voice)) / meanOf(weightedFrames(bed))),
    measuredSnrDb: noise.snrDb,
    claims: claimsOf(report).map(({ claim }) => claim),
  };
}

/** A-weighted mean squares of 10 ms. */
function weightedFrames(samples: Float64Array): Float64Array {
  const energies = new FrameEnergies(RATE_HZ, FRAME_S, new Cascade(aWeighting(RATE_HZ)));
  energies.push(samples, samples.length);
  return energies.view();
}

const meanOf = (powers: Float64Array) => powers.reduce((sum, power) => sum + power, 0) / Math.max(1, powers.length);
