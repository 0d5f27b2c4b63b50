import { describe, expect, it } from 'vitest';
import { type LinkSettings, NO_SETTINGS } from '../domain/chain.ts';
import { type Item, type ItemDraft, itemDraftSchema } from '../domain/item.ts';
import { batteriesOfDay, chainBurden, recordingHours, runningTimes } from './burden.ts';
import { checkJoints } from './joints.ts';
import { runLevels } from './levels.ts';
import { preflightChecks } from './preflight.ts';
import { checkShared } from './sharedUnits.ts';

const item = (id: string, kind: ItemDraft['kind'], rest: Partial<ItemDraft> = {}): Item => ({ ...itemDraftSchema.parse({ kind, name: id, ...rest }), id });
const RECORDER = item('rec', 'recorder', { storageGb: 32, channels: 2, batteryType: 'AA', batteryCount: 4, runningTimeH: 3, sampleRatesHz: [48_000, 96_000], inputMaxDbu: 4 });
const TRANSMITTER = item('tx', 'transmitter', { batteryType: 'AA', batteryCount: 2, runningTimeH: 7, inputMaxDbu: -10 });
const ITEMS = new Map(
  [RECORDER, TRANSMITTER, item('fur', 'windscreen'), item('mic', 'microphone', { sensitivityMvPerPa: 7.746, maxSplDb: 130, powerNeeds: 'bias' })].map((each) => [each.id, each]),
);
const chain = (id: string, ...links: [itemId: string, settings?: Partial<LinkSettings>][]) => ({
  id,
  name: id,
  split: null,
  links: links.map(([itemId, settings]) => ({ itemId, settings: { ...NO_SETTINGS, ...settings } })),
});

describe('storage', () => {
  it('hours are bytes over rate, word length and tracks', () => {
    // 32,000,000,000 bytes / (48,000 * 3 * 2 * 3,600 a second) = 30.86 h.
    expect(recordingHours(32, 48_000, '24 bit', 2)).toBeCloseTo(30.864, 3);
    expect(recordingHours(32, 96_000, '24 bit', 2)).toBeCloseTo(30.864 / 2, 3);
    expect(recordingHours(32, 48_000, '32-bit float', 1)).toBeCloseTo((30.864 * 2 * 3) / 4, 3);
  });

  it('a safety track doubles what a recorder writes', () => {
    const hours = (settings: Partial<LinkSettings>) => chainBurden(chain('c', ['rec', settings]), ITEMS).recordingHours[0]?.hours;
    const set = { sampleRateHz: 48_000, wordLength: '24 bit' } as const;
    expect(hours(set)).toBeCloseTo(30.864, 3);
    expect(hours({ ...set, safetyTrackDb: -10 })).toBeCloseTo(15.432, 3);
    expect(chainBurden(chain('c', ['rec']), ITEMS)).toMatchObject({
      recordingHours: [],
      gaps: expect.arrayContaining(['recording time of rec: set its sample rate and word length']),
    });
  });
});

describe('batteries', () => {
  it('a day of eight hours changes a link of three hours twice and one of seven once', () => {
    expect(batteriesOfDay(chain('c', ['tx'], ['rec']), ITEMS, 8)).toEqual({ changes: 3, batteries: [{ type: 'AA', count: 3 * 4 + 2 * 2 }] });
    expect(batteriesOfDay(chain('c', ['tx'], ['rec']), ITEMS, 2)).toEqual({ changes: 0, batteries: [{ type: 'AA', count: 6 }] });
  });
  it('a chain runs as long as its weakest link', () => {
    expect(runningTimes([chain('c', ['tx'], ['rec']), chain('d', ['mic'])], [...ITEMS.values()])).toEqual(new Map([['c', 3]]));
  });
});

describe('pre-flight', () => {
  const set: Partial<LinkSettings> = { sampleRateHz: 48_000, wordLength: '24 bit', limiter: false, noiseReduction: false, safetyTrackDb: -10, lowCutHz: 80 };
  const checks = (settings: Partial<LinkSettings>, planMin = 60) =>
    preflightChecks([chain('a', ['fur'], ['tx'], ['rec', settings]), chain('b', ['rec', settings])], ITEMS, planMin);

  it('comes from the settings, each unit once, with the chains that need it', () => {
    const lines = checks(set).filter((check) => check.unit === 'rec');
    expect(lines.map((check) => check.text)).toEqual([
      'charged, and 4 spare AA packed',
      // An hour of four tracks at 48 kHz and 3 bytes is 2.07 GB.
      '2.1 GB free of 32 GB, for 60 min',
      'clock and timecode set',
      '48 kHz, 24 bit, the same as all others',
      'limiter off',
      'noise reduction off',
      'low-cut at 80 Hz, the same as all others',
      'safety track on, 10 dB lower',
    ]);
    expect(lines.every((check) => check.chainIds.join() === 'a,b')).toBe(true);
    expect(checks(set).some((check) => check.unit === 'fur')).toBe(true);
  });

  it('a tick no longer counts when the setting has changed', () => {
    const key = (settings: Partial<LinkSettings>) => checks(settings).find((check) => check.text.startsWith('noise reduction'))?.key;
    expect(key(set)).not.toBe(key({ ...set, noiseReduction: true }));
    expect(key(set)).toBe(key({ ...set, limiter: true }));
  });

  it('says nothing of settings that nobody made', () => {
    expect(
      checks({})
        .filter((check) => check.unit === 'rec')
        .map((check) => check.text),
    ).toEqual(['charged, and 4 spare AA packed', 'storage free, or set to overwrite', 'clock and timecode set']);
  });
});

describe('units of one model', () => {
  const three = ['a', 'b', 'c'].map((id) => chain(id, ['mic'], ['tx', { gainDb: 10 }]));
  const powerOf = (change: Partial<Item> = {}) =>
    preflightChecks(three, new Map(ITEMS).set('tx', { ...ITEMS.get('tx')!, batteryCount: 2, ...change }), 60).filter((check) => check.text.startsWith('charged'));

  it('three transmitters of one model in three chains are three to charge, each by its number', () => {
    expect(powerOf().map((check) => [check.unit, check.chainIds])).toEqual([
      ['tx, unit 1', ['a']],
      ['tx, unit 2', ['b']],
      ['tx, unit 3', ['c']],
    ]);
  });

  it('one that is at hand only once is one, and so is one with channels for all', () => {
    expect(powerOf({ owned: 1 }).map((check) => check.chainIds)).toEqual([['a', 'b', 'c']]);
    expect(powerOf({ channels: 4 }).map((check) => check.unit)).toEqual(['tx']);
  });

  it('what a split shares is one unit, wherever the two stand in the list', () => {
    const whole = chain('a', ['mic'], ['tx', { gainDb: 10 }], ['rec']);
    const split = { ...chain('b', ['mic'], ['tx', { gainDb: 10 }], ['rec']), split: { chainId: 'a', links: 2 } };
    const unitsIn = (...chains: Parameters<typeof preflightChecks>[0]) => [...new Set(preflightChecks(chains, ITEMS, 60).map((check) => check.unit))];
    expect(unitsIn(whole, split)).toEqual(['tx', 'rec']);
    expect(unitsIn(split, whole)).toEqual(['tx', 'rec']);
  });
});

describe('joints by their settings', () => {
  const sentences = (...links: Parameters<typeof chain>[1][]) =>
    checkJoints(chain('c', ...links), ITEMS)
      .filter((finding) => finding.severity !== 'unknown')
      .map((finding) => finding.sentence);

  it('rates that differ over a radio, and a rate that a unit has not; an analogue joint has none', () => {
    const radio = new Map(ITEMS).set('rx', item('rx', 'receiver', {}));
    const faults = (...links: Parameters<typeof chain>[1][]) =>
      checkJoints(chain('c', ...links), radio)
        .filter((finding) => finding.severity === 'fault')
        .map((finding) => finding.sentence);
    expect(faults(['tx', { sampleRateHz: 48_000 }], ['rx', { sampleRateHz: 96_000 }])).toEqual([expect.stringContaining('tx runs at 48 kHz, rx at 96 kHz')]);
    expect(faults(['rx', { sampleRateHz: 48_000 }], ['rec', { sampleRateHz: 96_000 }])).toEqual([]);
    expect(sentences(['rec', { sampleRateHz: 44_100 }])).toEqual(['rec is set to 44.1 kHz but runs at 48 kHz, 96 kHz.']);
  });

  it('what the input is set to feed goes before what it could', () => {
    const feed = (power: LinkSettings['power']) => sentences(['mic'], ['rec', { power }]);
    expect(feed('phantom 48 V')).toEqual([expect.stringContaining('can destroy it')]);
    expect(feed('bias')).toEqual([]);
  });

  it('a line output into an input that is set to mic level, whatever its largest level', () => {
    const items = new Map(ITEMS).set('rx', item('rx', 'receiver', { outputMaxDbu: 4 }));
    const of = (lineLevel: LinkSettings['lineLevel']) => checkJoints(chain('c', ['rx'], ['rec', { lineLevel }]), items).filter((finding) => finding.severity === 'fault');
    expect(of('mic')[0]).toMatchObject({ sentence: expect.stringContaining('Line into mic: rx gives 4 dBu'), remedy: expect.stringContaining('Set rec to line level') });
    expect(of('line')).toEqual([]);
  });

  it('balanced into unbalanced, and two channels into one', () => {
    const items = new Map(
      [
        item('rx', 'receiver', { outputConnector: 'XLR, 3-pin', balancedOutput: true, channels: 2 }),
        item('cam', 'camera', { inputConnector: 'XLR, 3-pin', balancedInput: false }),
      ].map((each) => [each.id, each]),
    );
    const found = checkJoints(chain('c', ['rx'], ['cam']), items).map((finding) => finding.sentence);
    expect(found).toEqual([expect.stringContaining('Balanced into unbalanced'), expect.stringContaining('gives 2 channels, cam takes 1')]);
  });

  it('more candidates into one unit than it has channels', () => {
    const three = ['a', 'b', 'c'].map((id) => chain(id, ['rec']));
    expect(checkShared(three, ITEMS)[0]?.sentence).toBe('a, b, c all go into rec: 3 channels where there are 2.');
    expect(checkShared(three.slice(1), ITEMS)).toEqual([]);
  });
});

/** Peaks of a sine lie this far over its RMS. */
const SINE = 3.0103;

describe('what a safety track and float change', () => {
  const VOICE = { voiceDbSpl: 84, peakOverAverageDb: 15, targetLufs: -23 };
  // 84 dB SPL is -50 dBu; with 50 dB of gain full scale is at -46 dBu, so the peaks at -35 dBu are 11 dB over.
  const stage = (settings: Partial<LinkSettings>) => runLevels(chain('c', ['mic'], ['rec', { gainDb: 50, ...settings }]), ITEMS, VOICE).stages[1];

  it('a safety track has its own headroom', () => {
    expect(stage({})?.peakHeadroomDb).toBeCloseTo(-11 + SINE, 3);
    expect(stage({ safetyTrackDb: -20 })).toMatchObject({ safetyHeadroomDb: expect.closeTo(9 + SINE, 3), peakHeadroomDb: expect.closeTo(-11 + SINE, 3) });
  });

  it('float does not clip by its gain, only at its input', () => {
    expect(stage({ wordLength: '32-bit float' })?.peakHeadroomDb).toBeCloseTo(4 + 35 + SINE, 3);
    const run = runLevels(chain('c', ['mic'], ['rec', { gainDb: 50, wordLength: '32-bit float' }]), ITEMS, VOICE);
    expect(run.peakDbfs).toBeCloseTo(11 - SINE, 3);
  });

  it('float at the recorder does not help a transmitter that clips before it', () => {
    const run = runLevels(chain('c', ['mic'], ['tx', { gainDb: 50 }], ['rec', { wordLength: '32-bit float' }]), ITEMS, VOICE);
    expect(run.stages[1]?.peakHeadroomDb).toBeCloseTo(-10 - 50 + 35 + SINE, 3);
    expect(run.clipsFirst).toBe(1);
  });
});
