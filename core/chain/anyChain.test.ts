import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_SETTINGS } from '../domain/chain.ts';
import { type Item, itemDraftSchema } from '../domain/item.ts';
import { batteriesOfDay, chainBurden, recordingHours } from './burden.ts';
import { adviseGains } from './gainAdvice.ts';
import { checkJoints } from './joints.ts';
import { type LevelRun, runLevels } from './levels.ts';
import { preflightChecks } from './preflight.ts';
import { voiceDbSpl } from './voice.ts';

const whole = (min: number, max: number) => fc.integer({ min, max });

/** Wireless chains with data that real ones could have, and their settings. */
const chains = fc
  .record({
    sensitivityMvPerPa: fc.double({ min: 1, max: 40, noNaN: true }),
    selfNoiseDba: whole(8, 34),
    maxSplDb: whole(105, 140),
    transmitterMaxDbu: whole(-30, 0),
    transmitterNoiseDbuA: whole(-126, -100),
    radioNoiseDbfsA: whole(-100, -70),
    outputMaxDbu: whole(-30, 18),
    recorderMaxDbu: whole(-10, 24),
    recorderNoiseDbuA: whole(-130, -100),
    gainsDb: fc.tuple(whole(0, 40), whole(-20, 60)),
    padDb: fc.constantFrom(null, 10, 20),
  })
  .map((data) => {
    const item = (kind: Item['kind'], id: string, rest: Partial<Item>): Item => ({ ...itemDraftSchema.parse({ kind, name: id }), id, ...rest });
    const items = [
      item('microphone', 'mic', { sensitivityMvPerPa: data.sensitivityMvPerPa, selfNoiseDba: data.selfNoiseDba, maxSplDb: data.maxSplDb, powerNeeds: 'bias' }),
      item('transmitter', 'tx', { inputMaxDbu: data.transmitterMaxDbu, inputNoiseDbuA: data.transmitterNoiseDbuA, gainMinDb: 0, gainMaxDb: 40, powerGives: 'bias' }),
      item('receiver', 'rx', { inputNoiseDbuA: data.radioNoiseDbfsA, outputMaxDbu: data.outputMaxDbu }),
      item('recorder', 'rec', { inputMaxDbu: data.recorderMaxDbu, inputNoiseDbuA: data.recorderNoiseDbuA, gainMinDb: -20, gainMaxDb: 60 }),
    ];
    const gains: Record<string, number> = { tx: data.gainsDb[0], rec: data.gainsDb[1] };
    const links = items.map(({ id }) => ({ itemId: id, settings: { ...NO_SETTINGS, gainDb: gains[id] ?? null, padDb: id === 'rec' ? data.padDb : null } }));
    return { chain: { id: 'c', links }, items: new Map(items.map((each) => [each.id, each])) };
  });
const VOICE = { voiceDbSpl: 74, peakOverAverageDb: 15, targetLufs: -23 };
const TARGET = { averageDbfs: -20, headroomDb: 6 };
type AnyChain = ReturnType<typeof chains.generate>['value'];
const run = ({ chain, items }: AnyChain, change: Partial<typeof VOICE> = {}): LevelRun => runLevels(chain, items, { ...VOICE, ...change });
const withGain = ({ chain, items }: AnyChain, id: string, gainDb: number): AnyChain => ({
  items,
  chain: { ...chain, links: chain.links.map((link) => (link.itemId === id ? { ...link, settings: { ...link.settings, gainDb } } : link)) },
});

describe('a voice through any chain', () => {
  it('so much louder arrives so much louder everywhere, and leaves so much less', () => {
    fc.assert(
      fc.property(chains, whole(-20, 20), (any, louderDb) => {
        const [before, after] = [run(any), run(any, { voiceDbSpl: VOICE.voiceDbSpl + louderDb })];
        expect(after.averageDbfs as number).toBeCloseTo((before.averageDbfs as number) + louderDb, 6);
        after.stages.forEach((stage, index) => {
          const was = before.stages[index];
          if (stage.peakHeadroomDb !== null) expect(stage.peakHeadroomDb).toBeCloseTo((was?.peakHeadroomDb as number) - louderDb, 6);
          expect(stage.noiseDbSpl).toEqual(was?.noiseDbSpl);
        });
        expect(after.practicalFloorDb as number).toBeCloseTo((before.practicalFloorDb as number) - louderDb, 6);
      }),
    );
  });

  it('noise only ever adds up, and clipping only ever comes earlier', () => {
    fc.assert(
      fc.property(chains, (any) => {
        const { stages } = run(any);
        stages.slice(1).forEach((stage, index) => {
          expect(stage.noiseDbSpl as number).toBeGreaterThanOrEqual((stages[index]?.noiseDbSpl as number) - 1e-9);
          expect(stage.clipDbSpl as number).toBeLessThanOrEqual((stages[index]?.clipDbSpl as number) + 1e-9);
        });
      }),
    );
  });

  it('the link that is named clips no later than any other, and the noisiest adds no less', () => {
    fc.assert(
      fc.property(chains, (any) => {
        const { stages, clipsFirst, noisiest } = run(any);
        for (const stage of stages) {
          if (stage.peakHeadroomDb !== null) expect(stage.peakHeadroomDb).toBeGreaterThanOrEqual((stages[clipsFirst as number]?.peakHeadroomDb as number) - 1e-9);
          if (stage.ownNoiseDbSpl !== null) expect(stage.ownNoiseDbSpl).toBeLessThanOrEqual((stages[noisiest as number]?.ownNoiseDbSpl as number) + 1e-9);
        }
      }),
    );
  });

  it('more gain at the transmitter never makes the noise of what follows worse', () => {
    fc.assert(
      fc.property(chains, whole(0, 30), whole(1, 10), (any, gainDb, moreDb) => {
        const floor = (gain: number) => run(withGain(any, 'tx', gain)).practicalFloorDb as number;
        expect(floor(gainDb + moreDb)).toBeLessThanOrEqual(floor(gainDb) + 1e-9);
      }),
    );
  });

  it('twice as far is 6 dB less', () => {
    fc.assert(
      fc.property(whole(42, 84), fc.double({ min: 0.02, max: 10, noNaN: true }), (dbSpl, distanceM) => {
        expect(voiceDbSpl(dbSpl, distanceM) - voiceDbSpl(dbSpl, 2 * distanceM)).toBeCloseTo(20 * Math.log10(2), 9);
      }),
    );
  });
});

describe('gains advised for any chain', () => {
  it('are whole and within the ranges of the units', () => {
    fc.assert(
      fc.property(chains, ({ chain, items }) => {
        adviseGains(chain, items, VOICE, TARGET).gainsDb.forEach((gainDb, index) => {
          const item = items.get(chain.links[index]?.itemId ?? '');
          if (gainDb === null) return;
          expect(Number.isInteger(gainDb)).toBe(true);
          expect(gainDb).toBeGreaterThanOrEqual(item?.gainMinDb as number);
          expect(gainDb).toBeLessThanOrEqual(item?.gainMaxDb as number);
        });
      }),
    );
  });

  it('where they say that the target is reached, it is', () => {
    fc.assert(
      fc.property(chains, (any) => {
        const advice = adviseGains(any.chain, any.items, VOICE, TARGET);
        if (!advice.reached) {
          expect(advice.why.length).toBeGreaterThan(0);
          return;
        }
        const set = advice.gainsDb.reduce((each, gainDb, index) => (gainDb === null ? each : withGain(each, any.chain.links[index]?.itemId ?? '', gainDb)), any);
        const { averageDbfs, stages } = run(set);
        expect(Math.abs((averageDbfs as number) - TARGET.averageDbfs)).toBeLessThanOrEqual(0.5);
        for (const stage of stages) if (stage.peakHeadroomDb !== null) expect(stage.peakHeadroomDb).toBeGreaterThan(0);
      }),
    );
  });

  it('taken, are advised again', () => {
    fc.assert(
      fc.property(chains, (any) => {
        const advice = adviseGains(any.chain, any.items, VOICE, TARGET);
        const set = advice.gainsDb.reduce((each, gainDb, index) => (gainDb === null ? each : withGain(each, any.chain.links[index]?.itemId ?? '', gainDb)), any);
        expect(adviseGains(set.chain, set.items, VOICE, TARGET).gainsDb).toEqual(advice.gainsDb);
      }),
    );
  });
});

describe('what any chain is to carry and to check', () => {
  it('a longer day never needs fewer batteries', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ batteryCount: whole(0, 4), runningTimeH: fc.option(whole(1, 12), { nil: null }) }), { minLength: 1, maxLength: 4 }),
        whole(1, 12),
        whole(1, 6),
        (units, dayH, moreH) => {
          const items = new Map(
            units.map((unit, index) => [`u${index}`, { ...itemDraftSchema.parse({ kind: 'recorder', name: `u${index}` }), id: `u${index}`, ...unit, batteryType: 'AA' }]),
          );
          const chain = { id: 'c', links: [...items.keys()].map((itemId) => ({ itemId, settings: NO_SETTINGS })) };
          const need = (hours: number) => batteriesOfDay(chain, items, hours);
          expect(need(dayH + moreH).changes).toBeGreaterThanOrEqual(need(dayH).changes);
          const { runningTimeH } = chainBurden(chain, items);
          if (runningTimeH !== null && dayH <= runningTimeH) expect(need(dayH).changes).toBe(0);
        },
      ),
    );
  });

  it('storage lasts in proportion', () => {
    fc.assert(
      fc.property(
        whole(1, 1000),
        fc.constantFrom(44_100, 48_000, 96_000),
        fc.constantFrom('16 bit' as const, '24 bit' as const, '32-bit float' as const),
        whole(1, 16),
        (gb, rateHz, word, tracks) => {
          expect(recordingHours(2 * gb, rateHz, word, tracks)).toBeCloseTo(2 * recordingHours(gb, rateHz, word, tracks), 9);
          expect(recordingHours(gb, rateHz, word, 2 * tracks)).toBeCloseTo(recordingHours(gb, rateHz, word, tracks) / 2, 9);
        },
      ),
    );
  });

  it('no check stands twice, and each names a chain that needs it', () => {
    fc.assert(
      fc.property(chains, ({ chain, items }) => {
        const checks = preflightChecks([chain, { ...chain, id: 'd' }], items, 30);
        expect(new Set(checks.map((check) => check.key)).size).toBe(checks.length);
        for (const check of checks) expect(check.chainIds.length).toBeGreaterThan(0);
        // Two chains of one model each need what the other needs, on units of their own or on a shared one.
        const of = (id: string) =>
          checks
            .filter((check) => check.chainIds.includes(id))
            .map((check) => check.text)
            .sort();
        expect(of('d')).toEqual(of('c'));
      }),
    );
  });

  it('every finding at a joint has a remedy, and the chain is not changed by looking at it', () => {
    fc.assert(
      fc.property(chains, ({ chain, items }) => {
        const before = JSON.stringify(chain);
        for (const finding of checkJoints(chain, items)) expect([finding.sentence, finding.remedy]).not.toContain('');
        expect(JSON.stringify(chain)).toBe(before);
      }),
    );
  });
});
