import { describe, expect, it } from 'vitest';
import { mixed, whiteNoise } from '../testing/signals.ts';
import { voiced } from '../testing/voiced.ts';
import { heardAt, steadinessOf, steadinessText } from './hiddenChecks.ts';
import { madeWorse } from './madeWorse.ts';
import { voiceLoudnessLufs } from './voiceLoudness.ts';

describe('what is hidden in a round', () => {
  const round = { recordingIds: ['a', 'b', 'c'], checks: ['again', 'worse'] as const, checkOf: [2, 0] };
  it('lies after its recordings', () => {
    expect([0, 2, 3, 4, 5].map((place) => heardAt(round, place))).toEqual([
      { of: 0, check: null },
      { of: 2, check: null },
      { of: 2, check: 'again' },
      { of: 0, check: 'worse' },
      undefined,
    ]);
  });

  const listener = (points: Record<string, number>) => ({
    letters: { A: 'a', B: 'b', C: 'a', D: 'b' },
    checks: { C: 'again', D: 'worse' } as const,
    ratings: Object.entries(points).map(([letter, each]) => ({ letter, points: each, criterionId: 'x', reason: '', listenerId: 'l' })),
  });

  it('tells how far apart the same clip was judged, and how many stand above the one made worse', () => {
    expect(steadinessOf(listener({ A: 7, B: 5, C: 8, D: 2 }))).toEqual({ pointsApart: 1, aboveWorse: 1 });
    expect(steadinessText(steadinessOf(listener({ A: 7, B: 5, C: 8, D: 2 })))).toBe(
      'The same clip twice: 1.0 points apart. The one made worse: under 100 % of the others. Steady.',
    );
    const wild = steadinessOf(listener({ A: 2, B: 5, C: 9, D: 8 }));
    expect(wild).toEqual({ pointsApart: 7, aboveWorse: 1 / 3 });
    expect(steadinessText(wild)).toContain('Less steady');
  });

  it('nothing hidden is nothing told', () => {
    const plain = { letters: { A: 'a', B: 'b' }, checks: {}, ratings: listener({ A: 5, B: 6 }).ratings };
    expect(steadinessOf(plain)).toEqual({ pointsApart: null, aboveWorse: null });
    expect(steadinessText(steadinessOf(plain))).toBe('');
  });
});

describe('a clip made worse on purpose', () => {
  const clip = mixed(voiced(6), whiteNoise(-50, 6, 3));
  const [dull] = madeWorse([clip], 48_000) as [Float64Array];

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
    const [changed] = madeWorse([mixed(tone(400, 0.2), tone(frequencyHz, 0.02))], 48_000) as [Float64Array];
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

  it('silence stays silence', () => expect(madeWorse([new Float64Array(48_000)], 48_000)[0]!.every((value) => value === 0)).toBe(true));
});
