import { describe, expect, it } from 'vitest';
import { Cascade, highShelf, peaking } from '../../audio/biquad.ts';
import { interpolated, resample } from '../../audio/resample.ts';
import { randomSource } from '../../simulate/random.ts';
import { windNoise } from '../../simulate/windNoise.ts';
import { concat, mixed, silence, whiteNoise } from '../../testing/signals.ts';
import { eqMatch, matchFilterDb } from './eqMatch.ts';
import { measurePair } from './pair.ts';
import { sampleTrack } from './track.ts';

const RATE_HZ = 48_000;

/** Bursts of uneven length and strength, as words are, coloured a little. */
function talk(lengthS: number, seed: number): Float64Array {
  const parts: Float64Array[] = [silence(0.4)];
  let seconds = 0.4;
  for (let index = 0; seconds < lengthS; index++) {
    const word = 0.18 + 0.31 * ((index * 0.618) % 1);
    const gap = 0.07 + 0.4 * ((index * 0.381) % 1);
    parts.push(whiteNoise(-24 - 8 * ((index * 0.77) % 1), word, seed + index), silence(gap));
    seconds += word + gap;
  }
  const whole = concat(...parts).subarray(0, Math.round(lengthS * RATE_HZ));
  const out = mixed(whole, whiteNoise(-78, lengthS, seed + 999));
  new Cascade([highShelf(2500, -10, RATE_HZ)]).process(out, out, out.length);
  return out;
}

const pairOf = (channel: Float64Array, reference: Float64Array, channelRateHz = RATE_HZ) =>
  measurePair(sampleTrack(channel, channelRateHz), sampleTrack(reference, RATE_HZ), () => undefined);
/** The signal as a device hears it whose clock and start differ. */
const late = (signal: Float64Array, latencyS: number, driftPpm: number) =>
  interpolated(signal, -latencyS * RATE_HZ, 1 / (1 + driftPpm * 1e-6), signal.length + Math.round(Math.max(0, latencyS) * RATE_HZ));

const short = talk(12, 1);

describe('a pair', () => {
  it('against itself is 0 ms, 0 ppm, +1, 0 dB', () => {
    const warnings: string[] = [];
    const pair = measurePair(sampleTrack(short, RATE_HZ), sampleTrack(short, RATE_HZ), (message) => warnings.push(message));
    // Nothing of what is said of pairs that do not fit, or have no voice, may be said of this one.
    expect(warnings).toEqual([]);
    expect(pair.latencyMs).toBeCloseTo(0, 3);
    expect(pair.driftPpm).toBeCloseTo(0, 2);
    expect(pair.polarity).toBe(1);
    expect(pair.levelDiffDb).toBeCloseTo(0, 5);
    expect(pair.spectralDistanceDb).toBeCloseTo(0, 4);
    expect(pair.eqMatch).toEqual([]);
    expect(pair.coherentSnrDb).toBeGreaterThan(80);
  });

  it.each([
    [3.37, 0],
    [-12.5, 0],
    [0.4137, 0],
    [850.02, 0],
  ])('late by %f ms, found within 0.02 ms', (latencyMs) => {
    expect(Math.abs((pairOf(late(short, latencyMs / 1000, 0), short).latencyMs ?? 0) - latencyMs)).toBeLessThanOrEqual(0.02);
  });

  it.each([-35])('a drift of %f ppm over a minute, found within 1 ppm', (driftPpm) => {
    const minute = talk(60, 40);
    const pair = pairOf(late(minute, 0.2, driftPpm), minute);
    expect(Math.abs((pair.driftPpm ?? 0) - driftPpm)).toBeLessThanOrEqual(1);
    // The late device counts the first 200 ms on its own clock.
    expect(Math.abs((pair.latencyMs ?? 0) - 200 * (1 + driftPpm * 1e-6))).toBeLessThanOrEqual(0.02);
  });

  it('turned over and 20 dB lower, with noise of its own', () => {
    const other = mixed(
      short.map((x) => -0.1 * x),
      whiteNoise(-90, 12, 77),
    );
    const pair = pairOf(other, short);
    expect(pair.polarity).toBe(-1);
    expect(Math.abs((pair.levelDiffDb ?? 0) + 20)).toBeLessThanOrEqual(0.1);
    expect(Math.abs(pair.latencyMs ?? 9)).toBeLessThanOrEqual(0.02);
  });

  it.each([30, 18.3])('the other started %f s later', (offsetS) => {
    const long = talk(50, 7);
    const pair = pairOf(long.subarray(Math.round(offsetS * RATE_HZ)), long);
    expect(Math.abs((pair.latencyMs ?? 0) + offsetS * 1000)).toBeLessThanOrEqual(0.02);
    const swapped = pairOf(long, long.subarray(Math.round(offsetS * RATE_HZ)));
    expect(Math.abs((swapped.latencyMs ?? 0) - offsetS * 1000)).toBeLessThanOrEqual(0.02);
  });

  it.each([16_000, 44_100])('the other at %i Hz', (otherHz) => {
    const pair = pairOf(resample(late(short, 0.005, 0), RATE_HZ, otherHz), short, otherHz);
    expect(Math.abs((pair.latencyMs ?? 0) - 5)).toBeLessThanOrEqual(0.02);
    expect(Math.abs(pair.bandDiffDb[17] ?? 9)).toBeLessThan(0.1);
    if (otherHz === 16_000) expect(pair.bandDiffDb[27]).toBeNull();
  });

  it('noise of its own shows as the coherent signal-to-noise ratio', () => {
    const noisy = mixed(short, whiteNoise(-50, 12, 5));
    const clean = pairOf(short, short).coherentSnrDb ?? 0;
    const ratio = pairOf(noisy, short).coherentSnrDb ?? 0;
    expect(ratio).toBeLessThan(clean - 30);
    expect(ratio).toBeGreaterThan(8);
    expect(ratio).toBeLessThan(25);
  });

  it('the equalisation undoes a filter that was put in', () => {
    const coloured = Float64Array.from(short);
    new Cascade([peaking(800, 6, 1, RATE_HZ), highShelf(4000, -8, RATE_HZ)]).process(coloured, coloured, coloured.length);
    const pair = pairOf(coloured, short);
    expect(pair.spectralDistanceDb).toBeGreaterThan(3);
    expect(pair.matchedDistanceDb).toBeLessThan(0.4);
    expect(pair.eqMatch.length).toBeLessThanOrEqual(5);
    const at = (hz: number) => pair.eqMatch.reduce((sum, filter) => sum + matchFilterDb(filter, hz), 0);
    expect(Math.abs(at(8000) - at(800) - (6 + 8))).toBeLessThan(1);
  });

  it('two performances of the same rhythm, one after the other, are not one: all null, and it is said', () => {
    // Each word and pause of the one is as long as that of the other, so that their level curves agree.
    const warnings: string[] = [];
    const pair = measurePair(sampleTrack(talk(20, 500), RATE_HZ), sampleTrack(talk(20, 900), RATE_HZ), (message) => warnings.push(message));
    expect(
      Object.values(pair)
        .flat()
        .filter((value) => value !== null),
    ).toEqual([]);
    expect(warnings.join()).toMatch(/not the same performance|could not be aligned/);
  });

  it.each([0, 6, 12])('in wind of its own on each, %i dB over the voice, it lies where it lay, or is left open', (overDb) => {
    const voiceDb = 10 * Math.log10(short.reduce((sum, x) => sum + x * x, 0) / short.length);
    const blown = (seed: number) => {
      const { signal } = windNoise({ speedMs: 5, screen: 'bare', sensitivityDb: 0 }, short.length, RATE_HZ, randomSource(seed));
      const gain = 10 ** ((voiceDb + overDb) / 20) / Math.sqrt(signal.reduce((sum, x) => sum + x * x, 0) / signal.length);
      return mixed(
        short,
        signal.map((x) => gain * x),
      );
    };
    for (const seed of [1, 3]) expect(Math.abs(pairOf(blown(seed), blown(seed + 1)).latencyMs ?? 0)).toBeLessThan(0.1);
  });

  it('one that started nine minutes before the other is laid where it belongs', () => {
    const lengthS = 580;
    const low = 16_000;
    const long = resample(talk(lengthS, 21), RATE_HZ, low);
    const pair = measurePair(sampleTrack(long.subarray(540 * low), low), sampleTrack(long, low), () => undefined);
    expect(Math.abs((pair.latencyMs ?? 0) + 540_000)).toBeLessThanOrEqual(0.05);
  });

  it.each([10, 20, 30])('white noise of its own, %i dB under the voice, moves no filter: none by more than 1 dB', (underDb) => {
    const voiceDb = 10 * Math.log10(short.reduce((sum, x) => sum + x * x, 0) / short.length);
    for (const noisy of [true, false]) {
      const withNoise = mixed(short, whiteNoise(voiceDb - underDb, 12, 31));
      const pair = noisy ? pairOf(withNoise, short) : pairOf(short, withNoise);
      const at = (hz: number) => pair.eqMatch.reduce((sum, filter) => sum + matchFilterDb(filter, hz), 0);
      const gains = [125, 250, 500, 1000, 2000, 4000, 8000].map(at);
      expect(Math.max(...gains) - Math.min(...gains)).toBeLessThan(1);
    }
  });

  it('where no voice is there is no equalisation to advise', () => {
    const warnings: string[] = [];
    const noise = whiteNoise(-40, 12, 8);
    const coloured = Float64Array.from(noise);
    new Cascade([highShelf(3000, 9, RATE_HZ)]).process(coloured, coloured, coloured.length);
    const pair = measurePair(sampleTrack(coloured, RATE_HZ), sampleTrack(noise, RATE_HZ), (message) => warnings.push(message));
    expect(pair).toMatchObject({ eqMatch: [], spectralDistanceDb: null, matchedDistanceDb: null });
    expect(warnings.join()).toContain('no words with pauses');
  });

  it('of two that have nothing in common says so, and gives no figures', () => {
    const warnings: string[] = [];
    const pair = measurePair(sampleTrack(talk(10, 500), RATE_HZ), sampleTrack(whiteNoise(-30, 10, 3), RATE_HZ), (message) => warnings.push(message));
    expect(pair.latencyMs).toBeNull();
    expect(warnings.join()).toContain('could not be aligned');
  });
});

describe('matching filters', () => {
  it('never make it worse, and leave alone what is alike', () => {
    expect(eqMatch([100, 200, 400, 800], [2, 2, 2, 2])).toMatchObject({ filters: [], before: 0 });
    const rough = eqMatch([100, 200, 400, 800, 1600, 3200, 6400], [5, -3, 4, -6, 2, 8, -9]);
    expect(rough.after).toBeLessThan(rough.before);
    expect(rough.filters.length).toBeLessThanOrEqual(5);
  });
});
