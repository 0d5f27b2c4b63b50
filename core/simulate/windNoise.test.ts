import FFT from 'fft.js';
import { describe, expect, it } from 'vitest';
import { cascadeDb } from '../audio/biquad.ts';
import { CLOTHS, clothSections, FRICTION_HZ } from './cloth.ts';
import { slopedNoise } from './noiseBed.ts';
import { randomSource } from './random.ts';
import { layRustle } from './touches.ts';
import { windNoise } from './windNoise.ts';

const RATE_HZ = 48_000;
const SECONDS = 20;

/** Power in each octave band by a plain transform in blocks. */
function octavesDb(signal: Float64Array, middlesHz: readonly number[]): number[] {
  const size = 8192;
  const fft = new FFT(size);
  const power = new Float64Array(size / 2);
  const out = new Float64Array(2 * size);
  for (let start = 0; start + size <= signal.length; start += size) {
    const block = signal.slice(start, start + size).map((x, index) => x * (0.5 - 0.5 * Math.cos((2 * Math.PI * index) / size)));
    fft.realTransform(out, block);
    for (let bin = 0; bin < size / 2; bin++) power[bin] = (power[bin] as number) + (out[2 * bin] as number) ** 2 + (out[2 * bin + 1] as number) ** 2;
  }
  return middlesHz.map((hz) => {
    let sum = 0;
    for (let bin = Math.ceil((hz / Math.SQRT2 / RATE_HZ) * size); bin < (hz * Math.SQRT2 * size) / RATE_HZ; bin++) sum += power[bin] as number;
    return 10 * Math.log10(sum);
  });
}

const OCTAVES_HZ = [125, 250, 500, 1000, 2000, 4000, 8000];
const slopeOf = (levels: number[]) => ((levels.at(-1) as number) - (levels[0] as number)) / (levels.length - 1);

describe('noise', () => {
  it.each([0, -3, -4, -5, -6, -7, -9])('falls by %f dB an octave per hertz, which is 3 dB less in octave bands', (slopeDb) => {
    const levels = octavesDb(slopedNoise(SECONDS * RATE_HZ, RATE_HZ, slopeDb, randomSource(3)), OCTAVES_HZ);
    expect(Math.abs(slopeOf(levels) - slopeDb - 3.01)).toBeLessThan(0.25);
  });
});

describe('wind', () => {
  const wind = (screen: string, speedMs = 5) => windNoise({ speedMs, screen, sensitivityDb: 0 }, SECONDS * RATE_HZ, RATE_HZ, randomSource(7));

  it.each([
    ['bare', -2],
    ['foam', -3],
    ['fur', -4],
  ])('on a capsule that is %s falls by %i dB an octave, from band to band', (screen, slopeDb) => {
    const levels = octavesDb(wind(screen).signal, OCTAVES_HZ);
    expect(Math.abs(slopeOf(levels) - slopeDb)).toBeLessThan(0.3);
    for (const [index, level] of levels.slice(1).entries()) expect(Math.abs(level - levels[index]! - slopeDb)).toBeLessThan(1.2);
  });

  it('is weaker by the screen, and grows with the speed', () => {
    const rms = (signal: Float64Array) => 10 * Math.log10(signal.reduce((sum, x) => sum + x * x, 0) / signal.length);
    expect(Math.abs(rms(wind('bare').signal) - rms(wind('fur').signal) - 24)).toBeLessThan(1.5);
    expect(rms(wind('bare', 8).signal) - rms(wind('bare', 4).signal)).toBeCloseTo(17, 5);
    expect(windNoise({ speedMs: 0, screen: 'bare', sensitivityDb: 0 }, 100, RATE_HZ, randomSource(1))).toEqual({ signal: new Float64Array(100), gusts: [] });
  });
});

describe('cloth', () => {
  it('takes all of its loss at the top and nothing in the lows', () => {
    const at = (hz: number) => cascadeDb(clothSections(8, RATE_HZ), hz, RATE_HZ);
    expect(at(18_000)).toBeCloseTo(-8, 0);
    expect(Math.abs(at(400))).toBeLessThan(0.3);
    expect(at(6000)).toBeLessThan(at(3000));
    expect(clothSections(0, RATE_HZ)).toEqual([]);
  });

  it.each(CLOTHS)('%s rubs in its own part of the spectrum', (cloth) => {
    const rubbed = new Float64Array(4 * RATE_HZ);
    layRustle(rubbed, RATE_HZ, 0.1, 3.8, 70, cloth, randomSource(2));
    const bands = [63, 125, 250, 500, 1000, 2000, 4000, 8000, 16_000];
    const levels = octavesDb(rubbed, bands);
    const loudest = bands[levels.indexOf(Math.max(...levels))] as number;
    const [fromHz, toHz] = FRICTION_HZ[cloth];
    expect(loudest).toBeGreaterThanOrEqual(fromHz);
    expect(loudest).toBeLessThanOrEqual(toHz);
  });
});
