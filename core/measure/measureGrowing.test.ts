import { describe, expect, it } from 'vitest';
import { bufferSource } from '../audio/byteSource.ts';
import { readWavHeader } from '../audio/readWavHeader.ts';
import type { WavLayout } from '../audio/wavFormat.ts';
import { writeWav } from '../audio/writeWav.ts';
import { voiced } from '../testing/voiced.ts';
import { type GrowingFile, type HeardWhileGrowing, measureGrowing } from './measureGrowing.ts';
import { measureFile } from './report.ts';

const RATE = 48_000;
const S = 20;

/** A voice over room tone, with a hole in it. */
function channel(hole: [number, number]): Float64Array {
  const samples = voiced(S);
  samples.fill(0, Math.round(hole[0] * RATE), Math.round(hole[1] * RATE));
  return samples;
}

/** A file of which a second more is there each time somebody waits. */
function growing(bytes: Uint8Array, stepS: number): GrowingFile {
  const source = bufferSource(bytes);
  const whole = readWavHeader(source);
  let frames = 0;
  return {
    source,
    now: (): WavLayout => ({ ...whole, format: { ...whole.format, frames, durationS: frames / RATE } }),
    waitFor(known) {
      frames = Math.min(whole.format.frames, Math.round(frames + stepS * RATE));
      return frames > known;
    },
  };
}

const rounded = (value: unknown): unknown => JSON.parse(JSON.stringify(value, (_key, each: unknown) => (typeof each === 'number' ? Number(each.toPrecision(9)) : each)));

describe('measuring a file while it grows', () => {
  const bytes = writeWav([channel([8.46, 8.52]), channel([S, S])], { encoding: 'pcm', bitDepth: 24, sampleRateHz: RATE });

  it.each([0.25, 0.731])('pieces of %s s give the very figures of the whole file', (stepS) => {
    // Sums of other blocks differ in their last digits.
    const { measured, final } = measureGrowing(growing(bytes, stepS), () => undefined);
    expect(rounded(measured)).toEqual(rounded(measureFile(bufferSource(bytes))));
    expect(final).toBe(true);
  });

  it('of one that is longer than a chapter the figures are there too, and all of it is listened to; they are said not to be final', () => {
    const told: HeardWhileGrowing[] = [];
    const { measured, final } = measureGrowing(growing(bytes, 0.5), (heard) => told.push(...heard), 5);
    expect(final).toBe(false);
    const [grown] = measured.report.channels;
    const [whole] = measureFile(bufferSource(bytes)).report.channels;
    // What needs no chapters is the same; what does is as near as another parting of the file.
    expect(rounded(grown!.levels)).toEqual(rounded(whole!.levels));
    expect(grown!.loudness.integratedLufs).toBeCloseTo(whole!.loudness.integratedLufs!, 6);
    expect(Math.abs(grown!.noise.floorDbfs! - whole!.noise.floorDbfs!)).toBeLessThan(0.5);
    expect(told.flatMap(({ events }) => events.filter(({ kind }) => kind === 'dropout'))).toHaveLength(1);
  });

  it('tells a hole once, where it is, within seconds, and on no other channel', () => {
    const told: HeardWhileGrowing[] = [];
    let atS = 0;
    const file = growing(bytes, 0.25);
    const told1 = (heard: HeardWhileGrowing[]) => {
      if (heard.some(({ events }) => events.some(({ kind }) => kind === 'dropout'))) atS = file.now().format.durationS;
      told.push(...heard);
    };
    measureGrowing(file, told1);
    const holes = told.flatMap(({ channel: of, events }) => events.filter(({ kind }) => kind === 'dropout').map(({ startS }) => [of, startS] as const));
    expect(holes).toHaveLength(1);
    expect(holes[0]?.[0]).toBe(0);
    expect(Math.abs((holes[0]?.[1] ?? 0) - 8.46)).toBeLessThan(0.05);
    expect(atS - 8.52).toBeLessThan(6);
  });
});
