import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { onMicrophone } from '../testing/onMicrophone.ts';
import { mixed, sine, whiteNoise } from '../testing/signals.ts';
import { voiced } from '../testing/voiced.ts';
import { backupsAmong, type ChannelPair, ChannelPairs } from './channelPairs.ts';
import { savedClips } from './savedClips.ts';
import { stereoFigures } from './stereo.ts';

const scaled = (samples: Float64Array, db: number) => samples.map((value) => value * 10 ** (db / 20));
const clippedAt1 = (samples: Float64Array) => samples.map((value) => Math.max(-1, Math.min(1, value)));
function pairsOf(channels: Float64Array[], blockFrames = 4096): ChannelPair[] {
  const pairs = new ChannelPairs(channels.length);
  const frames = channels[0]!.length;
  for (let at = 0; at < frames; at += blockFrames) {
    const count = Math.min(blockFrames, frames - at);
    pairs.push(
      channels.map((channel) => channel.slice(at, at + count)),
      count,
    );
  }
  return pairs.finish();
}

describe('how two channels go together', () => {
  const tone = sine(440, -12, 2);

  it('is known of textbook cases: equal, opposed, in quadrature, unrelated', () => {
    const [equal] = pairsOf([tone, tone]);
    expect(equal).toMatchObject({ a: 0, b: 1 });
    expect(equal!.correlation).toBeCloseTo(1, 9);
    expect(equal!.monoLossDb).toBeCloseTo(0, 9);
    const [opposed] = pairsOf([tone, tone.map((value) => -value)]);
    expect(opposed!.correlation).toBeCloseTo(-1, 9);
    expect(opposed!.monoLossDb).toBeGreaterThan(100);
    // Two sines a quarter apart add to 1 / sqrt(2) of their sum: 3.01 dB under in-phase ones.
    const [quarter] = pairsOf([tone, sine(440, -12, 2, 48_000, 90)]);
    expect(quarter!.correlation).toBeCloseTo(0, 2);
    expect(quarter!.monoLossDb).toBeCloseTo(3.01, 1);
    const [apart] = pairsOf([whiteNoise(-20, 4, 1), whiteNoise(-20, 4, 2)]);
    expect(Math.abs(apart!.correlation)).toBeLessThan(0.02);
    expect(apart!.monoLossDb).toBeCloseTo(3.01, 1);
  });

  it('is not changed by the blocks in which it is read, by gain, or by an offset', () => {
    const noisy = mixed(tone, whiteNoise(-30, 2, 3));
    const [whole] = pairsOf([tone, noisy]);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5000 }),
        fc.double({ min: -40, max: 0, noNaN: true }),
        fc.double({ min: -0.1, max: 0.1, noNaN: true }),
        (blockFrames, gainDb, offset) => {
          const [pair] = pairsOf([tone, scaled(noisy, gainDb).map((value) => value + offset)], blockFrames);
          expect(pair!.correlation).toBeCloseTo(whole!.correlation, 6);
          expect(pair!.bOverADb).toBeCloseTo(whole!.bOverADb + gainDb, 4);
        },
      ),
      { numRuns: 20 },
    );
  });

  it('is not told of silence, nor of more channels than one source has', () => {
    expect(pairsOf([tone, new Float64Array(tone.length)])).toEqual([]);
    expect(pairsOf(Array.from({ length: 9 }, () => tone))).toEqual([]);
  });
});

describe('a backup track', () => {
  const voice = scaled(voiced(8), 8);
  const backups = (channels: Float64Array[]) => backupsAmong(pairsOf(channels));

  it.each([6, 10, 12, 20])('%i dB lower is found, through another converter, and whichever stands first', (lowerByDb) => {
    const lower = mixed(scaled(voice, -lowerByDb), whiteNoise(-110, voice.length / 48_000, 5));
    const [found, ...others] = backups([voice, lower]);
    expect(others).toEqual([]);
    expect(found).toMatchObject({ channel: 1, of: 0 });
    expect(found!.lowerByDb).toBeCloseTo(lowerByDb, 1);
    expect(backups([lower, voice])[0]).toMatchObject({ channel: 0, of: 1 });
  });

  it('is found though the main track clips through half of its words', () => {
    const hot = scaled(voice, 14);
    const [found] = backups([clippedAt1(hot), scaled(hot, -12)]);
    expect(found!.lowerByDb).toBeCloseTo(12, 1);
  });

  it('is none where another microphone heard the same words, however near and whatever its gain', () => {
    const near = { beforeS: 0, afterS: 0, snrDb: 40, shelfDb: 0, room: { share: 0.02, decayS: 0.2 }, driftPpm: 0 };
    for (const [seed, gainDb] of [
      [1, -6],
      [2, -12],
      [3, -20],
    ] as const) {
      const length = Math.min(voice.length, onMicrophone(voice, { ...near, gainDb, seed }, 48_000).length);
      expect(backups([voice.subarray(0, length), onMicrophone(voice, { ...near, gainDb, seed }, 48_000).subarray(0, length)])).toEqual([]);
    }
  });

  it('is none at the same level, 3 dB lower, 30 dB lower, or of two that are not alike', () => {
    for (const db of [0, -3, -30]) expect(backups([voice, scaled(voice, db)])).toEqual([]);
    expect(backups([voice, whiteNoise(-40, 8)])).toEqual([]);
  });

  it('is of the loudest where there are two', () => {
    expect(backups([voice, scaled(voice, -8), scaled(voice, -16)]).map(({ channel, of }) => [channel, of])).toEqual([
      [1, 0],
      [2, 0],
    ]);
  });

  it('saves what clips on the main track alone', () => {
    const clip = (startS: number) => ({ kind: 'clip' as const, startS, endS: startS + 0.01, severityDb: 3 });
    expect(savedClips([clip(1), clip(2), clip(5)], [clip(2.02)])).toEqual({ clipped: 3, saved: 2 });
  });
});

describe('figures of a stereo recording', () => {
  const programme = { integratedLufs: -20, momentaryMaxLufs: -15, shortTermMaxLufs: -17, loudnessRangeLu: 5, truePeakDbtp: -3 };

  it('are those of the programme, of the worse channel, of their mean power, or their mean', () => {
    const left = { 'loudness.integratedLufs': -23, 'levels.truePeakDbtp': -9, 'levels.clippedRuns': 0, 'noise.floorDbfsA': -60, 'noise.snrDb': 30 } as const;
    const right = { 'loudness.integratedLufs': -24, 'levels.truePeakDbtp': -3, 'levels.clippedRuns': 4, 'noise.floorDbfsA': -70, 'noise.snrDb': 34 } as const;
    const figures = stereoFigures(left, right, programme);
    expect(figures).toMatchObject({ 'loudness.integratedLufs': -20, 'levels.truePeakDbtp': -3, 'levels.clippedRuns': 4, 'noise.snrDb': 32 });
    // (1e-6 + 1e-7) / 2 is -62.6 dB.
    expect(figures['noise.floorDbfsA']).toBeCloseTo(-62.6, 1);
  });

  it('are not known where one channel does not know', () => {
    expect(stereoFigures({ 'noise.snrDb': 30 }, {}, { ...programme, loudnessRangeLu: null })).not.toHaveProperty('noise.snrDb');
    expect(stereoFigures({}, {}, { ...programme, loudnessRangeLu: null })).not.toHaveProperty('loudness.loudnessRangeLu');
  });
});
