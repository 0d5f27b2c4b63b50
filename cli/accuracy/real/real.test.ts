import { burst, fade, mute, repeat } from '@marvet/core/simulate/linkFaults';
import { randomSource } from '@marvet/core/simulate/random';
import { sine } from '@marvet/core/testing/signals';
import { describe, expect, it } from 'vitest';
import type { JudgedReal } from './judgeReal.ts';
import { countsOf, realText } from './realText.ts';
import { talkersOf } from './talkers.ts';
import { thingsOf } from './things.ts';

const RATE_HZ = 48_000;
const take = (change: Partial<JudgedReal>): JudgedReal => ({
  group: 'knocks',
  half: 'held',
  lengthS: 30,
  events: [],
  found: [],
  pops: [],
  floorDbfs: -65,
  ownNoiseDbfs: -80,
  decayS: null,
  measuredFloorDbfs: -65,
  measuredDecayS: null,
  sti: null,
  measuredSti: null,
  snrDb: 40,
  measuredSnrDb: 39,
  claims: [],
  ...change,
});
const at = (kind: JudgedReal['events'][number]['kind'], startS: number) => ({ kind, startS, endS: startS + 0.2 });

describe('the count of what was found', () => {
  it('a pop of the talker is no mistake under a name of low sound, and one under another name', () => {
    const pops = [{ startS: 5, endS: 5.1 }];
    expect(countsOf([take({ pops, found: [at('plosive', 5), at('handling', 5)] as JudgedReal['found'] })]).falsePerMinute).toBe(0);
    expect(countsOf([take({ pops, found: [at('rustle', 5), at('plosive', 9)] as JudgedReal['found'] })]).falsePerMinute).toBe(4);
  });

  it('tells what is said of takes of which it is not so, and not said where it is', () => {
    const causes = [{ cause: 'gate' as const, half: 'held' as const, claims: [] }];
    const { weak } = realText({ takes: [take({ claims: ['overload'] }), take({ group: 'room', claims: ['room'] })], causes });
    expect(weak).toContain('overload: said of 1 of 2 takes of which it is not so (knocks).');
    expect(weak).toContain('gate: said of 0 of 1 takes of which it is so.');
    expect(weak.join()).not.toContain('room: said');
  });

  it('tells what was found by its name, under any name, and where nothing lies', () => {
    const events = [at('handling', 1), at('handling', 5), at('handling', 9)];
    const found = [at('handling', 1.1), at('wind', 5.22), at('rustle', 20)] as JudgedReal['found'];
    expect(countsOf([take({ events, found })])).toMatchObject({ laid: 3, named: 1, found: 2, falsePerMinute: 2 });
  });

  it('what words cover wholly is told apart, and finding it is no mistake', () => {
    const events = [at('rustle', 1), { ...at('rustle', 5), isCovered: true }, { ...at('rustle', 9), isCovered: true }];
    const found = [at('rustle', 5)] as JudgedReal['found'];
    expect(countsOf([take({ events, found })])).toEqual({ laid: 1, named: 0, found: 0, covered: 2, foundCovered: 1, falsePerMinute: 0 });
  });

  it('wind between two gusts is no mistake, a knock there is', () => {
    const found = [at('wind', 12), at('handling', 14)] as JudgedReal['found'];
    expect(countsOf([take({ events: [at('wind', 1)], found })]).falsePerMinute).toBe(2);
  });

  it('what falls short is said first, and a proof without a figure is not a good one', () => {
    const { weak, tables } = realText({ takes: [take({ events: [at('handling', 1)] }), take({ group: 'room', decayS: 1.2, measuredFloorDbfs: -47 })], causes: [] });
    expect(weak).toContainEqual(expect.stringContaining('knocks, recorded talkers: 0.00 named, wanted 0.85'));
    expect(weak).toContainEqual(expect.stringContaining('a figure on 0 of 1 takes'));
    expect(weak).toContainEqual(expect.stringContaining('noise floor, in rooms'));
    expect(tables).toContain('| knocks | 1 | 0.00 | 0.00 |');
  });
});

describe('faults of a link', () => {
  const tone = () => sine(440, -12, 1);
  const within = (samples: Float64Array, { startS, endS }: { startS: number; endS: number }) => samples.subarray(Math.round(startS * RATE_HZ), Math.round(endS * RATE_HZ));

  it.each([
    ['mute', mute],
    ['fade', fade],
    ['burst', burst],
    ['repeat', repeat],
  ])('a %s changes what lies within it and nothing else', (_name, lay) => {
    const samples = tone();
    const laid = lay(samples, RATE_HZ, 0.4, randomSource(3));
    expect(laid.endS).toBeGreaterThan(laid.startS);
    expect(within(samples, laid)).not.toEqual(within(tone(), laid));
    for (const outside of [
      { startS: 0, endS: laid.startS },
      { startS: laid.endS, endS: 1 },
    ])
      expect(within(samples, outside)).toEqual(within(tone(), outside));
  });

  it('a mute is silence, a fade goes down by 12 dB, a repeat is what came before', () => {
    const muted = tone();
    expect(within(muted, mute(muted, RATE_HZ, 0.4, randomSource(1))).every((x) => x === 0)).toBe(true);
    const faded = tone();
    const { startS, endS } = fade(faded, RATE_HZ, 0.4, randomSource(1));
    const middle = Math.round(((startS + endS) / 2) * RATE_HZ);
    expect(20 * Math.log10(Math.abs(faded[middle]! / tone()[middle]!))).toBeCloseTo(-12, 5);
  });
});

describe('the two halves', () => {
  it('share no talker and no sound, and each has enough', () => {
    const [tuning, held] = [talkersOf('tuning'), talkersOf('held')];
    expect(tuning.filter((talker) => held.includes(talker))).toEqual([]);
    expect(tuning.length + held.length).toBeGreaterThanOrEqual(12);
    for (const kind of ['handling', 'rustle', 'disturbance'] as const) {
      expect(thingsOf(kind, 'tuning').filter((file) => thingsOf(kind, 'held').includes(file))).toEqual([]);
      expect(thingsOf(kind, 'held').length).toBeGreaterThanOrEqual(5);
    }
  });
});
