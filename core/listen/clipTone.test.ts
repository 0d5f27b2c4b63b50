import { describe, expect, it } from 'vitest';
import { Biquad, type BiquadCoefficients, highShelf, peaking } from '../audio/biquad.ts';
import { measurePair } from '../measure/pair/pair.ts';
import { monoTrack, sampleTrack } from '../measure/pair/track.ts';
import { mixed, whiteNoise } from '../testing/signals.ts';
import { voiced } from '../testing/voiced.ts';
import { blindClip } from './blindClip.ts';
import { matchSections, toneOf, worseSections } from './clipTone.ts';
import { voiceLoudnessLufs } from './voiceLoudness.ts';

const RATE_HZ = 48_000;
const noWarning = () => undefined;

/** A whole clip of samples, with what filters make of it. */
function throughout(samples: Float64Array, sections: BiquadCoefficients[]): Float64Array {
  const source = { startS: 0, lengthS: samples.length / RATE_HZ, gainDb: 0 };
  const track = sampleTrack(samples, RATE_HZ);
  return blindClip(track, { ...source, tone: toneOf(track, source, false, sections) }, false)[0]!;
}

describe('a clip equalised to a reference', () => {
  const voice = mixed(voiced(12), whiteNoise(-72, 12, 3)).subarray(0, 12 * RATE_HZ);
  const coloured = Float64Array.from(voice);
  for (const section of [peaking(500, 8, 1, RATE_HZ), highShelf(3000, -9, RATE_HZ)]) new Biquad(section).process(coloured, coloured, coloured.length);
  const pair = measurePair(sampleTrack(coloured, RATE_HZ), sampleTrack(voice, RATE_HZ), noWarning);
  const nearer = throughout(coloured, matchSections(pair.eqMatch));

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

  it('changes both sides of a stereo clip alike, so that the voice stays where it is', () => {
    const quieter = coloured.map((value) => value / 4);
    const track = monoTrack([sampleTrack(coloured, RATE_HZ), sampleTrack(quieter, RATE_HZ)]);
    const source = { startS: 0, lengthS: 12, gainDb: 0 };
    const [left, right] = blindClip(track, { ...source, tone: toneOf(track, source, true, matchSections(pair.eqMatch)) }, true) as [Float64Array, Float64Array];
    expect(right.every((value, at) => Math.abs(value * 4 - left[at]!) < 1e-9)).toBe(true);
    expect(voiceLoudnessLufs(left, RATE_HZ, [])!).toBeCloseTo(voiceLoudnessLufs(coloured, RATE_HZ, [])!, 1);
  });
});

describe('a clip made worse on purpose', () => {
  const clip = mixed(voiced(6), whiteNoise(-50, 6, 3));
  const dull = throughout(clip, worseSections());

  it('is as loud and as long as it was', () => {
    expect(dull.length).toBe(clip.length);
    expect(voiceLoudnessLufs(dull, 48_000, [])!).toBeCloseTo(voiceLoudnessLufs(clip, 48_000, [])!, 1);
  });

  it.each([
    [1000, 0, 1.5],
    [3500, -3, 1.5],
    // An octave further by 36 dB, and 3 more by the bilinear transform: 120 times the logarithm of tan(7 kHz) over tan(3.5 kHz).
    [7000, -39, 1.5],
  ])('at %i Hz it lies %i dB lower', (frequencyHz, lowerDb, within) => {
    // A tone beside a much louder one, which carries the loudness.
    const tone = (hz: number, amplitude: number) => Float64Array.from({ length: 48_000 }, (_, at) => amplitude * Math.sin((2 * Math.PI * hz * at) / 48_000));
    const changed = throughout(mixed(tone(400, 0.2), tone(frequencyHz, 0.02)), worseSections());
    const level = (samples: Float64Array) => {
      let [cosine, sine] = [0, 0];
      for (let at = 4800; at < 43_200; at++) {
        cosine += (samples[at] as number) * Math.cos((2 * Math.PI * frequencyHz * at) / 48_000);
        sine += (samples[at] as number) * Math.sin((2 * Math.PI * frequencyHz * at) / 48_000);
      }
      return 20 * Math.log10((2 * Math.hypot(cosine, sine)) / 38_400 / 0.02);
    };
    expect(Math.abs(level(changed) - lowerDb)).toBeLessThan(within);
  });

  it('silence stays silence', () => expect(throughout(new Float64Array(48_000), worseSections()).every((value) => Math.abs(value) === 0)).toBe(true));
});
