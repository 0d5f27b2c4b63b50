import { describe, expect, it } from 'vitest';
import { filled } from '../audio/filled.ts';
import { mixed, silence, sine, spoken, whiteNoise } from '../testing/signals.ts';
import { cutRound } from './cutRound.ts';
import { voiceLoudnessLufs } from './voiceLoudness.ts';

const RATE = 48_000;
const trackOf = (samples: Float64Array) => ({
  sampleRateHz: RATE,
  frames: samples.length,
  read: (start: number, count: number) => filled(count, (at) => samples[start + at] ?? 0),
});
/** The same performance heard `lateS` later, by another microphone. */
function delayed(samples: Float64Array, lateS: number, gain: number): Float64Array {
  const late = Math.round(lateS * RATE);
  return Float64Array.from(samples, (_value, at) => (samples[at - late] ?? 0) * gain);
}

describe('a round cut to clips', () => {
  const voice = mixed(spoken(-26, -60, 5), whiteNoise(-70, spoken(-26, -60, 5).length / RATE, 9));
  const endS = voice.length / RATE - 1;
  const source = (samples: Float64Array, performance: [number, number], takeId = 'one') => ({ track: trackOf(samples), takeId, performance, speech: [performance] });

  it.each([0.003, 0.02, 0.4])('a track that is %f s late begins at the same syllable as the first, and the delay is told', (lateS) => {
    const { cuts, lengthS } = cutRound([source(voice, [1, endS]), source(delayed(voice, lateS, 0.5), [1 + lateS, endS])]);
    expect(cuts[1]!.startS - cuts[0]!.startS).toBeCloseTo(lateS, 3);
    expect(cuts[1]!.delayMs).toBeCloseTo(lateS * 1000, 0);
    expect(lengthS).toBeGreaterThan(1);
  });

  it('recordings of different performances begin each with its own first word', () => {
    const other = sine(700, -30, 8);
    const { cuts } = cutRound([source(voice, [1, endS]), source(other, [3, 7], 'another')]);
    expect(cuts[1]!.startS).toBeCloseTo(2.75, 6);
    expect(cuts[1]!.delayMs).toBe(0);
  });

  it('two microphones of another take are aligned with each other', () => {
    const second = mixed(spoken(-20, -60, 11), whiteNoise(-70, voice.length / RATE, 12)).subarray(0, voice.length);
    const { cuts } = cutRound([source(voice, [1, endS]), source(second, [1, endS], 'two'), source(delayed(second, 0.02, 0.7), [1.02, endS], 'two')]);
    expect(cuts[2]!.startS - cuts[1]!.startS).toBeCloseTo(0.02, 3);
    expect(cuts[2]!.delayMs).toBeCloseTo(20, 0);
  });

  it('a slate just before the performance is not heard', () => {
    const speech: [number, number][] = [
      [0.3, 0.9],
      [1, endS],
    ];
    const { cuts } = cutRound([{ track: trackOf(voice), takeId: 'one', performance: [1, endS], speech }]);
    expect(cuts[0]!.startS).toBeGreaterThan(0.9);
  });
});

describe('loudness of the voice', () => {
  it('is that of the words, whatever lies between them', () => {
    // Two seconds of a tone, then two of an engine that is 6 dB louder: over all of it the engine would win.
    const tone = sine(1000, -30, 2);
    const engine = sine(1000, -24, 2);
    const samples = filled(tone.length + engine.length, (at) => (at < tone.length ? tone[at]! : engine[at - tone.length]!));
    const alone = voiceLoudnessLufs(tone, RATE, [[0, 2]])!;
    const silent = filled(samples.length, (at) => (at < tone.length ? tone[at]! : 0));
    expect(Math.abs(voiceLoudnessLufs(silent, RATE, [[0, 2]])! - alone)).toBeLessThan(0.1);
    expect(alone).toBeCloseTo(-33.01, 1);
  });

  it('of silence there is none', () => expect(voiceLoudnessLufs(silence(1), RATE, [])).toBeNull());
});
