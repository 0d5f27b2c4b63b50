import { describe, expect, it } from 'vitest';
import { cascadeDb } from '../audio/biquad.ts';
import { aWeightingDb, kWeighting } from '../audio/weighting.ts';
import { linkSettingsSchema } from '../domain/chain.ts';
import { type Item, type ItemDraft, itemDraftSchema } from '../domain/item.ts';
import { adviseGains } from './gainAdvice.ts';
import { runLevels, SPEECH_K_OVER_A_DB, sensitivityDbu } from './levels.ts';
import { voiceDbSpl } from './voice.ts';

const item = (id: string, kind: ItemDraft['kind'], rest: Partial<ItemDraft>): Item => ({ ...itemDraftSchema.parse({ kind, name: id, remark: '', ...rest }), id });

/** 7.746 mV/Pa is -40 dBu at 94 dB SPL, so that sums can be done in the head. */
const MICROPHONE = item('mic', 'microphone', { sensitivityMvPerPa: 7.746, selfNoiseDba: 20, maxSplDb: 130 });
/** Full scale of a sine is 3.01 dB under that of the samples, on which all levels are told. */
const SINE = 3.0103;
const RECORDER = item('rec', 'recorder', { inputMaxDbu: 4, inputNoiseDbuA: -120, converterNoiseDbfsA: -160, gainMinDb: 0, gainMaxDb: 70 });
const TRANSMITTER = item('tx', 'transmitter', { inputMaxDbu: -10, inputNoiseDbuA: -114, gainMinDb: 0, gainMaxDb: 40 });
const RECEIVER = item('rx', 'receiver', { inputNoiseDbuA: -80, outputMaxDbu: 0 });
const WINDSCREEN = item('fur', 'windscreen', {});
const ITEMS = new Map([MICROPHONE, RECORDER, TRANSMITTER, RECEIVER, WINDSCREEN].map((each) => [each.id, each]));

const chain = (...links: [id: string, gainDb?: number, padDb?: number][]) => ({
  links: links.map(([itemId, gainDb = null, padDb = null]) => ({ itemId, settings: linkSettingsSchema.parse({ gainDb, padDb }) })),
});
const VOICE = { voiceDbSpl: 74, peakOverAverageDb: 15, targetLufs: -23 };

describe('a voice through a chain', () => {
  it('falls by 6 dB for every doubling of the distance', () => {
    expect(voiceDbSpl(60, 0.25)).toBeCloseTo(72.04, 2);
    expect(voiceDbSpl(60, 2)).toBeCloseTo(53.98, 2);
  });

  it('a sensitivity in mV/Pa is a level at 94 dB SPL', () => {
    expect(sensitivityDbu(7.746)).toBeCloseTo(-40, 3);
    expect(sensitivityDbu(774.6)).toBeCloseTo(0, 3);
  });

  it('arrives at the recorder at the level that sensitivity and gain give', () => {
    // 74 dB SPL is 20 dB under 94, so -60 dBu; full scale at 40 dB of gain is 4 - 40 = -36 dBu.
    const run = runLevels(chain(['mic'], ['rec', 40]), ITEMS, VOICE);
    expect(run.stages[1]?.inputDbu).toBeCloseTo(-60, 3);
    expect(run.averageDbfs).toBeCloseTo(-24 - SINE, 3);
    expect(run.peakDbfs).toBeCloseTo(-9 - SINE, 3);
    expect(run.stages[1]?.peakHeadroomDb).toBeCloseTo(9 + SINE, 3);
  });

  it('adds noises by powers, told as sound at the microphone', () => {
    // The recorder's -120 dBu A is 94 + (-120 + 40) = 14 dB SPL; 20 and 14 dB make 20.97 dB.
    const run = runLevels(chain(['mic'], ['rec', 40]), ITEMS, VOICE);
    expect(run.stages[1]?.ownNoiseDbSpl).toBeCloseTo(14, 3);
    expect(run.stages[1]?.noiseDbSpl).toBeCloseTo(20.973, 2);
    expect(run.noisiest).toBe(0);
    expect(run.noiseDbfsA).toBeCloseTo(-24 - SINE + 20.973 - 74, 2);
    expect(run.practicalFloorDb).toBeCloseTo(-23 - SPEECH_K_OVER_A_DB + 20.973 - 74, 2);
  });

  it('two equal noises are 3 dB more than one', () => {
    const noisy = new Map(ITEMS).set('rec', { ...RECORDER, inputNoiseDbuA: -114 });
    expect(runLevels(chain(['mic'], ['rec', 40]), noisy, VOICE).stages[1]?.noiseDbSpl).toBeCloseTo(23.01, 2);
  });

  it('a pad lowers the level and raises the noise behind it by as much', () => {
    const run = runLevels(chain(['mic'], ['rec', 40, 10]), ITEMS, VOICE);
    expect(run.averageDbfs).toBeCloseTo(-34 - SINE, 3);
    expect(run.stages[1]?.ownNoiseDbSpl).toBeCloseTo(24, 3);
  });

  it('a radio link hands on full scale, and its noise lies under it', () => {
    // Full scale of the transmitter at 20 dB of gain is -30 dBu, which is 104 dB SPL; -80 dB under it is 24 dB SPL.
    const run = runLevels(chain(['mic'], ['fur'], ['tx', 20], ['rx']), ITEMS, VOICE);
    expect(run.stages[2]?.clipDbSpl).toBeCloseTo(104, 3);
    expect(run.averageDbfs).toBeCloseTo(-30 - SINE, 3);
    expect(run.stages[3]?.ownNoiseDbSpl).toBeCloseTo(24, 3);
    expect(run.noisiest).toBe(3);
  });

  it('what an early link clips no later one repairs', () => {
    // Receiver at full scale gives 0 dBu; the recorder at 0 dB takes 4 dBu, so the transmitter is the ceiling.
    const run = runLevels(chain(['mic'], ['tx', 40], ['rx'], ['rec', 0]), ITEMS, VOICE);
    expect(run.clipsFirst).toBe(1);
    expect(run.stages[1]?.peakHeadroomDb).toBeCloseTo(-5 + SINE, 3);
    expect(run.stages[3]?.clipDbSpl).toBeCloseTo(84, 3);
    expect(run.stages[3]?.averageUnderClipDb).toBeCloseTo(-14, 3);
  });

  it('says what is not known instead of counting it as nothing', () => {
    const unknown = new Map(ITEMS).set('mic', { ...MICROPHONE, sensitivityMvPerPa: null });
    const run = runLevels(chain(['mic'], ['rec', 40]), unknown, VOICE);
    expect(run.averageDbfs).toBeNull();
    expect(run.gaps).toEqual(['sensitivity of mic is not known, so nothing after it can be told']);
  });
});

describe('a thread that is lost', () => {
  it.each<[why: string, chain: Parameters<typeof chain>, change: Partial<Item>, gap: RegExp]>([
    ['a link that is gone', [['mic'], ['gone'], ['rec', 40]], {}, /no longer in the library/],
    ['a recorder without a largest input', [['mic'], ['rec', 40]], { inputMaxDbu: null }, /largest input level of rec/],
    ['no microphone', [['tx', 20], ['rx']], {}, /what arrives at tx/],
  ])('%s: no level is told behind it, and why', (_why, links, change, gap) => {
    const run = runLevels(chain(...links), new Map(ITEMS).set('rec', { ...RECORDER, ...change }), VOICE);
    expect(run.averageDbfs).toBeNull();
    expect(run.noiseDbfsA).toBeNull();
    expect(run.gaps.filter((each) => gap.test(each))).toHaveLength(1);
    expect(run.stages).toHaveLength(links.length);
  });

  it('a level before the break does not pass for one behind it', () => {
    const deaf = new Map(ITEMS).set('rx', { ...RECEIVER, outputMaxDbu: null });
    expect(runLevels(chain(['mic'], ['tx', 20], ['rx'], ['rec', 0]), deaf, VOICE).averageDbfs).toBeNull();
    expect(runLevels(chain(['mic'], ['tx', 20], ['rx']), deaf, VOICE).averageDbfs).toBeCloseTo(-30 - SINE, 3);
  });
});

describe('advice on gain', () => {
  const target = { averageDbfs: -20, headroomDb: 4 };

  it('brings the voice to the target at the last link', () => {
    const advice = adviseGains(chain(['mic'], ['rec']), ITEMS, VOICE, target);
    expect(advice.gainsDb).toEqual([null, 47]);
    expect(advice.run.averageDbfs).toBeCloseTo(-20, 1);
    expect(advice.reached).toBe(true);
  });

  it('takes as much gain early as the headroom allows, so that little noise is added later', () => {
    // Peaks of 89 dB SPL are -45 dBu; less the 3 dB of a sine; with 4 dB of headroom the transmitter takes 34 dB.
    const advice = adviseGains(chain(['mic'], ['tx'], ['rx'], ['rec']), ITEMS, VOICE, target);
    expect(advice.gainsDb).toEqual([null, 34, null, 3]);
    expect(advice.reached).toBe(true);
  });

  it('at the last link the target itself says what peaks leave', () => {
    expect(adviseGains(chain(['mic'], ['rec']), ITEMS, VOICE, { averageDbfs: -20, headroomDb: 12 })).toMatchObject({ reached: true });
    expect(adviseGains(chain(['mic'], ['tx'], ['rx']), ITEMS, VOICE, { averageDbfs: -20, headroomDb: 12 })).toMatchObject({ reached: true });
    const low = new Map(ITEMS).set('mic', { ...MICROPHONE, maxSplDb: 95 });
    expect(adviseGains(chain(['mic'], ['rec']), low, VOICE, { averageDbfs: -20, headroomDb: 12 }).why).toEqual(['mic keeps 9 dB over the peaks, not 12 dB']);
  });

  it('says which link cannot give what it would have to', () => {
    const whisper = { ...VOICE, voiceDbSpl: 40 };
    const advice = adviseGains(chain(['mic'], ['rec']), ITEMS, whisper, target);
    expect(advice.reached).toBe(false);
    expect(advice.why[0]).toBe('rec would need 81 dB, it has 70 dB');
  });

  it('asks for a pad where even the least gain is too much', () => {
    const shout = { ...VOICE, voiceDbSpl: 124 };
    const advice = adviseGains(chain(['mic'], ['rec']), ITEMS, shout, target);
    expect(advice.reached).toBe(false);
    expect(advice.why.join(' ')).toContain('use a pad');
  });
});

describe('noise that gain lifts the voice over', () => {
  const hot = new Map(ITEMS).set('rec', { ...RECORDER, converterNoiseDbfsA: -108 });
  const boom = (gainDb: number) => runLevels(chain(['mic'], ['rec', gainDb]), hot, VOICE).practicalFloorDb as number;

  it('a boom at 0 dB of gain comes out far worse than at 45 dB', () => {
    // At 0 dB the voice of -60 dBu lies 64 dB under the sine that clips; so the converter is 44 dB under it. At 45 dB only the input counts.
    expect(Math.abs(boom(0) - (-23 - SPEECH_K_OVER_A_DB - (108 - 64)))).toBeLessThan(1);
    expect(boom(0) - boom(45)).toBeGreaterThan(8);
    expect(boom(20)).toBeLessThan(boom(0));
  });

  it('16 bit have a noise of their own', () => {
    const set = {
      links: chain(['mic'], ['rec', 0]).links.map((link) => (link.itemId === 'rec' ? { ...link, settings: { ...link.settings, wordLength: '16 bit' as const } } : link)),
    };
    expect(runLevels(set, ITEMS, VOICE).stages[1]?.ownNoiseDbSpl).toBeCloseTo(138 - 98.1, 1);
  });

  it('noise that nobody knows is not none: the figures say that they are the least', () => {
    const deaf = new Map(ITEMS).set('mic', { ...MICROPHONE, selfNoiseDba: null });
    expect(runLevels(chain(['mic'], ['rec', 40]), deaf, VOICE)).toMatchObject({ noiseAtLeast: true, gaps: ['self-noise of mic is not known'] });
    expect(runLevels(chain(['mic'], ['rec', 40]), ITEMS, VOICE).noiseAtLeast).toBe(false);
  });
});

describe('what is taken away on the way', () => {
  const cable = item('cable', 'cable', { lossDb: 6 });
  const all = new Map(ITEMS).set('cable', cable);

  it('a cable that loses 6 dB: so much less arrives, so much more noise behind it', () => {
    const run = runLevels(chain(['mic'], ['cable'], ['rec', 40]), all, VOICE);
    expect(run.averageDbfs).toBeCloseTo(-30 - SINE, 3);
    expect(run.stages[2]?.ownNoiseDbSpl).toBeCloseTo(20, 3);
  });

  it('the pad of a microphone lets it bear more and hiss more', () => {
    const [run] = [runLevels(chain(['mic', 0, 10], ['rec', 40]), ITEMS, VOICE)];
    expect(run.stages[0]).toMatchObject({ ownNoiseDbSpl: 30, clipDbSpl: 140 });
    expect(run.averageDbfs).toBeCloseTo(-34 - SINE, 3);
  });

  it('a limiter holds what would clip: it is told, and nothing clips there', () => {
    const limited = { links: chain(['mic'], ['rec', 60]).links.map((link) => ({ ...link, settings: { ...link.settings, limiter: link.itemId === 'rec' } })) };
    const run = runLevels(limited, ITEMS, VOICE);
    expect(run.stages[1]).toMatchObject({ limited: true });
    expect(run.stages[1]?.peakHeadroomDb).toBeLessThan(0);
    expect(run.clipsFirst).toBe(0);
    expect(run.stages[1]?.clipDbSpl).toBe(130);
  });

  it('an input that is set to line has its own largest level', () => {
    const line = new Map(ITEMS).set('rec', { ...RECORDER, lineInputMaxDbu: 24 });
    const set = { links: chain(['mic'], ['rec', 40]).links.map((link) => ({ ...link, settings: { ...link.settings, lineLevel: 'line' as const } })) };
    expect(runLevels(set, line, VOICE).averageDbfs).toBeCloseTo(-44 - SINE, 3);
  });
});

describe('advice where it used to fail', () => {
  const target = { averageDbfs: -20, headroomDb: 4 };

  it('a recorder whose range nobody knows is still told the gain that it would need', () => {
    const advice = adviseGains(chain(['mic'], ['rec']), new Map(ITEMS).set('rec', { ...RECORDER, gainMinDb: null, gainMaxDb: null }), VOICE, target);
    expect(advice).toMatchObject({ gainsDb: [null, 47], reached: true, why: ['the range of gain of rec is not known: see whether it has 47 dB'] });
  });

  it('a receiver that can be turned down is, where the recorder behind it has no less gain', () => {
    const items = new Map(ITEMS).set('rx', { ...RECEIVER, gainMinDb: -40, gainMaxDb: 12, outputMaxDbu: 18 }).set('rec', { ...RECORDER, gainMinDb: 0 });
    const advice = adviseGains(chain(['mic'], ['tx'], ['rx'], ['rec']), items, VOICE, target);
    expect(advice.reached).toBe(true);
    expect(advice.gainsDb[2]).toBeLessThan(0);
    expect(advice.gainsDb[3]).toBeGreaterThanOrEqual(0);
  });
});

it('K weighting of speech over A weighting follows from the published long-term spectrum', () => {
  // Byrne et al. 1994, table II: third-octave levels at 70 dB overall, 63 Hz to 16 kHz.
  const levels = [38.6, 43.5, 54.4, 57.7, 56.8, 60.2, 60.3, 59, 62.1, 62.1, 60.5, 56.8, 53.7, 53, 52, 48.7, 48.1, 46.8, 45.6, 44.5, 44.3, 43.7, 43.4, 41.3, 40.7];
  const sum = (weight: (hz: number) => number) => 10 * Math.log10(levels.reduce((total, level, band) => total + 10 ** ((level + weight(1000 * 10 ** ((band - 12) / 10))) / 10), 0));
  expect(sum(() => 0)).toBeCloseTo(70, 0);
  const k = kWeighting(48_000);
  expect(sum((hz) => cascadeDb(k, hz, 48_000)) - 0.691 - sum(aWeightingDb)).toBeCloseTo(SPEECH_K_OVER_A_DB, 1);
});
