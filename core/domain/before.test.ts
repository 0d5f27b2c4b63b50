import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyPlan } from '../plan/followRecords.ts';
import { planOf } from '../testing/plans.ts';
import { chainDraftSchema, linkSettingsSchema, NO_SETTINGS } from './chain.ts';
import { criterionDraftSchema } from './criterion.ts';
import { conditionKey, conditionSchema, EXTRA_KINDS, FACTOR_KINDS, setupKey } from './factor.ts';
import { faultSearchSchema } from './faultSearch.ts';
import { newId } from './identity.ts';
import { itemDraftSchema } from './item.ts';
import { imageType, photoDraftSchema } from './photo.ts';
import { DEFAULT_CHANGE_TIMES, planDraftSchema } from './plan.ts';
import { preflightChangeSchema } from './preflight.ts';
import { stationDraftSchema } from './station.ts';
import { trialDraftSchema, trialPatchSchema } from './trial.ts';

/** What is said about a field that is refused. */
function saidOf(
  schema: { safeParse(value: unknown): { success: boolean; error?: { issues: { path: PropertyKey[]; message: string }[] } } },
  value: unknown,
): Record<string, string> {
  const result = schema.safeParse(value);
  return Object.fromEntries((result.error?.issues ?? []).map((issue) => [issue.path.join('.'), issue.message]));
}

describe('settings of a link', () => {
  it('are not known until somebody notes them', () => {
    expect(Object.values(NO_SETTINGS).every((value) => value === null || value === '')).toBe(true);
    expect(linkSettingsSchema.parse({})).toEqual(NO_SETTINGS);
  });

  it.each([
    [{ safetyTrackDb: 6 }, 'safetyTrackDb', 'A safety track lies 0 to 40 dB under'],
    [{ gainDb: 120 }, 'gainDb', 'Gain is -60 to 90 dB'],
    [{ sampleRateHz: 1000 }, 'sampleRateHz', 'Rates are 8,000 to 384,000 Hz'],
  ])('%j is refused with its range', (settings, field, why) => {
    expect(saidOf(linkSettingsSchema, settings)[field]).toBe(why);
  });

  it('of an older chain are completed', () => {
    const old = { name: 'Osier', tape: { kind: 0, letters: 'OS' }, links: [{ itemId: newId(), settings: { gainDb: 12, padDb: null, lowCutHz: 80, limiter: false, note: 'x' } }] };
    const { links, split } = chainDraftSchema.parse(old);
    expect(links[0]?.settings).toEqual({ ...NO_SETTINGS, gainDb: 12, lowCutHz: 80, limiter: false, note: 'x' });
    expect(split).toBeNull();
  });
});

describe('an item', () => {
  it('has nothing that was not entered: numbers are null, not 0', () => {
    const item = itemDraftSchema.parse({ kind: 'recorder', name: 'Lade' });
    expect(item).toMatchObject({ price: null, owned: null, storageGb: null, balancedInput: null, warrantyMonths: null, adapterPrice: null, sampleRatesHz: [], wordLengths: [] });
    expect(item.channels).toBe(1);
  });
  it.each([
    [{ owned: -1 }, 'owned', 'Units are 0 to 99'],
    [{ channels: 0 }, 'channels', 'Channels are 1 to 64'],
    [{ sampleRatesHz: [48_000, 12] }, 'sampleRatesHz.1', 'Rates are 8,000 to 384,000 Hz'],
    [{ wordLengths: ['20 bit'] }, 'wordLengths.0', expect.any(String)],
    [{ gainMinDb: 10, gainMaxDb: 0 }, 'gainMaxDb', 'The most gain is less than the least: exchange the two'],
  ])('%j is refused', (change, field, why) => {
    expect(saidOf(itemDraftSchema, { kind: 'recorder', name: 'Lade', ...change })[field]).toEqual(why);
  });
});

describe('a station', () => {
  it.each([
    [{ latitudeDeg: 91 }, 'latitudeDeg', 'Latitude is -90 to 90 degrees'],
    [{ longitudeDeg: -200 }, 'longitudeDeg', 'Longitude is -180 to 180 degrees'],
  ])('%j lies nowhere', (change, field, why) => {
    expect(saidOf(stationDraftSchema, { name: 'jetty', ...change })[field]).toBe(why);
  });
});

describe('a criterion', () => {
  const draft = { name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0 };
  it('counts the mean at all conditions unless it says otherwise', () => {
    expect(criterionDraftSchema.parse(draft)).toMatchObject({ aggregation: 'mean', where: {}, worstWords: '', bestWords: '' });
  });
  it('may name conditions by the kinds that there are, and no others', () => {
    expect(criterionDraftSchema.parse({ ...draft, where: { windscreen: ['fur'], orientation: ['90'] } }).where).toEqual({ windscreen: ['fur'], orientation: ['90'] });
    expect(criterionDraftSchema.safeParse({ ...draft, where: { weather: ['rain'] } }).success).toBe(false);
  });
});

describe('a trial', () => {
  it('has roles, a budget in a currency, and comparisons within 1/9 and 9', () => {
    const role = { id: newId(), name: 'Children', count: 6 };
    expect(trialDraftSchema.parse({ name: 'Play', roles: [role], budget: { amount: 3000, currency: 'eur' } })).toMatchObject({
      roles: [{ ...role, needs: '', robustness: 'normal' }],
      budget: { amount: 3000, currency: 'EUR' },
    });
    expect(saidOf(trialDraftSchema, { name: 'Play', roles: [{ ...role, count: 0 }] })['roles.0.count']).toBe('A role has 1 to 200 people');
    expect(saidOf(trialPatchSchema, { budget: { amount: 1, currency: 'euro' } })['budget.currency']).toContain('three-letter code');
    expect(saidOf(trialPatchSchema, { hoursAYear: 0 }).hoursAYear).toContain('1 to 8,760 h');
    expect(trialPatchSchema.safeParse({ comparisons: [{ firstId: newId(), secondId: newId(), ratio: 12 }] }).success).toBe(false);
  });
  it('is changed in what is named only', () => {
    expect(trialPatchSchema.parse({ use: 'stage' })).toEqual({ use: 'stage' });
  });
});

describe('a plan', () => {
  it('of before there were designs is completed as the full matrix of then', () => {
    const { factors } = emptyPlan();
    const old = { factors, leftOut: [], together: true, controls: [], changeTimesS: { station: 900, candidate: 300, windscreen: 90, distance: 60, script: 15 }, overheadS: 25 };
    expect(planDraftSchema.parse(old)).toEqual(emptyPlan());
    expect(planDraftSchema.parse(old).changeTimesS).toEqual(DEFAULT_CHANGE_TIMES);
  });

  it.each([
    [{ repeats: 0 }, 'repeats', 'Each setup is done 1 to 10 times'],
    [{ togetherLimits: { tracks: 0 } }, 'togetherLimits.tracks', 'A recorder has 1 to 64 tracks'],
    [{ day: { breaks: [{ startsAtMs: 0, lengthMin: 0 }] } }, 'day.breaks.0.lengthMin', 'A break lasts 1 to 480 min'],
    [{ changeExceptions: [{ kind: 'station', fromId: 'a', toId: 'b', seconds: 9000 }] }, 'changeExceptions.0.seconds', 'A change takes at most 7,200 s'],
    [{ rules: [{ id: newId(), kind: 'station', levelIds: [], withKind: 'script', withLevelIds: ['x'] }] }, 'rules.0.levelIds', 'Choose at least one level'],
  ])('%j is refused by its field', (change, field, why) => {
    expect(saidOf(planDraftSchema, { ...planOf({}), ...change })[field]).toBe(why);
  });

  it('has a time to change every kind of factor', () => {
    expect(Object.keys(DEFAULT_CHANGE_TIMES).sort()).toEqual([...FACTOR_KINDS].sort());
  });
});

describe('a condition', () => {
  const condition = fc.record(
    {
      station: fc.uuid(),
      windscreen: fc.constantFrom('bare', 'fur'),
      distance: fc.constantFrom('1', '10'),
      script: fc.uuid(),
      ...(Object.fromEntries(EXTRA_KINDS.map((kind) => [kind, fc.constantFrom('a', 'b')])) as Record<(typeof EXTRA_KINDS)[number], fc.Arbitrary<string>>),
    },
    { requiredKeys: ['station', 'windscreen', 'distance', 'script'] },
  );

  it('has the key of another only when all of it is the same', () => {
    fc.assert(
      fc.property(condition, condition, (a, b) => {
        const sorted = (each: object) => JSON.stringify(Object.entries(each).sort());
        expect(conditionKey(a) === conditionKey(b)).toBe(sorted(a) === sorted(b));
        expect(setupKey({ ...a, candidate: 'x' })).not.toBe(setupKey({ ...a, candidate: 'y' }));
      }),
    );
  });

  it('is read back as it was, without kinds that it does not have', () => {
    fc.assert(
      fc.property(condition, (each) => {
        expect(conditionSchema.parse(each)).toEqual(each);
      }),
    );
  });
});

describe('a photograph', () => {
  const bytes = (...list: number[]) => Uint8Array.from(list);
  it.each([
    ['image/jpeg', bytes(0xff, 0xd8, 0xff, 0xdb)],
    ['image/png', bytes(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0)],
    ['image/webp', bytes(0x52, 0x49, 0x46, 0x46, 1, 2, 3, 4, 0x57, 0x45, 0x42, 0x50)],
    [null, bytes(0x52, 0x49, 0x46, 0x46, 1, 2, 3, 4, 0x57, 0x41, 0x56, 0x45)],
    [null, new TextEncoder().encode('<svg onload="x">')],
    [null, bytes()],
  ])('is %s by its first bytes', (type, image) => {
    expect(imageType(image)).toBe(type);
  });
  it('belongs to something', () => {
    expect(photoDraftSchema.safeParse({ ownerKind: 'person', ownerId: newId() }).success).toBe(false);
  });
});

describe('pre-flight and fault search', () => {
  it('a tick has somebody who made it', () => {
    expect(saidOf(preflightChangeSchema, { keys: ['a'], ticked: true, person: ' ' }).person).toBe('Give it a name');
  });
  it('a search begins with nothing', () => {
    expect(faultSearchSchema.parse({})).toEqual({ chainId: null, fault: '', suspects: [], tests: [], seenShare: 1 });
    expect(saidOf(faultSearchSchema, { seenShare: 0 }).seenShare).toBe('At least 0.05');
  });
});
