import { describe, expect, it } from 'vitest';
import { Biquad, highShelf, peaking } from '../audio/biquad.ts';
import { measurePair } from '../measure/pair/pair.ts';
import { sampleTrack } from '../measure/pair/track.ts';
import { mixed, whiteNoise } from '../testing/signals.ts';
import { voiced } from '../testing/voiced.ts';
import { equalised } from './equalised.ts';
import { voiceLoudnessLufs } from './voiceLoudness.ts';

const RATE_HZ = 48_000;
const noWarning = () => undefined;

describe('a clip equalised to a reference', () => {
  const voice = mixed(voiced(12), whiteNoise(-72, 12, 3)).subarray(0, 12 * RATE_HZ);
  const coloured = Float64Array.from(voice);
  for (const section of [peaking(500, 8, 1, RATE_HZ), highShelf(3000, -9, RATE_HZ)]) new Biquad(section).process(coloured, coloured, coloured.length);
  const pair = measurePair(sampleTrack(coloured, RATE_HZ), sampleTrack(voice, RATE_HZ), noWarning);
  const [nearer] = equalised([coloured], pair.eqMatch, RATE_HZ) as [Float64Array];

  it('is nearer to it by as much as the pair says, measured anew', () => {
    const again = measurePair(sampleTrack(nearer, RATE_HZ), sampleTrack(voice, RATE_HZ), noWarning);
    expect(pair.spectralDistanceDb!).toBeGreaterThan(2);
    expect(again.spectralDistanceDb!).toBeLessThan(1);
    expect(again.spectralDistanceDb!).toBeCloseTo(pair.matchedDistanceDb!, 0);
  });

  it('is as loud and as long as it was', () => {
    expect(nearer.length).toBe(coloured.length);
    expect(voiceLoudnessLufs(nearer, RATE_HZ, [])!).toBeCloseTo(voiceLoudnessLufs(coloured, RATE_HZ, [])!, 1);
  });

  it('without filters is what it was', () => expect(equalised([voice], [], RATE_HZ)[0]).toBe(voice));
});
