import { describe, expect, it } from 'vitest';
import { chainBurden } from '../chain/burden.ts';
import { cautionTitle, chainCautions, distinctCautions, stationCautions } from './caution.ts';
import { type ChainDraft, NO_SETTINGS } from './chain.ts';
import { criterionDraftSchema, weightShares } from './criterion.ts';
import { type Item, itemDraftSchema } from './item.ts';
import { applyLog, type LogLine } from './logLine.ts';
import { isSpoiled, slateLabel, untouchedTake } from './take.ts';
import { nextTape } from './tape.ts';

const item = (id: string, change: Partial<Item>): Item => ({ ...itemDraftSchema.parse({ kind: 'microphone', name: id }), id, ...change });
const chain = (ids: string[], onSkin = false): Pick<ChainDraft, 'name' | 'links' | 'rig'> => ({
  name: 'Quay One',
  rig: { placement: 'breastbone', onSkin },
  links: ids.map((itemId) => ({ itemId, settings: NO_SETTINGS })),
});

describe('chain totals', () => {
  const items = new Map([
    ['mic', item('mic', { price: 200, weightG: 6 })],
    ['tx', item('tx', { kind: 'transmitter', price: 450, weightG: 90, batteryType: 'AA', batteryCount: 2, runningTimeH: 6 })],
    ['rx', item('rx', { kind: 'receiver', price: 500, weightG: 120, batteryType: 'AA', batteryCount: 2, runningTimeH: 8 })],
    ['fur', item('fur', { kind: 'windscreen', price: null, weightG: null })],
    ['dollar', item('dollar', { price: 10, currency: 'USD' })],
  ]);
  it('adds price, weight and batteries; the first to stop sets the running time', () => {
    expect(chainBurden(chain(['mic', 'tx', 'rx']), items)).toMatchObject({
      price: 1150,
      currency: 'EUR',
      weightG: 216,
      batteries: [{ type: 'AA', count: 4 }],
      runningTimeH: 6,
      gaps: [],
    });
  });
  it('names what is not known', () => {
    expect(chainBurden(chain(['mic', 'fur', 'lost']), items)).toMatchObject({ price: 200, gaps: ['1 link is no longer in the library', 'no price: fur', 'no weight: fur'] });
  });
  it('does not add currencies', () => {
    expect(chainBurden(chain(['mic', 'dollar']), items)).toMatchObject({ price: null, gaps: ['prices in EUR and USD cannot be added', 'no weight: dollar'] });
  });
  it('brings cautions for skin and radio', () => {
    expect(chainCautions(chain(['mic', 'tx'], true), items).map((caution) => caution.id)).toEqual(['rig:skin', 'radio:licence']);
    expect(chainCautions(chain(['mic']), items)).toEqual([]);
  });
});

it('a station marked dangerous carries its caution, and each is said once', () => {
  const cautions = stationCautions({ name: 'Slipway', hazards: ['water', 'overhead line'] });
  expect(cautions.map(cautionTitle)).toEqual(['Slipway: water', 'Slipway: overhead line']);
  const ferry = stationCautions({ name: 'Ferry deck', hazards: ['water'] });
  expect(distinctCautions([...cautions, ...ferry, ...cautions]).map(cautionTitle)).toEqual(['Slipway, Ferry deck: water', 'Slipway: overhead line']);
});

describe('criteria', () => {
  const draft = { name: 'Voice over noise', kind: 'measured', measureId: 'noise.snrDb', weight: 2, best: 40, worst: 6 };
  it('weights become shares of the whole', () => {
    expect(weightShares([3, 1])).toEqual([0.75, 0.25]);
    expect(weightShares([0, 0])).toEqual([0, 0]);
  });
  it.each([
    [{ best: 6 }, 'worst'],
    [{ measureId: null }, 'measureId'],
    [{ kind: 'listened', best: 12 }, 'best'],
    [{ weight: -1 }, 'weight'],
  ])('refuses %j and names the field', (change, field) => {
    const result = criterionDraftSchema.safeParse({ ...draft, ...change });
    expect(result.success ? [] : result.error.issues.map((issue) => issue.path[0])).toContain(field);
  });
});

describe('tapes', () => {
  it('get letters from the name and a kind of their own', () => {
    const first = nextTape('Quay One', []);
    const second = nextTape('Quay Other', [first]);
    expect(first).toEqual({ kind: 0, letters: 'QO' });
    expect(second.kind).toBe(1);
    expect(second.letters).not.toBe('QO');
  });
});

describe('the field log', () => {
  const planned = untouchedTake({
    id: 'take',
    trialId: 't',
    slate: 7,
    position: 0,
    condition: { station: 's', distance: '1', windscreen: 'fur', script: 'x' },
    setups: [{ id: 'setup-a', candidateId: 'a', levels: {} }],
  });
  const line = <Kind extends LogLine['kind']>(kind: Kind, atMs: number, rest: object = {}) => ({ id: `${kind}${atMs}`, takeId: 'take', atMs, kind, ...rest }) as LogLine;

  it('makes a take out of its lines', () => {
    const [take] = applyLog(
      [planned],
      [
        line('start', 1000, { controls: [{ name: 'Talker', value: 'Ferrier' }] }),
        line('flag', 2000, { flag: 'wind' }),
        line('flag', 2500, { flag: 'spoiled' }),
        line('unflag', 2600, { flag: 'wind' }),
        line('gain', 2700, { chainId: 'a', stage: 'recorder', gainDb: 30 }),
        line('conditions', 2800, { windMs: 4, noiseDba: 61 }),
        line('note', 2900, { text: 'gull' }),
        line('stop', 9000),
      ],
    );
    expect(take).toMatchObject({
      status: 'done',
      startedAtMs: 1000,
      stoppedAtMs: 9000,
      flags: [{ flag: 'spoiled', atMs: 2500 }],
      gains: { 'setup-a': { recorder: 30 } },
      windMs: 4,
      noiseDba: 61,
      note: 'gull',
      controls: [{ name: 'Talker', value: 'Ferrier' }],
    });
    expect(isSpoiled(take!)).toBe(true);
  });

  it('done again: a new pass of the same slate, the old one kept', () => {
    const takes = applyLog([planned], [line('start', 1), line('stop', 2), line('redo', 3, { newTakeId: 'again' }), line('redo', 4, { newTakeId: 'third' })]);
    expect(takes.map((take) => [slateLabel(take), take.status])).toEqual([
      ['07', 'done'],
      ['07/2', 'planned'],
      ['07/3', 'planned'],
    ]);
  });

  it('a redo sent twice makes one take', () => {
    expect(applyLog([planned], [line('redo', 3, { newTakeId: 'again' }), line('redo', 3, { newTakeId: 'again' })])).toHaveLength(2);
  });

  it('skipped and taken up again', () => {
    expect(applyLog([planned], [line('skip', 1)])[0]?.status).toBe('skipped');
    expect(applyLog([planned], [line('skip', 1), line('unskip', 2)])[0]?.status).toBe('planned');
  });
});
