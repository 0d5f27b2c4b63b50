import { describe, expect, it } from 'vitest';
import { reportOf, whiteNoise } from '../testing/signals.ts';
import { voiced } from '../testing/voiced.ts';
import { type Claim, claimsOf, eventText, unusual } from './eventWords.ts';
import type { AudioEvent, ChannelReport } from './report.types.ts';

/** A calm take with nothing to say of it. */
const calm: ChannelReport = { ...reportOf([voiced(10)]).channels[0]!, events: [] };
const events = (kind: AudioEvent['kind'], count: number): AudioEvent[] =>
  Array.from({ length: count }, (_, index) => ({ kind, startS: 1 + index, endS: 1.1 + index, severityDb: 3 }));
const claims = (report: ChannelReport): Claim[] => claimsOf(report).map(({ claim }) => claim);
const withLevels = (change: Partial<ChannelReport['levels']>) => ({ ...calm, levels: { ...calm.levels, ...change } });
const withNoise = (change: Partial<ChannelReport['noise']>) => ({ ...calm, noise: { ...calm.noise, ...change } });
const withCharacter = (change: Partial<ChannelReport['character']>) => ({ ...calm, character: { ...calm.character, ...change } });

describe('what is said of a take', () => {
  it('nothing, of a calm one, of noise and of silence', () => {
    expect(unusual(calm, 10)).toEqual([]);
    for (const signal of [whiteNoise(-50, 4), new Float64Array(4 * 48_000)]) expect(unusual(reportOf([signal]).channels[0]!, 4)).toEqual([]);
  });

  it.each([
    ['overload', withLevels({ flattenedShare: 0.3 }), withLevels({ flattenedShare: 0.04 })],
    ['masked', { ...calm, intelligibility: { sii: 0.3, sti: 0.3 } }, { ...calm, intelligibility: { sii: 0.6, sti: 0.6 } }],
    ['noisy', withNoise({ snrDb: 6 }), withNoise({ snrDb: 20 })],
    ['gate', withNoise({ gatedDb: 15 }), withNoise({ gatedDb: 3 })],
    ['automatic level', withCharacter({ pumpingDb: 8 }), withCharacter({ pumpingDb: 1 })],
    ['room', withCharacter({ reverberationS: 1.4 }), withCharacter({ reverberationS: 0.4 })],
    ['hum', withNoise({ humDbfs: (calm.noise.floorDbfs ?? 0) - 1 }), withNoise({ humDbfs: (calm.noise.floorDbfs ?? 0) - 10 })],
    ['offset', withLevels({ dcOffset: -0.02 }), withLevels({ dcOffset: 0.001 })],
  ] as [Claim, ChannelReport, ChannelReport][])('%s: said where the figure says so, and not where it does not', (claim, so, notSo) => {
    expect(claims(so)).toEqual([claim]);
    expect(claims(notSo)).toEqual([]);
  });

  it('of figures that are not known nothing is said', () => {
    const unknown = { ...withNoise({ snrDb: null, humDbfs: null, gatedDb: null }), intelligibility: { sii: null, sti: null } };
    expect(claims({ ...unknown, levels: { ...calm.levels, flattenedShare: null }, character: { ...calm.character, pumpingDb: null, reverberationS: null } })).toEqual([]);
  });

  it('an automatic level that brings the ends of words up is not told as a room', () => {
    expect(claims(withCharacter({ pumpingDb: 8, reverberationS: 1.4 }))).toEqual(['automatic level']);
  });

  it('is at most four sentences, the worst first', () => {
    const bad = { ...calm, events: [...events('plosive', 3), ...events('dropout', 9), ...events('wind', 3), ...events('rustle', 4), ...events('click', 3)] };
    const said = unusual(bad, 30);
    expect(said).toHaveLength(4);
    expect(said[0]).toMatch(/^Break-up 9 times/);
    expect(said.join()).not.toContain('Plosive');
  });

  it('a few of a kind are told one by one, many by their number', () => {
    expect(unusual({ ...calm, events: events('disturbance', 2) }, 10)).toEqual(['Disturbance at 1.0 s, 100 ms; disturbance at 2.0 s, 100 ms.']);
    expect(unusual({ ...calm, events: events('disturbance', 3) }, 10)).toEqual(['Disturbance 3 times, 300 ms in all, first at 1.0 s.']);
    expect(eventText(events('clip', 1)[0]!)).toBe('clipping at 1.0 s, 100 ms');
  });
});
