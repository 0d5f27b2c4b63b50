import { describe, expect, it } from 'vitest';
import { aWeightingDb } from '../audio/weighting.ts';
import { concat, mixed, reportOf, silence, sine, whiteNoise } from '../testing/signals.ts';

/** Bursts of noise at one level over a floor at another: words and pauses of known place. */
function gated(levelDbfs: number, floorDbfs: number, onS: number, offS: number, times: number): Float64Array {
  const parts: Float64Array[] = [silence(offS)];
  for (let index = 0; index < times; index++) parts.push(whiteNoise(levelDbfs, onS, 10 + index), silence(offS));
  const signal = concat(...parts);
  return mixed(signal, whiteNoise(floorDbfs, signal.length / 48_000, 99));
}
const channelOf = (signal: Float64Array, target?: number) => reportOf([signal], target ? { targetLufs: target } : {}).channels[0]!;

describe('active level, ITU-T P.56 method B, gated noise of known duty, within 0.3 dB', () => {
  it.each([
    [1, 1.5, 6],
    [2, 1, 5],
    [0.8, 0.9, 8],
  ])('%f s on, %f s off', (onS, offS, times) => {
    const { activity } = channelOf(gated(-26, -90, onS, offS, times));
    // The method counts 200 ms after each burst as active, so the level falls by that much.
    const expected = -26 + 10 * Math.log10(onS / (onS + 0.2 + tailS));
    expect(Math.abs((activity.activeLevelDbfs ?? 0) - expected)).toBeLessThanOrEqual(0.3);
  });
  const tailS = 0.05;

  it('noise that never stops is active all the time at its own level', () => {
    const signal = concat(whiteNoise(-26, 10), silence(0.8));
    const { activity } = channelOf(signal);
    expect(Math.abs((activity.activeLevelDbfs ?? 0) + 26)).toBeLessThanOrEqual(0.3);
  });
});

describe('words and pauses', () => {
  it('boundaries are within 50 ms', () => {
    const { activity } = channelOf(gated(-26, -70, 1.2, 0.6, 4));
    expect(activity.speech).toHaveLength(4);
    activity.speech.forEach(([start, end], index) => {
      expect(Math.abs(start - (0.6 + index * 1.8))).toBeLessThanOrEqual(0.05);
      expect(Math.abs(end - (1.8 + index * 1.8))).toBeLessThanOrEqual(0.05);
    });
    expect(activity.pause).toHaveLength(5);
  });

  it('gaps under 150 ms belong to the words', () => {
    const signal = mixed(concat(silence(1), whiteNoise(-26, 0.5), silence(0.1), whiteNoise(-26, 0.5), silence(1)), whiteNoise(-75, 3.1, 5));
    expect(channelOf(signal).activity.speech).toHaveLength(1);
  });

  it('a file without words is all room tone, and says so', () => {
    const report = reportOf([whiteNoise(-60, 4)]);
    expect(report.channels[0]?.activity).toMatchObject({ speech: [], pause: [[0, 4]], activeLevelDbfs: null });
    expect(report.warnings.join()).toContain('no words found');
  });

  it('wind below the voice does not pass for words', () => {
    const rumble = sine(40, -20, 6).map((value, index) => value * (0.5 + 0.5 * Math.sin((2 * Math.PI * index) / 48_000)));
    const { activity } = channelOf(mixed(rumble, whiteNoise(-60, 6, 3)));
    expect(activity.speech).toHaveLength(0);
  });
});

describe('noise, within 0.3 dB on white noise between words', () => {
  it.each([-50, -60, -72])('floor of %i dBFS', (floor) => {
    const { noise, loudness } = channelOf(gated(-26, floor, 1, 0.7, 5));
    expect(Math.abs((noise.floorDbfs ?? 0) - floor)).toBeLessThanOrEqual(0.3);
    // White noise for words and for pauses: the weighting takes as much off both, and the noise is in the words too.
    expect(Math.abs((noise.snrDb ?? 0) - 10 * Math.log10(10 ** ((-26 - floor) / 10) - 1))).toBeLessThanOrEqual(0.3);
    expect(Math.abs((noise.calmSnrDb ?? 0) - (noise.snrDb ?? 0))).toBeLessThanOrEqual(0.3);
    expect(noise.practicalFloorDbfs).toBeCloseTo((noise.floorDbfs ?? 0) - 23 - (loudness.integratedLufs ?? 0), 9);
  });

  it('breath before words is no room tone', () => {
    const round = (seed: number) => concat(whiteNoise(-60, 0.72, seed), whiteNoise(-49, 0.08, seed + 50), whiteNoise(-26, 1, seed + 100));
    const { noise, activity } = channelOf(concat(...[1, 2, 3, 4].map(round), whiteNoise(-60, 0.8, 9)));
    expect(activity.speech).toHaveLength(4);
    expect(Math.abs((noise.floorDbfs ?? 0) + 60)).toBeLessThanOrEqual(0.3);
  });

  it('A-weighted floor of white noise follows the weighting integrated over the band', () => {
    let sum = 0;
    const steps = 4000;
    for (let step = 0; step < steps; step++) sum += 10 ** (aWeightingDb(((step + 0.5) * 24_000) / steps) / 10);
    const expected = -60 + 10 * Math.log10(sum / steps);
    const { noise } = channelOf(gated(-26, -60, 1, 0.7, 6));
    expect(Math.abs((noise.floorDbfsA ?? 0) - expected)).toBeLessThanOrEqual(0.3);
  });

  it('the target moves the practical floor by as much', () => {
    const signal = gated(-26, -60, 1, 0.7, 3);
    const at23 = channelOf(signal).noise.practicalFloorDbfs ?? 0;
    const at16 = channelOf(signal, -16).noise.practicalFloorDbfs ?? 0;
    expect(at16 - at23).toBeCloseTo(7, 9);
  });

  it('room tone marked by hand wins over the pauses', () => {
    const signal = concat(whiteNoise(-40, 1, 1), whiteNoise(-20, 1, 2), whiteNoise(-60, 1, 3), whiteNoise(-20, 1, 4));
    const noise = reportOf([signal], { roomTone: [0, 1] }).channels[0]!.noise;
    expect(Math.abs((noise.floorDbfs ?? 0) + 40)).toBeLessThanOrEqual(0.3);
  });
});
