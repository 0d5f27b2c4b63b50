import type { StoredChain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import type { Plan } from '../domain/plan.ts';
import { isSpoiled, setupCondition, setupSpanMs, type Take, type TakeSetup } from '../domain/take.ts';
import type { WalkSide } from '../domain/walk.ts';
import { type CandidateWindows, type Trouble, troubles } from './placeOrDevice.ts';
import { type Range, type RangeWindow, rangeOf, WINDOW_S } from './rangeModel.ts';
import type { WalkTrack } from './walkTrack.ts';
import { isWalked, type WalkWindow, walkWindows } from './walkWindows.ts';

/** A recording as far as it tells of its link. */
export interface LinkRecording {
  takeId: string;
  setupId: string;
  lengthS: number;
  /** Where in it the log says that its take began. */
  startS: number;
  /** Where break-ups begin in it, as they were measured or marked by hand. */
  breakUpsS: readonly number[];
}

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
  /** Where the talker was, by take, where that is known. */
  tracks: ReadonlyMap<string, WalkTrack>;
}

/** Spots at a station where links broke up on a walk, and what they speak for. */
export interface StationTroubles {
  stationId: string;
  troubles: Trouble[];
}

const TURNED_FROM_DEG = 90;
const MS = 1000;
const MOST_MARKS = 24;
const MARKS_PER_OCTAVE = 5;

/** Whether a chain goes by radio: one that goes by cable has no range. */
const byRadio = (chain: Pick<StoredChain, 'links'>, items: RangeRecords['items']) =>
  chain.links.some(({ itemId }) => ['transmitter', 'receiver'].includes(items.get(itemId)?.kind ?? ''));

/** The windows of one setup: a walk by its marks or its track, else a take at one distance in equal parts. */
interface SetupWindows {
  candidateId: string;
  stationId: string;
  windows: (RangeWindow & { side: WalkSide })[];
  /** The same where it was a walk; else none. */
  walked: WalkWindow[];
}

/**
 * How far every candidate's link held, by station and side. A take at one distance is cut into as many equal parts as come nearest to ten
 * seconds, and a part broke up if a break-up begins in it; a walk is cut by time, with the distance of each part. What was measured of the
 * sound counts; where no recording is there, what was pressed in Field. Spoiled takes, distances that are no numbers and candidates by
 * cable are left out.
 */
export function rangeRows(recordings: readonly LinkRecording[], records: RangeRecords): RangeRow[] {
  const rows = new Map<string, { row: Omit<RangeRow, 'range' | 'marks'>; windows: RangeWindow[] }>();
  for (const { candidateId, stationId, windows } of windowsOfAll(recordings, records)) {
    for (const { side, ...window } of windows) {
      const row = { candidateId, stationId, side };
      const key = Object.values(row).join('/');
      const known = rows.get(key) ?? { row, windows: [] };
      known.windows.push(window);
      rows.set(key, known);
    }
  }
  return [...rows.values()].map(({ row, windows }) => ({ ...row, range: rangeOf(windows) as Range, marks: marksOf(windows) }));
}

/** Where links broke up on the walks of each station, and whether that speaks for the place or for a device. */
export function stationTroubles(recordings: readonly LinkRecording[], records: RangeRecords): StationTroubles[] {
  const byStation = new Map<string, Map<string, CandidateWindows>>();
  for (const { candidateId, stationId, walked } of windowsOfAll(recordings, records)) {
    if (walked.length === 0) continue;
    const own = byStation.get(stationId) ?? new Map<string, CandidateWindows>();
    own.set(candidateId, { candidateId, windows: [...(own.get(candidateId)?.windows ?? []), ...walked] });
    byStation.set(stationId, own);
  }
  return [...byStation].map(([stationId, candidates]) => ({ stationId, troubles: troubles([...candidates.values()]) }));
}

function windowsOfAll(recordings: readonly LinkRecording[], { plan, takes, chains, items, tracks }: RangeRecords): SetupWindows[] {
  const radio = new Set(chains.filter((chain) => byRadio(chain, items)).map(({ id }) => id));
  const measured = new Map(recordings.map((recording) => [recording.setupId, recording]));
  return takes
    .filter((take) => take.status === 'done' && !isSpoiled(take))
    .flatMap((take) =>
      take.setups
        .filter(({ candidateId }) => radio.has(candidateId))
        .map((setup): SetupWindows => {
          const own = { candidateId: setup.candidateId, stationId: take.condition.station };
          const recording = measured.get(setup.id);
          const track = tracks.get(take.id) ?? null;
          if (isWalked(take, track)) {
            const startedAtMs = take.startedAtMs ?? 0;
            const walked = walkWindows(take, setup, track, recording ? recording.breakUpsS.map((atS) => startedAtMs + (atS - recording.startS) * MS) : null);
            return { ...own, walked, windows: walked.map(({ distanceM, brokeUp, side }) => ({ distanceM, brokeUp, side })) };
          }
          const distanceM = levelValue(take, setup, plan, 'distance');
          const link = recording ?? pressed(take, setup);
          if (distanceM === null || distanceM <= 0 || !link) return { ...own, walked: [], windows: [] };
          const side: WalkSide = (levelValue(take, setup, plan, 'orientation') ?? 0) >= TURNED_FROM_DEG ? 'turned' : 'facing';
          return { ...own, walked: [], windows: windowsOf(link, distanceM).map((window) => ({ ...window, side })) };
        }),
    );
}

function levelValue(take: Take, setup: TakeSetup, { factors }: RangeRecords['plan'], kind: 'distance' | 'orientation'): number | null {
  const id = setupCondition(take, setup)[kind];
  return factors.find((factor) => factor.kind === kind)?.levels.find((level) => level.id === id)?.value ?? null;
}

/** What was pressed while a take ran, where it has no recording; null where it was not timed. */
function pressed(take: Take, setup: TakeSetup): Pick<LinkRecording, 'lengthS' | 'breakUpsS'> | null {
  const span = setupSpanMs(take, setup);
  if (!span) return null;
  const [startedAtMs, stoppedAtMs] = span;
  const own = take.flags.filter(
    ({ flag, setupIds, atMs }) => flag === 'break-up' && atMs >= startedAtMs && atMs <= stoppedAtMs && (setupIds.length === 0 || setupIds.includes(setup.id)),
  );
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
  // Of a walk no two windows have the same distance: what lies within a fifth of an octave is one mark.
  const many = new Set(windows.map(({ distanceM }) => distanceM)).size > MOST_MARKS;
  const near = (distanceM: number) => (many ? 2 ** (Math.round(MARKS_PER_OCTAVE * Math.log2(distanceM)) / MARKS_PER_OCTAVE) : distanceM);
  const distances = [...new Set(windows.map(({ distanceM }) => near(distanceM)))].sort((a, b) => a - b);
  return distances.map((distanceM) => {
    const own = windows.filter((window) => near(window.distanceM) === distanceM);
    return { distanceM, windows: own.length, brokeUp: own.filter(({ brokeUp }) => brokeUp).length };
  });
}
