import { describe, expect, it } from 'vitest';
import { newId } from '../domain/identity.ts';
import { applyLog, type LogLine } from '../domain/logLine.ts';
import { type Take, untouchedTake } from '../domain/take.ts';
import { incidentBelongs, incidentNext, incidentSums, incidentWords } from './incidents.ts';

const [QU, LO] = [newId(), newId()];
const take = (station: string): Take =>
  untouchedTake({
    id: newId(),
    trialId: newId(),
    slate: 1,
    position: 0,
    condition: { station, script: 'x', windscreen: 'bare', distance: '40' },
    setups: [QU, LO].map((candidateId) => ({ id: newId(), candidateId, levels: {} })),
  });
const setupOf = (of: Take, candidateId: string) => of.setups.find((setup) => setup.candidateId === candidateId)!.id;
let clock = 0;
type Draft<Kind extends LogLine['kind']> = Omit<Extract<LogLine, { kind: Kind }>, 'id' | 'takeId' | 'atMs' | 'kind'>;
const line = <Kind extends LogLine['kind']>(kind: Kind, of: Take, more: Draft<Kind>): LogLine =>
  ({ id: newId(), takeId: of.id, atMs: clock++, kind, ...more }) as unknown as LogLine;

/** A crunch on one candidate, tried so often since: who had it again, at which station. */
function crunch(tries: { station: string; came: string[]; stayed: string[] }[]) {
  const first = take('quay');
  const told = line('incident', first, { heard: 'crunch', wasOn: 'limiter', setupIds: [setupOf(first, QU)] });
  const later = tries.map(({ station }) => take(station));
  const lines = later.map((each, index) =>
    line('tried', each, {
      incidentId: told.id,
      cameSetupIds: tries[index]!.came.map((id) => setupOf(each, id)),
      stayedSetupIds: tries[index]!.stayed.map((id) => setupOf(each, id)),
    }),
  );
  return { takes: applyLog([first, ...later], [told, ...lines]), told, lines };
}
const times = <Value>(count: number, value: Value) => Array.from({ length: count }, () => value);

describe('an incident', () => {
  it('heard once is to be repeated before anything is blamed', () => {
    const [sum] = incidentSums(crunch([]).takes);
    expect(sum).toMatchObject({ tries: 0, candidateIds: [QU], stationId: 'quay' });
    expect(incidentWords(sum!)).toContain('heard once');
    expect(incidentNext(sum!, [QU, LO])).toBe('again here');
    expect(incidentBelongs(sum!)).toEqual([]);
  });

  it('that came 8 of 8 times is repeatable, 1 of 12 random, and 2 of 3 neither yet', () => {
    const words = (came: number, stayed: number) =>
      incidentWords(incidentSums(crunch([...times(came, { station: 'quay', came: [QU], stayed: [] }), ...times(stayed, { station: 'quay', came: [], stayed: [QU] })]).takes)[0]!);
    expect(words(8, 0)).toContain('came 8 of 8 times again (63 to 100 %): repeatable');
    expect(words(1, 11)).toContain('random');
    expect(words(2, 1)).toContain('too few tries');
    expect(words(0, 5)).toContain('comes in no more than 52 % of tries');
  });

  it('belongs to a candidate where the others stay clear of it, and to a place where it stays away elsewhere', () => {
    const here = times(5, { station: 'quay', came: [QU], stayed: [LO] });
    expect(incidentBelongs(incidentSums(crunch(here).takes)[0]!).map(({ to }) => to)).toEqual(['candidate']);
    const both = [...here, ...times(5, { station: 'loft', came: [], stayed: [QU] })];
    expect(incidentBelongs(incidentSums(crunch(both).takes)[0]!).map(({ to }) => to)).toEqual(['candidate', 'place']);
    const everybody = times(5, { station: 'quay', came: [QU, LO], stayed: [] });
    expect(incidentBelongs(incidentSums(crunch(everybody).takes)[0]!)).toEqual([]);
  });

  it('is tried again here first, then with the others, then elsewhere', () => {
    const next = (tries: Parameters<typeof crunch>[0]) => incidentNext(incidentSums(crunch(tries).takes)[0]!, [QU, LO]);
    expect(next(times(2, { station: 'quay', came: [QU], stayed: [] }))).toBe('again here');
    expect(next(times(3, { station: 'quay', came: [QU], stayed: [] }))).toBe('others here');
    expect(next(times(3, { station: 'quay', came: [QU], stayed: [LO] }))).toBe('elsewhere');
  });

  it('of which something else is said in the same take counts by what was said last, and a line that is sent twice or late changes nothing', () => {
    const { takes, told, lines } = crunch(times(2, { station: 'quay', came: [QU], stayed: [] }));
    const again = applyLog(takes, [told, ...lines]);
    expect(incidentSums(again)[0]).toMatchObject({ came: 2, tries: 2 });
    const tried = takes.find(({ id }) => id === lines[0]!.takeId)!;
    const otherwise = line('tried', tried, { incidentId: told.id, cameSetupIds: [], stayedSetupIds: [setupOf(tried, QU)] });
    const after = applyLog(again, [otherwise, lines[0]!]);
    expect(incidentSums(after)[0]).toMatchObject({ came: 1, tries: 2 });
    const nothing = line('tried', tried, { incidentId: told.id, cameSetupIds: [], stayedSetupIds: [] });
    expect(incidentSums(applyLog(after, [nothing]))[0]).toMatchObject({ came: 1, tries: 1 });
  });

  it('that was taken back is none, whatever was tried of it', () => {
    const { takes, told } = crunch(times(2, { station: 'quay', came: [QU], stayed: [] }));
    const first = takes.find(({ id }) => id === told.takeId)!;
    const without = applyLog(takes, [line('untold', first, { incidentId: told.id })]);
    expect(incidentSums(without)).toEqual([]);
    // Brought back it has its tries again.
    const back = line('incident', first, { incidentId: told.id, heard: 'crunch', wasOn: 'limiter', setupIds: [setupOf(first, QU)] });
    expect(incidentSums(applyLog(without, [back]))[0]).toMatchObject({ came: 2, tries: 2 });
  });
});
