import { describe, expect, it } from 'vitest';
import { type LinkSettings, linkSettingsSchema } from '../domain/chain.ts';
import { type Item, type ItemDraft, itemDraftSchema } from '../domain/item.ts';
import { checkJoints } from './joints.ts';
import { checkShared } from './sharedUnits.ts';

const item = (name: string, kind: ItemDraft['kind'], rest: Partial<ItemDraft>): Item => ({ ...itemDraftSchema.parse({ kind, name, remark: '', ...rest }), id: name });
const lavalier = (rest: Partial<ItemDraft> = {}) => item('lavalier', 'microphone', { outputConnector: 'locking mini-jack', powerNeeds: 'bias', ...rest });
const transmitter = (rest: Partial<ItemDraft> = {}) =>
  item('transmitter', 'transmitter', { inputConnector: 'locking mini-jack', outputConnector: 'radio', powerGives: 'bias', ...rest });
const receiver = (rest: Partial<ItemDraft> = {}) => item('receiver', 'receiver', { inputConnector: 'radio', outputConnector: 'XLR, 3-pin', outputMaxDbu: 18, ...rest });
const recorder = (rest: Partial<ItemDraft> = {}) =>
  item('recorder', 'recorder', { inputConnector: 'XLR, 3-pin', inputMaxDbu: 4, gainMinDb: 0, gainMaxDb: 60, powerGives: 'phantom 48 V', ...rest });

const check = (items: Item[], gainsDb: Record<string, number> = {}) =>
  checkJoints(
    { links: items.map(({ id }) => ({ itemId: id, settings: linkSettingsSchema.parse({ gainDb: gainsDb[id] ?? null }) })) },
    new Map(items.map((each) => [each.id, each])),
  );

describe('joints of a chain', () => {
  it('a chain that goes together has nothing to say', () => {
    expect(check([lavalier(), transmitter(), receiver({ outputMaxDbu: -10 }), recorder()])).toEqual([]);
  });

  it('a windscreen is no joint', () => {
    expect(check([lavalier(), item('fur', 'windscreen', {}), transmitter()])).toEqual([]);
  });

  it.each<[why: string, microphone: Partial<ItemDraft>, unit: Partial<ItemDraft>, severity: string, says: RegExp, remedy: RegExp]>([
    ['other shape', { outputConnector: 'miniature, 3-pin' }, {}, 'fault', /ends in miniature, 3-pin, transmitter takes locking mini-jack/, /adapter/],
    ['four poles into three', { outputConnector: 'mini-jack, 4-pole' }, {}, 'fault', /4 poles in a socket for 3/, /adapter from 4 to 3/],
    ['a plug that does not lock', { outputConnector: 'mini-jack, 3-pole' }, {}, 'care', /does not lock/, /Tape it/],
    ['same plug, other wiring', { wiring: 'tip hot' }, { wiring: 'ring hot' }, 'fault', /wired tip hot, the socket ring hot/, /wired for this unit/],
    ['a connector that nobody entered', { outputConnector: null }, {}, 'unknown', /output of lavalier is not known/, /Look/],
    ['no power where some is wanted', {}, { powerGives: 'none' }, 'fault', /wants bias power, transmitter gives none/, /supply/],
    ['phantom on a microphone for plug-in power', { powerNeeds: 'plug-in' }, { powerGives: 'phantom 48 V' }, 'fault', /can destroy it/, /Switch phantom off/],
    ['power that nobody entered', { powerNeeds: null }, {}, 'unknown', /not known what lavalier is fed with/, /Look it up/],
  ])('%s', (_why, microphone, unit, severity, says, remedy) => {
    const findings = check([lavalier(microphone), transmitter(unit)]);
    expect(findings.map((finding) => finding.severity)).toContain(severity);
    const finding = findings.find((each) => says.test(each.sentence));
    expect(finding?.remedy).toMatch(remedy);
  });

  it.each<[needs: ItemDraft['powerNeeds'], gives: ItemDraft['powerGives'], findings: number]>([
    ['none', 'phantom 48 V', 0],
    ['none', null, 0],
    ['phantom 12 V', 'phantom 48 V', 0],
    ['phantom 48 V', 'phantom 12 V', 1],
    ['phantom 48 V', 'phantom 48 V', 0],
  ])('a microphone that wants %s on %s', (powerNeeds, powerGives, findings) => {
    expect(check([lavalier({ powerNeeds }), transmitter({ powerGives })])).toHaveLength(findings);
  });

  it('line into mic: full scale of one is more than the other takes as it is set', () => {
    // 18 dBu with 10 dB of gain is 24 dB more than the 4 dBu that the recorder takes.
    const [finding] = check([receiver(), recorder()], { recorder: 10 });
    expect(finding?.sentence).toContain('Line into mic: full scale of receiver is 18 dBu, 24 dB more');
    expect(check([receiver({ outputMaxDbu: 4 }), recorder()], { recorder: 0 })).toEqual([]);
  });

  it('mic into line: even full gain leaves the signal in the noise', () => {
    // -50 dBu into an input for 24 dBu with 20 dB of gain stays 54 dB short.
    const [finding] = check([receiver({ outputMaxDbu: -50 }), recorder({ inputMaxDbu: 24, gainMaxDb: 20 })]);
    expect(finding?.sentence).toContain('Mic into line: even at full gain, full scale of receiver stays 54 dB under');
  });

  it('a level is followed through a cable', () => {
    const cable = item('cable', 'cable', { inputConnector: 'XLR, 3-pin', outputConnector: 'XLR, 3-pin' });
    expect(check([receiver(), cable, recorder()]).map(({ joint }) => joint)).toEqual(['receiver into recorder']);
  });

  it('a supply between feeds the microphone', () => {
    const supply = item('supply', 'adapter', { inputConnector: 'locking mini-jack', outputConnector: 'locking mini-jack', powerGives: 'plug-in' });
    const microphone = lavalier({ powerNeeds: 'plug-in' });
    expect(check([microphone, transmitter()])).toHaveLength(1);
    expect(check([microphone, supply, transmitter()])).toEqual([]);
  });

  it('three faults in one chain are three findings, each gone when it is mended', () => {
    const faulty = [lavalier({ outputConnector: 'miniature, 3-pin', powerNeeds: 'plug-in' }), transmitter(), receiver(), recorder()];
    expect(check(faulty).filter(({ severity }) => severity === 'fault')).toHaveLength(3);
    const adapter = item('adapter', 'adapter', { inputConnector: 'miniature, 3-pin', outputConnector: 'locking mini-jack' });
    const adapted = [faulty[0]!, adapter, ...faulty.slice(1)];
    expect(check(adapted).filter(({ severity }) => severity === 'fault')).toHaveLength(2);
    const fed = [lavalier({ outputConnector: 'miniature, 3-pin' }), adapter, ...faulty.slice(1)];
    expect(check(fed).filter(({ severity }) => severity === 'fault')).toHaveLength(1);
    expect(check(fed.with(-1, recorder({ inputMaxDbu: 24 })))).toEqual([]);
  });

  const set = (items: Item[], settings: Record<string, Partial<LinkSettings>>) =>
    checkJoints({ links: items.map(({ id }) => ({ itemId: id, settings: linkSettingsSchema.parse(settings[id] ?? {}) })) }, new Map(items.map((each) => [each.id, each])));
  const faults = (items: Item[], settings: Record<string, Partial<LinkSettings>> = {}) => set(items, settings).filter((finding) => finding.severity === 'fault');
  const xlrMic = (rest: Partial<ItemDraft> = {}) => item('boom', 'microphone', { outputConnector: 'XLR, 3-pin', powerNeeds: 'phantom 48 V', ...rest });
  const adapter = (rest: Partial<ItemDraft>) => item('adapter', 'adapter', { inputConnector: 'locking mini-jack', outputConnector: 'locking mini-jack', ...rest });

  it.each<[why: string, items: Item[], settings: Record<string, Partial<LinkSettings>>, says: RegExp]>([
    ['phantom into a receiver', [receiver({ outputMaxDbu: -10 }), recorder()], { recorder: { power: 'phantom 48 V' } }, /into the output of receiver/],
    [
      'phantom into an unbalanced microphone with a battery',
      [xlrMic({ powerNeeds: 'none', balancedOutput: false }), recorder()],
      { recorder: { power: 'phantom 48 V' } },
      /can destroy it/,
    ],
    ['microphone into line', [xlrMic(), recorder()], { recorder: { lineLevel: 'line' } }, /Microphone into line/],
    ['transmitter straight into a recorder', [lavalier(), transmitter(), recorder({ inputConnector: 'radio' })], {}, /recorder cannot hear it/],
    ['recorder into a receiver', [recorder({ outputConnector: 'radio' }), receiver()], {}, /not the output of recorder/],
    ['two systems', [transmitter({ radioSystem: 'Tern' }), receiver({ radioSystem: 'Heron' })], {}, /do not hear each other/],
    [
      'an adapter with the wrong other end',
      [lavalier({ wiring: 'tip hot' }), adapter({ wiring: 'tip hot', outputWiring: 'ring hot' }), transmitter({ wiring: 'tip hot' })],
      {},
      /wired ring hot, the socket tip hot/,
    ],
    [
      'stereo into balanced mono',
      [item('two', 'receiver', { outputConnector: 'jack 6.3 mm', balancedOutput: false, channels: 2 }), recorder({ inputConnector: 'jack 6.3 mm', balancedInput: true })],
      {},
      /difference of left and right/,
    ],
  ])('%s is a fault', (_why, items, settings, says) => {
    expect(
      faults(items, settings)
        .map((finding) => finding.sentence)
        .join(),
    ).toMatch(says);
  });

  it.each<[why: string, items: Item[], settings: Record<string, Partial<LinkSettings>>]>([
    ['wiring in other words', [lavalier({ wiring: 'Tip = signal, sleeve ground' }), transmitter({ wiring: 'sleeve: shield; tip hot' })], {}],
    ['a line input that is set to line', [receiver({ outputMaxDbu: 18 }), recorder({ lineInputMaxDbu: 24 })], { recorder: { lineLevel: 'line' } }],
    ['a cable that takes the level down', [receiver(), item('pad', 'cable', { inputConnector: 'XLR, 3-pin', outputConnector: 'XLR, 3-pin', lossDb: 30 }), recorder()], {}],
    ['a jack into a combination socket', [item('mixer', 'receiver', { outputConnector: 'jack 6.3 mm' }), recorder({ inputConnector: 'combination, XLR and jack' })], {}],
    ['an adapter made for both', [lavalier({ wiring: 'ring hot' }), adapter({ wiring: 'ring hot', outputWiring: 'tip hot' }), transmitter({ wiring: 'tip hot' })], {}],
  ])('%s is none', (_why, items, settings) => {
    expect(faults(items, settings)).toEqual([]);
  });

  it('wiring that is known of one side only, and a system likewise, cannot be told', () => {
    expect(set([lavalier({ wiring: 'tip hot' }), transmitter()], {}).map(({ severity, sentence }) => [severity, sentence])).toContainEqual([
      'unknown',
      'The plug fits, but how transmitter is wired is not known.',
    ]);
    expect(set([transmitter({ radioSystem: 'Tern' }), receiver()], {}).map(({ severity }) => severity)).toContain('unknown');
  });

  it('a split that both sides feed', () => {
    const items = new Map([xlrMic(), recorder(), item('camera', 'camera', { inputConnector: 'XLR, 3-pin' })].map((each) => [each.id, each]));
    const links = (unit: string, power: LinkSettings['power']) => [
      { itemId: 'boom', settings: linkSettingsSchema.parse({}) },
      { itemId: unit, settings: linkSettingsSchema.parse({ power }) },
    ];
    const pair = (second: LinkSettings['power']) => [
      { id: 'a', name: 'to recorder', links: links('recorder', 'phantom 48 V'), split: null },
      { id: 'b', name: 'to camera', links: links('camera', second), split: { chainId: 'a', links: 1 } },
    ];
    expect(checkShared(pair('phantom 48 V'), items)[0]?.sentence).toMatch(/^Both sides of the split feed phantom/);
    expect(checkShared(pair('none'), items)).toEqual([]);
  });
});
