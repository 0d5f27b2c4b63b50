import type { StoredChain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import type { Plan } from '../domain/plan.ts';
import { isSpoiled, setupCondition, type Take, type TakeSetup } from '../domain/take.ts';
import { type Range, type RangeWindow, rangeOf, WINDOW_S } from './rangeModel.ts';

/** A recording as far as it tells of its link. */
export interface LinkRecording {
  takeId: string;
  setupId: string;
  lengthS: number;
  /** Where break-ups begin in it, as they were measured or marked by hand. */
  breakUpsS: readonly number[];
}

/** Facing the receiver, or with the body between. */
export type WalkSide = 'facing' | 'turned';

/** How far one candidate's link held at one station. */
export interface RangeRow {
  candidateId: string;
  stationId: string;
  side: WalkSide;
  range: Range;
  marks: { distanceM: number; windows: number; brokeUp: number }[];
}

export interface RangeRecords {
  plan: Pick<Plan, 'factors'>;
  takes: readonly Take[];
  chains: readonly Pick<StoredChain, 'id' | 'links'>[];
  items: ReadonlyMap<string, Pick<Item, 'kind'>>;
}

const TURNED_FROM_DEG = 90;
const MS = 1000;

/** Whether a chain goes by radio: one that goes by cable has no range. */
const byRadio = (chain: Pick<StoredChain, 'links'>, items: RangeRecords['items']) =>
  chain.links.some(({ itemId }) => ['transmitter', 'receiver'].includes(items.get(itemId)?.kind ?? ''));

/**
 * How far every candidate's link held, by station and side: each take that was done at a distance is cut into as many
 * equal parts as come nearest to ten seconds, and a part broke up if a break-up begins in it. What was measured of the sound counts; where no recording
 * is there, what was pressed in Field. Spoiled takes, distances that are no numbers and candidates by cable are left out.
 */
export function rangeRows(recordings: readonly LinkRecording[], records: RangeRecords): RangeRow[] {
  const { plan, takes, chains, items } = records;
  const radio = new Set(chains.filter((chain) => byRadio(chain, items)).map(({ id }) => id));
  const measured = new Map(recordings.map((recording) => [recording.setupId, recording]));
  const rows = new Map<string, { row: Omit<RangeRow, 'range' | 'marks'>; windows: RangeWindow[] }>();
  for (const take of takes.filter((each) => each.status === 'done' && !isSpoiled(each))) {
    for (const setup of take.setups) {
      const distanceM = levelValue(take, setup, plan, 'distance');
      const link = measured.get(setup.id) ?? pressed(take, setup);
      if (!radio.has(setup.candidateId) || distanceM === null || distanceM <= 0 || !link) continue;
      const side: WalkSide = (levelValue(take, setup, plan, 'orientation') ?? 0) >= TURNED_FROM_DEG ? 'turned' : 'facing';
      const row = { candidateId: setup.candidateId, stationId: take.condition.station, side };
      const key = Object.values(row).join('/');
      const known = rows.get(key) ?? { row, windows: [] };
      known.windows.push(...windowsOf(link, distanceM));
      rows.set(key, known);
    }
  }
  return [...rows.values()].map(({ row, windows }) => ({ ...row, range: rangeOf(windows) as Range, marks: marksOf(windows) }));
}

function levelValue(take: Take, setup: TakeSetup, { factors }: RangeRecords['plan'], kind: 'distance' | 'orientation'): number | null {
  const id = setupCondition(take, setup)[kind];
  return factors.find((factor) => factor.kind === kind)?.levels.find((level) => level.id === id)?.value ?? null;
}

/** What was pressed while a take ran, where it has no recording; null where it was not timed. */
function pressed(take: Take, setup: TakeSetup): Omit<LinkRecording, 'takeId' | 'setupId'> | null {
  if (take.startedAtMs === null || take.stoppedAtMs === null) return null;
  const { startedAtMs, stoppedAtMs } = take;
  const own = take.flags.filter(({ flag, setupIds }) => flag === 'break-up' && (setupIds.length === 0 || setupIds.includes(setup.id)));
  return { lengthS: (stoppedAtMs - startedAtMs) / MS, breakUpsS: own.map(({ atMs }) => (atMs - startedAtMs) / MS) };
}

function windowsOf({ lengthS, breakUpsS }: Pick<LinkRecording, 'lengthS' | 'breakUpsS'>, distanceM: number): RangeWindow[] {
  const parts = Math.max(1, Math.round(lengthS / WINDOW_S));
  return Array.from({ length: parts }, (_, part) => ({
    distanceM,
    brokeUp: breakUpsS.some((atS) => Math.min(parts - 1, Math.max(0, Math.floor((atS / lengthS) * parts))) === part),
  }));
}

function marksOf(windows: readonly RangeWindow[]): RangeRow['marks'] {
  const distances = [...new Set(windows.map(({ distanceM }) => distanceM))].sort((a, b) => a - b);
  return distances.map((distanceM) => {
    const own = windows.filter((window) => window.distanceM === distanceM);
    return { distanceM, windows: own.length, brokeUp: own.filter(({ brokeUp }) => brokeUp).length };
  });
}
