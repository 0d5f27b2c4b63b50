import { describe, expect, it } from 'vitest';
import { filled } from '../audio/filled.ts';
import { convolved } from '../simulate/convolve.ts';
import { randomSource } from '../simulate/random.ts';
import { layRustle } from '../simulate/touches.ts';
import { concat, mixed, reportOf, silence, whiteNoise } from '../testing/signals.ts';
import { voiced } from '../testing/voiced.ts';

const RATE_HZ = 48_000;
const channelOf = (signal: Float64Array) => reportOf([signal]).channels[0]!;

/** Bursts that stop dead, in a room that rings on for `timeS`, over noise. */
function ringing(timeS: number, floorDbfs: number): Float64Array {
  const random = randomSource(4);
  const words = concat(silence(0.8), ...[1, 2, 3, 4, 5].map((seed) => concat(whiteNoise(-24, 0.6, seed), silence(2.2))));
  const response = filled(Math.round(1.4 * timeS * RATE_HZ), (index) => random.normal() * 10 ** ((-3 * index) / (timeS * RATE_HZ)));
  const room = convolved(words, response).slice(0, words.length);
  const most = room.reduce((peak, x) => Math.max(peak, Math.abs(x)), 0);
  return mixed(
    room.map((x) => (0.2 * x) / most),
    whiteNoise(floorDbfs, words.length / RATE_HZ, 7),
  );
}

describe('noise of all kinds', () => {
  it.each([
    [0.4, 0.5],
    [1, 1],
    [2, 2],
  ])('the floor under a room that rings for %f s is that of the noise, within %f dB', (timeS, withinDb) => {
    expect(Math.abs((channelOf(ringing(timeS, -60)).noise.floorDbfs ?? 0) + 60)).toBeLessThanOrEqual(withinDb);
  });

  it('what is loud between words counts for the voice over noise, and not for the calm floor', () => {
    const calm = voiced(16);
    const knocked = Float64Array.from(calm);
    // Nylon rubs for half a second in every other pause.
    for (const atS of [1.4, 5.4, 9.4, 13.4]) layRustle(knocked, RATE_HZ, atS, 0.45, 94 - 14, 'nylon', randomSource(3));
    const [before, after] = [channelOf(calm), channelOf(knocked)];
    expect(before.noise.snrDb! - after.noise.snrDb!).toBeGreaterThan(15);
    expect(Math.abs(before.noise.calmSnrDb! - after.noise.calmSnrDb!)).toBeLessThan(2);
    expect(after.intelligibility.sii!).toBeLessThan(before.intelligibility.sii!);
    expect(after.noise.noiseDbfsA!).toBeGreaterThan(after.noise.floorDbfsA! + 15);
  });

  it.each([10, 20])('a gate that takes %i dB off the noise 0.12 s after each word is told, and how far', (depthDb) => {
    const open = voiced(24, -55);
    const gated = open.map((x, index) => {
      const at = (index / RATE_HZ) % 2;
      return at > 1.42 && at < 1.98 ? x * 10 ** (-depthDb / 20) : x;
    });
    expect(Math.abs((channelOf(gated).noise.gatedDb ?? 0) - depthDb)).toBeLessThan(2);
  });

  it('where no gate is at work none is told: a steady place, words that die away in a room, words in digital silence', () => {
    const words = concat(...[1, 2, 3, 4, 5, 6].map((seed) => concat(silence(0.7), whiteNoise(-24, 0.6, seed))), silence(0.7));
    for (const signal of [voiced(16, -55), ringing(0.4, -62), ringing(1, -62), ringing(2, -62), words]) expect(channelOf(signal).noise.gatedDb).toBeNull();
  });
});

describe('what lies over words', () => {
  const talk = voiced(8, -60);
  const [, second] = channelOf(talk).activity.speech as [unknown, [number, number]];
  const marked = (samples: Float64Array, kind: 'wind' | 'disturbance', spans: readonly (readonly [number, number])[]) => {
    const corrections = spans.map(([startS, endS], index) => ({ id: `00000000-0000-4000-8000-00000000000${index}`, was: null, now: { kind, startS, endS } }));
    const { channels, warnings } = reportOf([samples], { markedByChannel: [{ roomTone: null, corrections }] });
    return { noise: channels[0]!.noise, warnings: warnings.join() };
  };

  it('is noise, and the voice is known by the other words', () => {
    const loud = whiteNoise(-20, 8, 3);
    const covered = talk.map((x, n) => (n / 48_000 > second[0] && n / 48_000 < second[1] ? x + (loud[n] as number) : x));
    const clean = channelOf(talk).noise;
    const { noise, warnings } = marked(covered, 'disturbance', [second]);
    expect(Math.abs(noise.calmSnrDb! - clean.calmSnrDb!)).toBeLessThan(1);
    expect(noise.snrDb!).toBeLessThan(clean.snrDb! - 20);
    expect(warnings).not.toContain('wind lies over');
  });

  it('a pop at a loud vowel, some frames long, is no noise: words differ by more than that among themselves', () => {
    // Words of unlike loudness, as people speak; the loudest is found to pop for 80 ms.
    const gainsDb = [-4, 0, 4, -2];
    const uneven = talk.map((x, n) => x * 10 ** ((gainsDb[Math.floor(n / 96_000)] ?? 0) / 20));
    const [, , third] = channelOf(uneven).activity.speech as [unknown, unknown, [number, number]];
    const popped = marked(uneven, 'disturbance', [[third[0] + 0.1, third[0] + 0.18]]);
    expect(Math.abs(popped.noise.snrDb! - channelOf(uneven).noise.snrDb!)).toBeLessThan(2);
  });

  it('wind over one word leaves the figure; over all of them nobody knows the voice, and it is said', () => {
    const one = marked(talk, 'wind', [second]);
    expect(one.noise.snrDb).not.toBeNull();
    expect(one.warnings).not.toContain('wind lies over');
    const all = marked(talk, 'wind', [[0, 7.9]]);
    expect(all.noise.snrDb).toBeNull();
    expect(all.warnings).toContain('wind lies over nearly all words');
  });
});
