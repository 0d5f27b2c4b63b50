import { describe, expect, it } from 'vitest';
import { linkSettingsSchema } from '../domain/chain.ts';
import { type Item, type ItemDraft, itemDraftSchema } from '../domain/item.ts';
import { adviseGains } from './gainAdvice.ts';
import { runLevels, sensitivityDbu } from './levels.ts';
import { voiceDbSpl } from './voice.ts';

const item = (id: string, kind: ItemDraft['kind'], rest: Partial<ItemDraft>): Item => ({ ...itemDraftSchema.parse({ kind, name: id, remark: '', ...rest }), id });

/** 7.746 mV/Pa is -40 dBu at 94 dB SPL, so that sums can be done in the head. */
const MICROPHONE = item('mic', 'microphone', { sensitivityMvPerPa: 7.746, selfNoiseDba: 20, maxSplDb: 130 });
const RECORDER = item('rec', 'recorder', { inputMaxDbu: 4, inputNoiseDbuA: -120, gainMinDb: 0, gainMaxDb: 70 });
const TRANSMITTER = item('tx', 'transmitter', { inputMaxDbu: -10, inputNoiseDbuA: -114, gainMinDb: 0, gainMaxDb: 40 });
const RECEIVER = item('rx', 'receiver', { inputNoiseDbuA: -80, outputMaxDbu: 0 });
const WINDSCREEN = item('fur', 'windscreen', {});
const ITEMS = new Map([MICROPHONE, RECORDER, TRANSMITTER, RECEIVER, WINDSCREEN].map((each) => [each.id, each]));

const chain = (...links: [id: string, gainDb?: number, padDb?: number][]) => ({
  links: links.map(([itemId, gainDb = null, padDb = null]) => ({ itemId, settings: linkSettingsSchema.parse({ gainDb, padDb }) })),
});
const VOICE = { voiceDbSpl: 74, peakOverAverageDb: 15, targetDb: -23 };

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
    expect(run.averageDbfs).toBeCloseTo(-24, 3);
    expect(run.peakDbfs).toBeCloseTo(-9, 3);
    expect(run.stages[1]?.peakHeadroomDb).toBeCloseTo(9, 3);
  });

  it('adds noises by powers, told as sound at the microphone', () => {
    // The recorder's -120 dBu A is 94 + (-120 + 40) = 14 dB SPL; 20 and 14 dB make 20.97 dB.
    const run = runLevels(chain(['mic'], ['rec', 40]), ITEMS, VOICE);
    expect(run.stages[1]?.ownNoiseDbSpl).toBeCloseTo(14, 3);
    expect(run.stages[1]?.noiseDbSpl).toBeCloseTo(20.973, 2);
    expect(run.noisiest).toBe(0);
    expect(run.noiseDbfsA).toBeCloseTo(-24 + 20.973 - 74, 2);
    expect(run.practicalFloorDb).toBeCloseTo(-23 + 20.973 - 74, 2);
  });

  it('two equal noises are 3 dB more than one', () => {
    const noisy = new Map(ITEMS).set('rec', { ...RECORDER, inputNoiseDbuA: -114 });
    expect(runLevels(chain(['mic'], ['rec', 40]), noisy, VOICE).stages[1]?.noiseDbSpl).toBeCloseTo(23.01, 2);
  });

  it('a pad lowers the level and raises the noise behind it by as much', () => {
    const run = runLevels(chain(['mic'], ['rec', 40, 10]), ITEMS, VOICE);
    expect(run.averageDbfs).toBeCloseTo(-34, 3);
    expect(run.stages[1]?.ownNoiseDbSpl).toBeCloseTo(24, 3);
  });

  it('a radio link hands on full scale, and its noise lies under it', () => {
    // Full scale of the transmitter at 20 dB of gain is -30 dBu, which is 104 dB SPL; -80 dB under it is 24 dB SPL.
    const run = runLevels(chain(['mic'], ['fur'], ['tx', 20], ['rx']), ITEMS, VOICE);
    expect(run.stages[2]?.clipDbSpl).toBeCloseTo(104, 3);
    expect(run.averageDbfs).toBeCloseTo(-30, 3);
    expect(run.stages[3]?.ownNoiseDbSpl).toBeCloseTo(24, 3);
    expect(run.noisiest).toBe(3);
  });

  it('what an early link clips no later one repairs', () => {
    // Receiver at full scale gives 0 dBu; the recorder at 0 dB takes 4 dBu, so the transmitter is the ceiling.
    const run = runLevels(chain(['mic'], ['tx', 40], ['rx'], ['rec', 0]), ITEMS, VOICE);
    expect(run.clipsFirst).toBe(1);
    expect(run.stages[1]?.peakHeadroomDb).toBeCloseTo(-5, 3);
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
    expect(runLevels(chain(['mic'], ['tx', 20], ['rx']), deaf, VOICE).averageDbfs).toBeCloseTo(-30, 3);
  });
});

describe('advice on gain', () => {
  const target = { averageDbfs: -20, headroomDb: 4 };

  it('brings the voice to the target at the last link', () => {
    const advice = adviseGains(chain(['mic'], ['rec']), ITEMS, VOICE, target);
    expect(advice.gainsDb).toEqual([null, 44]);
    expect(advice.run.averageDbfs).toBeCloseTo(-20, 3);
    expect(advice.reached).toBe(true);
  });

  it('takes as much gain early as the headroom allows, so that little noise is added later', () => {
    // Peaks of 89 dB SPL are -45 dBu; with 4 dB of headroom the transmitter takes 31 dB: full scale at 93 dB SPL.
    const advice = adviseGains(chain(['mic'], ['tx'], ['rx'], ['rec']), ITEMS, VOICE, target);
    expect(advice.gainsDb).toEqual([null, 31, null, 3]);
    expect(advice.reached).toBe(true);
  });

  it('at the last link the target itself says what peaks leave', () => {
    expect(adviseGains(chain(['mic'], ['rec']), ITEMS, VOICE, { averageDbfs: -20, headroomDb: 12 })).toMatchObject({ reached: true });
    expect(adviseGains(chain(['mic'], ['tx'], ['rx']), ITEMS, VOICE, { averageDbfs: -20, headroomDb: 12 })).toMatchObject({ reached: true });
    const low = new Map(ITEMS).set('mic', { ...MICROPHONE, maxSplDb: 95 });
    expect(adviseGains(chain(['mic'], ['rec']), low, VOICE, { averageDbfs: -20, headroomDb: 12 }).why).toEqual(['mic keeps 6 dB over the peaks, not 12 dB']);
  });

  it('says which link cannot give what it would have to', () => {
    const whisper = { ...VOICE, voiceDbSpl: 40 };
    const advice = adviseGains(chain(['mic'], ['rec']), ITEMS, whisper, target);
    expect(advice.reached).toBe(false);
    expect(advice.why[0]).toBe('rec would need 78 dB, it has 70 dB');
  });

  it('asks for a pad where even the least gain is too much', () => {
    const shout = { ...VOICE, voiceDbSpl: 124 };
    const advice = adviseGains(chain(['mic'], ['rec']), ITEMS, shout, target);
    expect(advice.reached).toBe(false);
    expect(advice.why.join(' ')).toContain('use a pad');
  });
});
