import { WALK_SIDES, type WalkHeading, type WalkSide } from '../domain/walk.ts';
import { fisherExact } from '../statistics/exactTests.ts';
import type { WalkWindow } from './walkWindows.ts';

/** The windows of one candidate over the walks of a station. */
export interface CandidateWindows {
  candidateId: string;
  windows: readonly WalkWindow[];
}

/** Where links broke up, and what that speaks for. */
export interface Trouble {
  side: WalkSide;
  fromM: number;
  toM: number;
  /** Of each candidate here: windows, and those that broke up. */
  counts: { candidateId: string; windows: number; brokeUp: number }[];
  /** The spot has it from whoever passes it; one candidate has it where the others hold; once is no pattern. */
  speaksFor: 'the place' | 'the device' | 'neither yet';
  candidateIds: string[];
  /** Chance of as much by luck, where something is told. */
  p: number | null;
}

/** Windows of a walk are about as long as this: what broke up nearer together is one spot. */
const SPOT_M = 12;
const TOLD_P = 0.05;

/**
 * Spots of a walk where links broke up, side by side, and whether they speak for the place or for a device. A place shows on several candidates,
 * or in both directions on one, and not on the way beyond it; a device shows on one candidate where the others, at the same spot, hold. Turned, a
 * link ends sooner: each side is judged by itself. Fisher's exact test, candidate against the others at the spot, and the spot against
 * what lies farther out; the bound is shared out over all spots of a station (Bonferroni).
 */
export function troubles(from: readonly CandidateWindows[]): Trouble[] {
  const found = WALK_SIDES.flatMap((side) => {
    const own = from.map(({ candidateId, windows }) => ({ candidateId, windows: windows.filter((window) => window.side === side) }));
    const broken = own.flatMap(({ windows }) => windows.filter(({ brokeUp }) => brokeUp).map(({ distanceM }) => distanceM)).sort((a, b) => a - b);
    return spots(broken).map((spot) => ({ side, own, spot }));
  });
  // The more spots there are, the sooner one of them looks like something by luck.
  const toldP = TOLD_P / Math.max(1, found.length);
  return found.map(({ side, own, spot: [fromM, toM] }) => {
    const near = ({ distanceM }: WalkWindow) => distanceM >= fromM - SPOT_M / 2 && distanceM <= toM + SPOT_M / 2;
    const counted = (keep: (window: WalkWindow) => boolean) => own.map(({ candidateId, windows }) => count(candidateId, windows.filter(keep)));
    const counts = counted(near);
    const who = counts.filter(({ brokeUp }) => brokeUp > 0);
    const here = { side, fromM, toM, counts, candidateIds: who.map(({ candidateId }) => candidateId) };
    const [hit, held, all] = [sum(who), sum(counts.filter(({ brokeUp }) => brokeUp === 0)), sum(counts)];
    const byDevice = held.windows > 0 ? fisherExact(hit.brokeUp, hit.windows - hit.brokeUp, 0, held.windows) : 1;
    if (byDevice < toldP) return { ...here, speaksFor: 'the device', p: byDevice };
    const headings = new Set(own.flatMap(({ windows }) => windows.filter((window) => window.brokeUp && near(window)).map(({ heading }): WalkHeading => heading)));
    const beyond = sum(counted(({ distanceM }) => distanceM > toM + SPOT_M / 2));
    const shared = who.length > 1 || (from.length === 1 && headings.size > 1);
    const byPlace =
      shared && rate(all) > rate(beyond) && beyond.windows > 0 ? fisherExact(all.brokeUp, all.windows - all.brokeUp, beyond.brokeUp, beyond.windows - beyond.brokeUp) : 1;
    return byPlace < toldP ? { ...here, speaksFor: 'the place', p: byPlace } : { ...here, speaksFor: 'neither yet', p: null };
  });
}

function count(candidateId: string, windows: readonly WalkWindow[]) {
  return { candidateId, windows: windows.length, brokeUp: windows.filter(({ brokeUp }) => brokeUp).length };
}

function sum(counts: readonly { windows: number; brokeUp: number }[]): { windows: number; brokeUp: number } {
  return counts.reduce((all, { windows, brokeUp }) => ({ windows: all.windows + windows, brokeUp: all.brokeUp + brokeUp }), { windows: 0, brokeUp: 0 });
}

const rate = ({ windows, brokeUp }: { windows: number; brokeUp: number }) => (windows > 0 ? brokeUp / windows : 0);

/** Distances that lie near together, as spans. @param sorted from near to far */
function spots(sorted: readonly number[]): [number, number][] {
  const spans: [number, number][] = [];
  for (const metres of sorted) {
    const last = spans.at(-1);
    if (last && metres - last[1] <= SPOT_M) last[1] = metres;
    else spans.push([metres, metres]);
  }
  return spans;
}
