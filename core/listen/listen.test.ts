import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { highShelf, peaking } from '../audio/biquad.ts';
import { filled } from '../audio/filled.ts';
import { monoTrack, type PairTrack, sampleTrack } from '../measure/pair/track.ts';
import type { Span } from '../measure/report.types.ts';
import { randomSource } from '../simulate/random.ts';
import { reportOf, sine, spoken, whiteNoise } from '../testing/signals.ts';
import { blindClip, clipPiece } from './blindClip.ts';
import { blindOrder } from './blindOrder.ts';
import { CLIP_PIECE_FRAMES, clipFrames, pieceCount } from './clipForm.ts';
import { cutRound } from './cutRound.ts';
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

const trackOf = (samples: Float64Array, sampleRateHz: number) => ({
  sampleRateHz,
  frames: samples.length,
  read: (start: number, count: number) => filled(count, (at) => samples[start + at] ?? 0),
});

describe('blind clips', () => {
  it('are alike in rate and length whatever they are cut from, with the gain that was asked for', () => {
    const clips = [
      blindClip(trackOf(whiteNoise(-30, 5, 1), 48_000), { startS: 1, lengthS: 3, gainDb: 6 }, false)[0]!,
      blindClip(trackOf(sine(440, -20, 4, 44_100), 44_100), { startS: 0.5, lengthS: 3, gainDb: -6 }, false)[0]!,
    ];
    expect(clips.map((clip) => clip.length)).toEqual([144_000, 144_000]);
    expect(reportOf([clips[1]!]).channels[0]!.levels.rmsDbfs).toBeCloseTo(-29.01, 0);
  });

  it('begin and end in silence, so that no click gives a cut away', () => {
    const [clip] = blindClip(trackOf(sine(440, -3, 4), 48_000), { startS: 1, lengthS: 2, gainDb: 0 }, false) as [Float64Array];
    expect(Math.abs(clip[0]!) + Math.abs(clip.at(-1)!)).toBeLessThan(1e-6);
  });
});

describe('pieces of a clip', () => {
  const rates = fc.constantFrom(8000, 44_100, 48_000, 96_000, 192_000);
  const tone = { sections: [peaking(60, 12, 4, 48_000), highShelf(3000, -9, 48_000)], gainDb: -3 };

  it('one after the other are the clip, at any rate, with filters and without', () => {
    fc.assert(
      fc.property(rates, fc.double({ min: -0.5, max: 0.9, noNaN: true }), fc.double({ min: 1.9, max: 6.1, noNaN: true }), fc.boolean(), (rateHz, startS, lengthS, filtered) => {
        const track = sampleTrack(whiteNoise(-30, 6, 5, rateHz), rateHz);
        const source = { startS, lengthS, gainDb: 4, tone: filtered ? tone : null };
        const [whole] = blindClip(track, source, false) as [Float64Array];
        const pieces = Array.from({ length: pieceCount(clipFrames(lengthS)) }, (_, piece) => clipPiece(track, source, false, piece)[0]!);
        expect(pieces.slice(0, -1).every(({ length }) => length === CLIP_PIECE_FRAMES)).toBe(true);
        const joined = Float64Array.from(pieces.flatMap((piece) => [...piece]));
        expect(joined.length).toBe(whole.length);
        let furthest = 0;
        for (let at = 0; at < whole.length; at++) furthest = Math.max(furthest, Math.abs(joined[at]! - whole[at]!));
        // A step of 24 bits is twelve times as much.
        expect(furthest).toBeLessThan(1e-8);
      }),
      { numRuns: 12 },
    );
  });

  it('read only what they need of a long recording', () => {
    let read = 0;
    const track: PairTrack = {
      sampleRateHz: 96_000,
      frames: 3600 * 96_000,
      read: (_start, count) => {
        read += count;
        return new Float64Array(count);
      },
    };
    clipPiece(track, { startS: 5, lengthS: 1800, gainDb: 0, tone }, false, 700);
    expect(read).toBeLessThan(3.1 * 96_000);
    expect(clipPiece(track, { startS: 5, lengthS: 1800, gainDb: 0 }, false, 900)[0]!.length).toBe(0);
  });
});

describe('clips of a round in which one is stereo', () => {
  const place = { startS: 0.5, lengthS: 2, gainDb: 0 };
  const left = trackOf(sine(440, -20, 4), 48_000);
  const right = trackOf(sine(880, -26, 4), 48_000);

  it('all have two channels, of mono the same twice, so that the form of none tells which it is', () => {
    const stereo = blindClip(monoTrack([left, right]), place, true);
    const mono = blindClip(left, place, true);
    expect([stereo.length, mono.length]).toEqual([2, 2]);
    expect(mono[0]).toEqual(mono[1]);
    expect(reportOf(stereo).channels.map(({ levels }) => Math.round(levels.rmsDbfs!))).toEqual([-23, -29]);
  });

  it('are matched by what both channels give together: equal channels are as loud as mono, which plays from both sides', () => {
    const [voice, silent] = [spoken(-20, -70, 3), new Float64Array(spoken(-20, -70, 3).length)];
    const source = (track: PairTrack) => ({ track, takeId: 'own', performance: [0.4, 4.4] as Span, speech: [] });
    const lufs = (channels: Float64Array[]) => cutRound([source(monoTrack(channels.map((samples) => trackOf(samples, 48_000))))]).cuts[0]!.voiceLufs!;
    expect(lufs([voice, voice])).toBeCloseTo(lufs([voice]), 6);
    // A voice on one side only gives half the power of one on both.
    expect(lufs([voice, silent])).toBeCloseTo(lufs([voice]) - 3.01, 2);
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
    const { uniform } = randomSource(1);
    const firsts = [0, 0, 0, 0];
    for (let round = 0; round < 4000; round++) firsts[blindOrder(4, uniform)[0]!]!++;
    for (const count of firsts) expect(Math.abs(count - 1000)).toBeLessThan(120);
  });
});
