import type { Incident, Take } from '../domain/take.ts';
import { setupCondition } from '../domain/take.ts';
import { exactShare, fisherExact } from '../statistics/exactTests.ts';

/** How often an incident came again on one candidate at one spot. */
export interface IncidentCell {
  candidateId: string;
  stationId: string;
  distance: string;
  came: number;
  stayed: number;
}

/** An incident with all that was tried of it since. */
export interface IncidentSum {
  incident: Incident;
  takeId: string;
  stationId: string;
  /** On whom it was heard first. */
  candidateIds: string[];
  cells: IncidentCell[];
  /** Of those on whom it was heard first, tried again at the same station: came, and tries in all. */
  came: number;
  tries: number;
}

const CONFIDENCE = 0.95;
/** Below this chance a difference between candidates or places is told as one. */
const TOLD_P = 0.05;
/** What comes in more than half of the tries is repeatable, once that is sure. */
const HALF = 0.5;

/** Every incident of a trial with its tries, the latest first. Spoiled takes count: the incident may be what spoiled them. */
export function incidentSums(takes: readonly Take[]): IncidentSum[] {
  const tries = takes.flatMap((take) => take.tried.map((tried) => ({ take, tried })));
  const sums = takes.flatMap((take) =>
    take.incidents.map((incident): IncidentSum => {
      const candidateIds = candidatesOf(take, incident.setupIds.length > 0 ? incident.setupIds : take.setups.map(({ id }) => id));
      const cells = new Map<string, IncidentCell>();
      for (const { take: other, tried } of tries.filter((each) => each.tried.incidentId === incident.id)) {
        for (const setup of other.setups) {
          const came = tried.cameSetupIds.includes(setup.id);
          if (!came && !tried.stayedSetupIds.includes(setup.id)) continue;
          const cell = { candidateId: setup.candidateId, stationId: other.condition.station, distance: setupCondition(other, setup).distance };
          const key = Object.values(cell).join('/');
          const known = cells.get(key) ?? { ...cell, came: 0, stayed: 0 };
          cells.set(key, { ...known, came: known.came + (came ? 1 : 0), stayed: known.stayed + (came ? 0 : 1) });
        }
      }
      const all = [...cells.values()];
      const same = total(all.filter((cell) => candidateIds.includes(cell.candidateId) && cell.stationId === take.condition.station));
      return { incident, takeId: take.id, stationId: take.condition.station, candidateIds, cells: all, came: same.came, tries: same.came + same.stayed };
    }),
  );
  return sums.sort((a, b) => b.incident.atMs - a.incident.atMs);
}

const candidatesOf = (take: Take, setupIds: readonly string[]) => [...new Set(take.setups.filter(({ id }) => setupIds.includes(id)).map(({ candidateId }) => candidateId))];

function total(cells: readonly IncidentCell[]): { came: number; stayed: number } {
  return cells.reduce((sum, cell) => ({ came: sum.came + cell.came, stayed: sum.stayed + cell.stayed }), { came: 0, stayed: 0 });
}

const percent = (share: number) => Math.round(100 * share);

/** Whether it is repeatable, random, or not known yet, and how sure that is. */
export function incidentWords({ came, tries }: Pick<IncidentSum, 'came' | 'tries'>): string {
  if (tries === 0) return 'heard once: repeat it at the same spot before anything is blamed';
  const [low, high] = exactShare(came, tries, CONFIDENCE);
  const counted = `came ${came} of ${tries} times again (${percent(low)} to ${percent(high)} %)`;
  if (came === 0) return `${counted}: did not come again, and comes in no more than ${percent(high)} % of tries`;
  if (low > HALF) return `${counted}: repeatable`;
  if (high < HALF) return `${counted}: random, and the worse for it`;
  return `${counted}: too few tries to call it repeatable or random`;
}

/** Whether it belongs to the candidates on whom it was heard, or to the place; null where nothing else was tried, or no difference is told. */
export function incidentBelongs({ cells, candidateIds, stationId }: Pick<IncidentSum, 'cells' | 'candidateIds' | 'stationId'>): { to: 'candidate' | 'place'; p: number }[] {
  const own = total(cells.filter((cell) => candidateIds.includes(cell.candidateId) && cell.stationId === stationId));
  const others = total(cells.filter((cell) => !candidateIds.includes(cell.candidateId) && cell.stationId === stationId));
  const elsewhere = total(cells.filter((cell) => candidateIds.includes(cell.candidateId) && cell.stationId !== stationId));
  const told = (to: 'candidate' | 'place', against: { came: number; stayed: number }) => ({ to, p: fisherExact(own.came, own.stayed, against.came, against.stayed) });
  return [told('candidate', others), told('place', elsewhere)].filter(({ p }) => p < TOLD_P);
}

/** What to try next: the same spot with those who had it, the others there too, or the same ones elsewhere. */
export function incidentNext({ cells, candidateIds, stationId, tries }: IncidentSum, allCandidateIds: readonly string[]): 'again here' | 'others here' | 'elsewhere' {
  const ENOUGH = 3;
  if (tries < ENOUGH) return 'again here';
  const others = allCandidateIds.filter((id) => !candidateIds.includes(id));
  const triedHere = total(cells.filter((cell) => others.includes(cell.candidateId) && cell.stationId === stationId));
  return others.length > 0 && triedHere.came + triedHere.stayed < ENOUGH ? 'others here' : 'elsewhere';
}
