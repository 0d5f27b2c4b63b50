import { describe, expect, it } from 'vitest';
import { Cascade, highShelf, peaking } from '../audio/biquad.ts';
import { filled } from '../audio/filled.ts';
import { convolved } from '../simulate/convolve.ts';
import { decayTimeOfResponseS } from '../simulate/decayTime.ts';
import { randomSource } from '../simulate/random.ts';
import { automaticLevel } from '../simulate/recorderStages.ts';
import { windNoise } from '../simulate/windNoise.ts';
import { concat, mixed, reportOf, silence, spoken, whiteNoise } from '../testing/signals.ts';
import { unusual } from './eventWords.ts';

const RATE_HZ = 48_000;
const characterOf = (signal: Float64Array) => reportOf([signal]).channels[0]!.character;
const through = (signal: Float64Array, ...sections: ConstructorParameters<typeof Cascade>[0]) => {
  const out = Float64Array.from(signal);
  new Cascade(sections).process(out, out, out.length);
  return out;
};

/** Bursts that stop dead, as words in a dead room would. */
const words = (gapS: number, times: number) => concat(silence(0.8), ...Array.from({ length: times }, (_, index) => [whiteNoise(-24, 0.6, 30 + index), silence(gapS)]).flat());

describe('character, within 1.5 dB', () => {
  const plain = spoken(-26, -70, 5);

  it('sibilance follows a lift of 5 to 9 kHz', () => {
    const lifted = through(plain, peaking(6800, 6, 1.2, RATE_HZ));
    expect(Math.abs(characterOf(lifted).sibilanceDb! - characterOf(plain).sibilanceDb! - 5)).toBeLessThan(1.5);
  });

  it('proximity follows what comes up below 200 Hz', () => {
    const near = through(plain, highShelf(350, -9, RATE_HZ));
    expect(Math.abs(characterOf(near).proximityDb! - characterOf(plain).proximityDb! - 8)).toBeLessThan(1.5);
  });

  it('wind is the low level of the quiet against the voice', () => {
    const hum = plain.map((x, index) => x + 10 ** (-40 / 20) * Math.SQRT2 * Math.sin((2 * Math.PI * 60 * index) / RATE_HZ));
    const report = reportOf([hum]).channels[0]!;
    expect(Math.abs(report.character.windDb! - (-40 - report.activity.activeLevelDbfs!))).toBeLessThan(1.5);
  });

  it.each([4, 8, 12])('pumping: room tone that an automatic level brings up by %i dB a second', (recoveryDbPerS) => {
    const signal = mixed(words(1.2, 5), whiteNoise(-68, 9.8, 9));
    const { samples } = automaticLevel(signal, RATE_HZ, { targetDbfs: -24, recoveryDbPerS, mostGainDb: 20 });
    // Between the two looks, of a tenth of a second each, 0.91 s pass.
    expect(Math.abs(characterOf(samples).pumpingDb! - recoveryDbPerS * 0.91)).toBeLessThan(1.5);
    expect(Math.abs(characterOf(signal).pumpingDb!)).toBeLessThan(0.5);
    // Neither an automatic level nor a steady room moves by itself.
    for (const each of [samples, signal]) expect(reportOf([each]).warnings.join()).not.toContain('changes by itself');
  });

  it('of digital silence between words nothing is said: no wind, no pumping, no decay', () => {
    for (const signal of [words(1.2, 6), silence(8), concat(words(0.6, 5), silence(2), whiteNoise(-150, 2))]) {
      expect(characterOf(signal)).toMatchObject({ windDb: null, pumpingDb: null, reverberationS: null });
    }
  });

  it.each([2, 3, 4])('gusts and music between words are no automatic level (%i)', (seed) => {
    const random = randomSource(seed);
    const spoken = words(1.2, 8);
    const gusty = windNoise({ speedMs: 4, screen: 'bare', sensitivityDb: 0 }, spoken.length, RATE_HZ, random).signal;
    const loudest = gusty.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
    const played = filled(spoken.length, (n) => {
      const at = n / RATE_HZ;
      const beat = at % (0.37 + 0.05 * seed);
      return 0.02 * Math.exp(-6 * beat) * Math.sin(2 * Math.PI * (220 + 110 * Math.floor(at / 0.7)) * at);
    });
    for (const laid of [gusty.map((x) => (0.03 * x) / loudest), played]) {
      const report = reportOf([mixed(mixed(spoken, laid), whiteNoise(-75, spoken.length / RATE_HZ, seed))]).channels[0]!;
      expect(Math.abs(report.character.pumpingDb ?? 0)).toBeLessThan(2);
      expect(unusual(report, 15).join()).not.toContain('automatic level');
    }
  });

  it.each([0.35, 0.6, 1])('reverberation of %f s, within 20 %', (timeS) => {
    const random = randomSource(4);
    const response = filled(Math.round(1.4 * timeS * RATE_HZ), (index) => random.normal() * 10 ** ((-3 * index) / (timeS * RATE_HZ)));
    expect(Math.abs(decayTimeOfResponseS(response, RATE_HZ) / timeS - 1)).toBeLessThan(0.05);
    const room = convolved(words(1.3, 5), response).map((x) => x / 100);
    const measured = characterOf(mixed(room, whiteNoise(-75, room.length / RATE_HZ, 2))).reverberationS!;
    expect(Math.abs(measured / timeS - 1)).toBeLessThan(0.2);
  });
});
