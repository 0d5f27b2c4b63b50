import { describe, expect, it } from 'vitest';
import { itemDraftSchema } from '../../domain/item.ts';
import { candidates, id, measured, recording, take } from '../../testing/verdictInput.ts';
import { limitSamples } from './limitSamples.ts';
import { type LimitSample, limitsOf } from './limits.ts';
import { limitsOpen, limitsSaid } from './sayLimits.ts';

const sample = (change: Partial<LimitSample>): LimitSample => ({
  takeId: 't',
  levels: { station: 'slip', windscreen: 'fur', distance: 'near', script: 's' },
  windMs: null,
  noiseDba: null,
  ofStation: { wind: false, noise: false },
  indoors: true,
  gains: {},
  windShare: null,
  sii: null,
  sti: null,
  clipped: null,
  truePeakDbtp: null,
  activeLevelDbfs: null,
  ...change,
});
const windy = (windscreen: string, windMs: number, windShare: number) => sample({ levels: { ...sample({}).levels, windscreen }, windMs, windShare });
const distances: Record<string, number> = { near: 0.5, far: 2 };
const name = (_kind: string, levelId: string) => levelId;
const told = (samples: readonly LimitSample[]) =>
  limitsSaid(
    limitsOf('c', samples, [], (levelId) => distances[levelId] ?? null),
    name,
  );

describe('limits of use', () => {
  it('tells up to which wind a cover kept it out, and from which it did not', () => {
    const [bare, fur] = told([windy('bare', 2, 0), windy('bare', 4, 0.3), windy('bare', 6, 0.8), windy('fur', 6, 0), windy('fur', 8, 0.01)]);
    expect(bare).toEqual({ about: 'wind', text: 'Bare: no wind in the sound up to 2 m/s, and some from 4 m/s on.', evidence: expect.stringContaining('wind in 2 of 3 takes') });
    expect(fur?.text).toBe('Fur: no wind in the sound up to 8 m/s.');
    // None of two is hardly anything: an exact interval of 0 of 2 reaches to 84 %.
    expect(fur?.evidence).toBe('wind in 0 of 2 takes, so 0 to 84 % with 95 % confidence');
  });

  it('says where a speed or a loudness is no reading of the take, and of readings does not', () => {
    const known = (windMs: number, wind: boolean) => ({ ...windy('fur', windMs, 0), ofStation: { wind, noise: false } });
    expect(told([known(3, true), known(4, true)])[0]?.evidence).toMatch(/; the wind of all is what the station is known for, not a reading$/);
    expect(told([known(3, true), known(4, false)])[0]?.evidence).toMatch(/; the wind of 1 is what the station is known for/);
    expect(told([known(3, false)])[0]?.evidence).not.toContain('known for');
    const loud = (noiseDba: number, noise: boolean) => sample({ sii: 0.9, noiseDba, ofStation: { wind: false, noise } });
    expect(told([loud(40, false), loud(60, true)])[0]?.text).toBe('Words stay clear at or in slip, in up to 60 dB A around it, which is what the station is known for.');
    expect(told([loud(60, false), loud(40, true)])[0]?.text).toBe('Words stay clear at or in slip, in up to 60 dB A around it.');
  });

  it('claims no order where there is none, and nothing of still air', () => {
    expect(told([windy('bare', 3, 0.4), windy('bare', 5, 0)])[0]?.text).toBe('Bare: wind in the sound at times from 3 m/s on, and none at times up to 5 m/s.');
    expect(told([windy('bare', 3, 0.4), windy('bare', 5, 0.2)])[0]?.text).toBe('Bare: wind in the sound from 3 m/s on, the gentlest it was tried in.');
    expect(told([windy('bare', 0, 0)])).toEqual([]);
    expect(limitsOpen(limitsOf('c', [windy('bare', 0, 0)], [], () => null))).toContain('wind: no recording was made in wind whose speed is known');
  });

  it('tells where words stay clear, where at times and where not, by the limits of the standards', () => {
    const at = (station: string, sii: number, noiseDba: number | null = null) => sample({ levels: { ...sample({}).levels, station }, sii, noiseDba });
    expect(told([at('loft', 0.9, 31), at('loft', 0.75, 33), at('slip', 0.8), at('slip', 0.74), at('deck', 0.3, 70)]).map(({ text }) => text)).toEqual([
      'Words stay clear at or in loft, in up to 33 dB A around it.',
      'Words are clear only at times at or in slip.',
      'Words are not clear at or in deck.',
    ]);
    const off = (distance: string, sti: number) => sample({ levels: { ...sample({}).levels, distance }, sti });
    expect(told([off('far', 0.5), off('near', 0.7)])).toMatchObject([
      { about: 'room', text: 'Words stay clear indoors at near.', evidence: expect.stringContaining('0.70, clear in 1 of 1 take') },
      { about: 'room', text: 'Words are not clear indoors at far.' },
    ]);
    // Outside it is no room that takes the words away.
    expect(told([{ ...off('far', 0.5), indoors: false }])).toEqual([]);
  });

  it('tells a gain that is safe and one that is not, and says where gain does not explain it', () => {
    const loud = (transmitter: number, clipped: boolean, truePeakDbtp = -4) => sample({ gains: { transmitter }, clipped, truePeakDbtp });
    expect(told([loud(20, false), loud(26, false), loud(32, true, 0)])[0]?.text).toBe('It clipped or was overloaded: a gain of 26 dB at the transmitter is safe, 32 dB is not.');
    expect(told([loud(26, true), loud(32, false)])[0]?.text).toBe(
      'It clipped or was overloaded: with 26 dB at the transmitter something clipped, and gain alone does not explain it.',
    );
    expect(told([sample({ clipped: true })])[0]?.text).toBe('It clipped or was overloaded; no gain was noted, so at which it did is not known.');
    expect(told([loud(20, false, -6.25)])[0]?.text).toBe('Nothing clipped: the loudest peak is −6.3 dBTP.');
    expect(told([loud(20, false, 0.2)])[0]?.text).toBe('Nothing clipped, with no room left: the loudest peak is 0.2 dBTP.');
  });

  it('says what feeds the microphone and which link stops first, or that nobody knows', () => {
    const link = (draft: object) => ({ ...itemDraftSchema.parse({ name: 'x', kind: 'microphone', ...draft }), id: 'i' }) as never;
    const limits = limitsOf(
      'c',
      [],
      [link({ powerNeeds: 'bias' }), link({ kind: 'transmitter', name: 'Tern', runningTimeH: 5 }), link({ kind: 'receiver', runningTimeH: 9 })],
      () => null,
    );
    expect(limitsSaid(limits, name).map(({ text }) => text)).toEqual(['Its microphone has to be fed with bias.', 'It runs for 5 h: Tern stops first.']);
    expect(limitsOpen(limitsOf('c', [], [], () => null))).toHaveLength(6);
  });

  it('looks at what the verdict counts, with what a station is known for where the take says nothing', () => {
    const first = take(1, 'near', ['a', 'b']);
    const second = take(2, 'near', ['a'], { windMs: 7, flags: [] });
    const spoiled = take(3, 'near', ['a'], { flags: [{ id: id('8'), flag: 'spoiled', atMs: 1, setupIds: [] }] });
    const input = {
      criteria: [measured('noise.snrDb')],
      candidates,
      takes: [first, second, spoiled],
      recordings: [
        recording(first, 'a', { 'levels.clippedRuns': 0, 'levels.flattenedShare': 0.4 }),
        recording(second, 'a', { 'levels.clippedRuns': 0, 'intelligibility.sii': 0.5 }),
        recording(spoiled, 'a', { 'levels.clippedRuns': 9 }),
      ],
      ratings: [],
      marks: [],
      passes: null,
    };
    const samples = limitSamples(input, [{ id: 's', indoors: true, acoustics: { windMs: 2, noiseDba: 50 } as never }]);
    expect(samples.get(id('a'))).toMatchObject([
      { windMs: 2, noiseDba: 50, clipped: true, indoors: true, ofStation: { wind: true, noise: true } },
      { windMs: 7, noiseDba: 50, clipped: false, sii: 0.5, sti: null, ofStation: { wind: false, noise: true } },
    ]);
    expect(samples.get(id('b'))).toBeUndefined();
  });
});
