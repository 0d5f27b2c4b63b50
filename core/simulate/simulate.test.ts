import { describe, expect, it } from 'vitest';
import { reportOf, sine } from '../testing/signals.ts';
import type { SimulatedCandidate } from './candidate.ts';
import type { SimulatedPlace } from './place.ts';
import { randomSource } from './random.ts';
import { renderTake, type SimulatedTake } from './renderTake.ts';
import { reverberant } from './room.ts';

const quiet: SimulatedPlace = { noiseDba: 10, noiseSlopeDb: -3, hum: null, swell: 0, windMs: 0, reverberationS: 0, criticalDistanceM: 1 };
const boom: SimulatedCandidate = {
  id: 'boom',
  wornAtM: null,
  directivity: 1,
  selfNoiseDba: 0,
  maxSplDb: 140,
  gainDbfs: -10,
  topLiftDb: 0,
  clothLossDb: 0,
  windSensitivityDb: 0,
  radio: null,
};
const take = (change: Partial<SimulatedTake>): SimulatedTake => ({
  seed: 'a',
  sampleRateHz: 48_000,
  voice: sine(500, -12, 3),
  voiceDbSpl: 70,
  leadS: 0.5,
  lengthS: 4,
  distanceM: 1,
  screen: 'bare',
  place: quiet,
  candidates: [boom],
  ...change,
});
const levelOf = (change: Partial<SimulatedTake>) => reportOf([renderTake(take(change)).channels[0]!]).channels[0]!;

describe('simulated takes', () => {
  it('are the same for the same seed, and others for another', () => {
    const candidates = [{ ...boom, radio: { reliableToM: 0.5, noiseDbfs: -70 } }];
    expect(renderTake(take({ candidates }))).toEqual(renderTake(take({ candidates })));
    expect(renderTake(take({ candidates })).channels[0]).not.toEqual(renderTake(take({ candidates, seed: 'b' })).channels[0]);
  });

  it('fall by 6 dB per doubling of the distance; a worn microphone does not', () => {
    const near = levelOf({}).loudness.integratedLufs!;
    expect(near - levelOf({ distanceM: 2 }).loudness.integratedLufs!).toBeCloseTo(6.02, 1);
    const worn = [{ ...boom, wornAtM: 0.2 }];
    expect(levelOf({ candidates: worn }).loudness.integratedLufs! - levelOf({ candidates: worn, distanceM: 40 }).loudness.integratedLufs!).toBeCloseTo(0, 1);
  });

  it('noise of the place and of the microphone have the level that was asked for', () => {
    const silent = { voice: null, lengthS: 6 };
    const placed = levelOf({ ...silent, place: { ...quiet, noiseDba: 60 } }).noise.floorDbfsA!;
    expect(Math.abs(placed - (60 - 94 - 10))).toBeLessThan(0.7);
    const own = levelOf({ ...silent, candidates: [{ ...boom, selfNoiseDba: 50 }] }).noise.floorDbfsA!;
    expect(Math.abs(own - (50 - 94 - 10))).toBeLessThan(0.3);
  });

  it('a directional microphone takes less of the noise around it', () => {
    const noisy = { voice: null, place: { ...quiet, noiseDba: 60 } };
    const omni = levelOf(noisy).noise.floorDbfs!;
    const hyper = levelOf({ ...noisy, candidates: [{ ...boom, directivity: 4 }] }).noise.floorDbfs!;
    expect(omni - hyper).toBeCloseTo(6.02, 1);
  });

  it('wind is low, and fur takes most of it away', () => {
    const windy = { voice: null, lengthS: 8, place: { ...quiet, windMs: 5 } };
    const bare = levelOf(windy);
    const fur = levelOf({ ...windy, screen: 'fur' });
    expect(bare.spectrum.groups.rumbleDb!).toBeGreaterThan(-3);
    expect(bare.noise.floorDbfs! - fur.noise.floorDbfs!).toBeGreaterThan(15);
  });

  it('cloth takes the top and leaves the rest', () => {
    const voice = Float64Array.from({ length: 96_000 }, (_, n) => 0.1 * (Math.sin((n * 2 * Math.PI * 500) / 48_000) + Math.sin((n * 2 * Math.PI * 9000) / 48_000)));
    const open = levelOf({ voice }).spectrum.speechDb;
    const under = levelOf({ voice, candidates: [{ ...boom, clothLossDb: 8 }] }).spectrum.speechDb;
    expect(open[27]! - under[27]!).toBeGreaterThan(7);
    expect(Math.abs(open[14]! - under[14]!)).toBeLessThan(0.5);
  });

  it('radio breaks up beyond its range only, and says where', () => {
    const radio = { reliableToM: 20, noiseDbfs: -80 };
    const near = renderTake(take({ distanceM: 10, lengthS: 10, candidates: [{ ...boom, wornAtM: 0.2, radio }] }));
    expect(near.truth[0]?.dropouts).toEqual([]);
    const far = renderTake(take({ distanceM: 60, lengthS: 10, candidates: [{ ...boom, wornAtM: 0.2, radio }] }));
    expect(far.truth[0]!.dropouts.length).toBeGreaterThan(2);
    for (const { startS, endS } of far.truth[0]!.dropouts) {
      const inside = far.channels[0]!.subarray(Math.round(startS * 48_000) + 60, Math.round(endS * 48_000) - 60);
      expect(Math.max(...inside.map(Math.abs))).toBe(0);
    }
  });

  it('a capsule past its maximum flattens, which the report sees', () => {
    const loud = renderTake(take({ distanceM: 0.2, candidates: [{ ...boom, maxSplDb: 80, gainDbfs: 5 }] }));
    expect(loud.truth[0]!.clippedSamples).toBeGreaterThan(100);
    expect(reportOf([loud.channels[0]!]).channels[0]!.levels.clippedRuns).toBeGreaterThan(50);
  });

  it('a room falls by 60 dB in its reverberation time', () => {
    const burst = new Float64Array(3 * 48_000);
    for (let n = 0; n < 4800; n++) burst[n] = Math.sin(n * 0.13) + Math.sin(n * 0.031);
    const wet = reverberant(burst, 48_000, 1, randomSource(3));
    const level = (fromS: number) => 10 * Math.log10(wet.subarray(fromS * 48_000, (fromS + 0.1) * 48_000).reduce((sum, value) => sum + value * value, 0));
    const seconds = (-60 * 0.5) / (level(0.8) - level(0.3));
    expect(seconds).toBeGreaterThan(0.6);
    expect(seconds).toBeLessThan(1.2);
  });
});
