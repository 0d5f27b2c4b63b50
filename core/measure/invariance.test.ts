import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { concat, reportOf, silence, spoken } from '../testing/signals.ts';
import type { ChannelReport } from './report.types.ts';

/** Words over a floor, long enough for every figure. */
const speech = fc
  .record({ levelDbfs: fc.integer({ min: -34, max: -24 }), floorDbfs: fc.integer({ min: -70, max: -58 }), seed: fc.integer({ min: 1, max: 500 }) })
  .map(({ levelDbfs, floorDbfs, seed }) => spoken(levelDbfs, floorDbfs, seed));
const RUNS = { numRuns: 6 };

const channelOf = (samples: Float64Array): ChannelReport => reportOf([samples]).channels[0] as ChannelReport;
const times = (samples: Float64Array, factor: number) => samples.map((value) => value * factor);

describe('what must be true of a report, whatever is recorded', () => {
  it('so many decibels more move every level by as many, and no difference of levels at all', () => {
    fc.assert(
      fc.property(speech, fc.double({ min: -12, max: 6, noNaN: true }), (samples, gainDb) => {
        const [before, after] = [channelOf(samples), channelOf(times(samples, 10 ** (gainDb / 20)))];
        const moved: [number | null, number | null][] = [
          [before.levels.samplePeakDbfs, after.levels.samplePeakDbfs],
          [before.levels.truePeakDbtp, after.levels.truePeakDbtp],
          [before.levels.rmsDbfs, after.levels.rmsDbfs],
          [before.loudness.integratedLufs, after.loudness.integratedLufs],
          [before.loudness.momentaryMaxLufs, after.loudness.momentaryMaxLufs],
          [before.activity.activeLevelDbfs, after.activity.activeLevelDbfs],
          [before.noise.floorDbfs, after.noise.floorDbfs],
          [before.noise.floorDbfsA, after.noise.floorDbfsA],
        ];
        for (const [one, other] of moved) expect((other as number) - (one as number)).toBeCloseTo(gainDb, 1);
        expect(after.levels.crestDb).toBeCloseTo(before.levels.crestDb as number, 3);
        expect(after.noise.snrDb).toBeCloseTo(before.noise.snrDb as number, 1);
        expect(after.noise.practicalFloorDbfsA).toBeCloseTo(before.noise.practicalFloorDbfsA as number, 1);
        expect(after.spectrum.tiltDbPerOctave).toBeCloseTo(before.spectrum.tiltDbPerOctave as number, 1);
      }),
      RUNS,
    );
  });

  it('a line with its poles exchanged sounds the same, and measures the same', () => {
    fc.assert(
      fc.property(speech, (samples) => {
        const { dcOffset: _up, ...levels } = channelOf(samples).levels;
        const turned = channelOf(times(samples, -1));
        const { dcOffset: _down, ...turnedLevels } = turned.levels;
        expect(turnedLevels).toEqual(levels);
        expect(turned.loudness).toEqual(channelOf(samples).loudness);
        expect(turned.noise).toEqual(channelOf(samples).noise);
        expect(turned.spectrum).toEqual(channelOf(samples).spectrum);
      }),
      RUNS,
    );
  });

  it('which track a channel lies on changes nothing of it', () => {
    fc.assert(
      fc.property(speech, speech, (first, second) => {
        const { channels: there } = reportOf([first, second]);
        const { channels: back } = reportOf([second, first]);
        expect(back[1]?.loudness).toEqual(there[0]?.loudness);
        expect(back[0]?.noise).toEqual(there[1]?.noise);
        expect(back[0]?.spectrum).toEqual(there[1]?.spectrum);
      }),
      RUNS,
    );
  });

  it('silence before and after is gated out of loudness and of the level of speech', () => {
    fc.assert(
      fc.property(speech, fc.integer({ min: 1, max: 4 }), (samples, seconds) => {
        const alone = channelOf(samples);
        const surrounded = channelOf(concat(silence(seconds), samples, silence(1)));
        expect(surrounded.loudness.integratedLufs as number).toBeCloseTo(alone.loudness.integratedLufs as number, 0);
        expect(Math.abs((surrounded.activity.activeLevelDbfs as number) - (alone.activity.activeLevelDbfs as number))).toBeLessThan(0.3);
        expect(surrounded.levels.truePeakDbtp).toBeCloseTo(alone.levels.truePeakDbtp as number, 2);
      }),
      RUNS,
    );
  });

  it('true peak is never under the sample peak, nor the crest under that of a sine', () => {
    fc.assert(
      fc.property(speech, (samples) => {
        const { levels } = channelOf(samples);
        expect(levels.truePeakDbtp as number).toBeGreaterThanOrEqual((levels.samplePeakDbfs as number) - 0.4);
        expect(levels.crestDb as number).toBeGreaterThan(3);
      }),
      RUNS,
    );
  });
});
