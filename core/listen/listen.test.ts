import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { reportOf, sine, whiteNoise } from '../testing/signals.ts';
import { blindClips } from './blindClip.ts';
import { blindOrder } from './blindOrder.ts';
import { levelMatch } from './levelMatch.ts';

describe('level matching', () => {
  it('brings every clip to the target', () => {
    expect(
      levelMatch(
        [
          { integratedLufs: -30, truePeakDbtp: -12 },
          { integratedLufs: -20, truePeakDbtp: -3 },
        ],
        -23,
        -1,
      ),
    ).toEqual({ matchedLufs: -23, gainsDb: [7, -3], heldByCeiling: false });
  });

  it('one clip that would pass the ceiling holds all of them', () => {
    const match = levelMatch(
      [
        { integratedLufs: -30, truePeakDbtp: -4 },
        { integratedLufs: -25, truePeakDbtp: -10 },
      ],
      -23,
      -1,
    );
    expect(match).toEqual({ matchedLufs: -27, gainsDb: [3, -2], heldByCeiling: true });
  });

  it('clips end equally loud and under the ceiling, whatever they were', () => {
    const clip = fc.record({ integratedLufs: fc.double({ min: -60, max: -5, noNaN: true }), crest: fc.double({ min: 3, max: 30, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(clip, { minLength: 1, maxLength: 8 }), (clips) => {
        const levels = clips.map(({ integratedLufs, crest }) => ({ integratedLufs, truePeakDbtp: integratedLufs + crest }));
        const { gainsDb, matchedLufs } = levelMatch(levels, -23, -1);
        levels.forEach((level, index) => {
          expect(level.integratedLufs + gainsDb[index]!).toBeCloseTo(matchedLufs, 9);
          expect(level.truePeakDbtp + gainsDb[index]!).toBeLessThanOrEqual(-1 + 1e-9);
        });
      }),
    );
  });
});

describe('blind clips', () => {
  const sources = [
    { samples: whiteNoise(-30, 5, 1), sampleRateHz: 48_000, firstWordS: 1, gainDb: 6 },
    { samples: sine(440, -20, 4, 44_100), sampleRateHz: 44_100, firstWordS: 0.5, gainDb: -6 },
  ];

  it('are equally long and start a quarter of a second before their first word', () => {
    const clips = blindClips(sources, false);
    expect(clips[0]?.length).toBe(clips[1]?.length);
    expect((clips[0]?.length ?? 0) / 48_000).toBeCloseTo(3.75, 2);
  });

  it('of one take keep their common clock', () => {
    const source = { samples: whiteNoise(-30, 3, 2), sampleRateHz: 48_000, gainDb: 0 };
    const [first, second] = blindClips(
      [
        { ...source, firstWordS: 0.5 },
        { ...source, firstWordS: 0.8 },
      ],
      true,
    );
    expect(first).toEqual(second);
  });

  it('have the gain that was asked for', () => {
    const clips = blindClips(sources, false);
    const loud = reportOf([clips[1]!]).channels[0]!.levels.rmsDbfs ?? 0;
    expect(loud).toBeCloseTo(-29.01, 0);
  });
});

describe('blind order', () => {
  it('holds every clip once', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.infiniteStream(fc.double({ min: 0, max: 0.999999, noNaN: true })), (count, stream) => {
        const order = blindOrder(count, () => stream.next().value as number);
        expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, index) => index));
      }),
    );
  });

  it('puts every clip first equally often', () => {
    let state = 1;
    const uniform = () => {
      state = (state * 48_271) % 2_147_483_647;
      return state / 2_147_483_647;
    };
    const firsts = [0, 0, 0, 0];
    for (let round = 0; round < 4000; round++) firsts[blindOrder(4, uniform)[0]!]!++;
    for (const count of firsts) expect(Math.abs(count - 1000)).toBeLessThan(120);
  });
});
