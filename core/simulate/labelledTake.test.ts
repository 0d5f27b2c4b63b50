import { describe, expect, it } from 'vitest';
import { concat, silence, sine } from '../testing/signals.ts';
import { onsetsOf } from './dryVoice.ts';
import { type LabelledSpec, labelledTake } from './labelledTake.ts';

const RATE_HZ = 48_000;
const vowel = sine(240, -12, 0.35);
const voice = concat(...Array.from({ length: 8 }, () => [silence(0.4), vowel]).flat(), silence(0.4));

const PLAIN: LabelledSpec = {
  seed: 'test',
  rateHz: RATE_HZ,
  voice,
  onsetsS: onsetsOf(voice, RATE_HZ),
  beginningsS: onsetsOf(voice, RATE_HZ, 8, 0.03),
  leadS: 0.5,
  tailS: 0.5,
  voiceDbSpl: 64,
  room: null,
  distanceM: 0.5,
  pattern: { pressureShare: 1, tubeM: 0 },
  placement: 'open',
  clothLayers: 0,
  cloth: 'nylon',
  noiseDba: 30,
  noiseSlopeDb: 0,
  wind: null,
  gainDbfs: 4,
  overDb: 0,
  plosives: 0,
  thumps: 0,
  rustles: 0,
  clicks: 0,
  link: null,
  automaticLevel: null,
  reductionDb: 0,
  limiterDbfs: null,
  word: 'float',
};
const eventsOf = (change: Partial<LabelledSpec>) => labelledTake({ ...PLAIN, ...change }).truth.events;

describe('a labelled take', () => {
  it('is the same from the same seed, and another from another', () => {
    const change = { thumps: 3, clicks: 2 };
    expect(labelledTake({ ...PLAIN, ...change })).toEqual(labelledTake({ ...PLAIN, ...change }));
    expect(eventsOf({ ...change, seed: 'other' })).not.toEqual(eventsOf(change));
  });

  it('has plosives where vowels break out of a gap', () => {
    const plosives = eventsOf({ plosives: 4 });
    expect(plosives).toHaveLength(4);
    for (const { startS } of plosives) expect(Math.min(...PLAIN.onsetsS.map((at) => Math.abs(PLAIN.leadS + at - startS)))).toBeLessThan(0.02);
  });

  it.each(['a', 'b', 'c', 'd'])('has knocks where nothing begins (%s)', (seed) => {
    const knocks = eventsOf({ thumps: 6, seed });
    expect(knocks.length).toBeGreaterThan(2);
    for (const { startS } of knocks) {
      for (const at of PLAIN.beginningsS) expect(startS < PLAIN.leadS + at - 0.12 || startS > PLAIN.leadS + at + 0.06).toBe(true);
    }
  });

  it('names no click that a mute swallowed', () => {
    const link = { marginDb: 3, bodyLossDb: 0, fadesPerS: 6, kind: 'digital' } as const;
    const all = ['a', 'b', 'c', 'd'].map((seed) => eventsOf({ clicks: 8, link, seed }));
    for (const events of all) {
      const mutes = events.filter(({ kind }) => kind === 'dropout');
      for (const click of events.filter(({ kind }) => kind === 'click')) expect(mutes.some(({ startS, endS }) => click.startS >= startS && click.endS <= endS)).toBe(false);
    }
    expect(all.flat().filter(({ kind }) => kind === 'click').length).toBeLessThan(32);
  });

  it('has no click among clipped samples', () => {
    const { samples, truth } = labelledTake({ ...PLAIN, clicks: 8, overDb: 25, gainDbfs: PLAIN.gainDbfs + 25, word: 24 });
    const clips = truth.events.filter(({ kind }) => kind === 'clip');
    expect(clips.length).toBeGreaterThan(0);
    for (const { startS } of truth.events.filter(({ kind }) => kind === 'click')) {
      const around = samples.subarray(Math.round((startS - 0.005) * RATE_HZ), Math.round((startS - 0.001) * RATE_HZ));
      expect(around.every((x) => Math.abs(x) < 0.99)).toBe(true);
    }
  });
});
