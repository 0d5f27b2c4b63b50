import { describe, expect, it } from 'vitest';
import { filled } from '../audio/filled.ts';
import { reportOf, sine, whiteNoise } from '../testing/signals.ts';
import type { SimulatedCandidate } from './candidate.ts';
import type { SimulatedPlace } from './place.ts';
import { renderTake, type SimulatedTake } from './renderTake.ts';

const quiet: SimulatedPlace = { noiseDba: 10, noiseSlopeDb: -3, hum: null, swell: 0, windMs: 0, walls: null };
const boom: SimulatedCandidate = {
  id: 'boom',
  wornAtM: null,
  pattern: { pressureShare: 1, tubeM: 0 },
  placement: 'open',
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
    const hyper = levelOf({ ...noisy, candidates: [{ ...boom, pattern: { pressureShare: 0.25, tubeM: 0 } }] }).noise.floorDbfs!;
    expect(omni - hyper).toBeCloseTo(6.02, 1);
  });

  it('wind is low, and fur takes most of it away', () => {
    const windy = { voice: null, lengthS: 8, place: { ...quiet, windMs: 5 } };
    const bare = levelOf(windy);
    const fur = levelOf({ ...windy, screen: 'fur' });
    expect(bare.spectrum.groups.rumbleDb!).toBeGreaterThan(-4);
    expect(bare.spectrum.groups.rumbleDb!).toBeGreaterThan(bare.spectrum.groups.midDb! + 4);
    expect(bare.noise.floorDbfs! - fur.noise.floorDbfs!).toBeGreaterThan(15);
  });

  it('cloth takes the top and leaves the rest', () => {
    const voice = filled(96_000, (n) => 0.1 * (Math.sin((n * 2 * Math.PI * 500) / 48_000) + Math.sin((n * 2 * Math.PI * 9000) / 48_000)));
    const open = levelOf({ voice }).spectrum.speechDb;
    const under = levelOf({ voice, candidates: [{ ...boom, clothLossDb: 8 }] }).spectrum.speechDb;
    // Nine kilohertz lie half-way up the upper of its two steps.
    expect(Math.abs(open[27]! - under[27]! - 6.2)).toBeLessThan(0.3);
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

  it('in a room the voice falls less with the distance than outdoors, since the room comes along', () => {
    const walls = { sizeM: [9, 6, 3.5] as const, absorption: [0.1, 0.1, 0.1, 0.1, 0.1, 0.1] };
    // Noise rather than a tone, which would add up or cancel as the place has it.
    const level = (distanceM: number, place: SimulatedPlace) => levelOf({ voice: whiteNoise(-20, 3), distanceM, place }).loudness.integratedLufs!;
    const indoors = { ...quiet, walls };
    expect(level(1, quiet) - level(4, quiet)).toBeCloseTo(12.04, 1);
    expect(level(1, indoors) - level(4, indoors)).toBeLessThan(6);
    expect(level(4, indoors) - level(4, quiet)).toBeGreaterThan(6);
  });

  it('a microphone that does not fit into the room is not rendered as if it did', () => {
    const walls = { sizeM: [3, 2.4, 2.2] as const, absorption: [0.1, 0.1, 0.1, 0.1, 0.1, 0.1] };
    expect(() => renderTake(take({ distanceM: 8, place: { ...quiet, walls } }))).toThrow('does not fit');
  });
});
