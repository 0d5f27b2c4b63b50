import { WALK_SIDES, type WalkHeading } from '../domain/walk.ts';
import { fisherExact } from './exactTests.ts';
import type { WalkWindow } from './walkWindows.ts';

/** The windows of one candidate over the walks of a station. */
export interface CandidateWindows {
  candidateId: string;
  windows: readonly WalkWindow[];
}

/** Where links broke up, and what that speaks for. */
export interface Trouble {
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
 * Spots of a walk where links broke up, and whether they speak for the place or for a device. A place shows in both directions and on
 * several candidates, and not on the way beyond it on the same side; a device shows on one candidate where the others, at the same spot, hold. Fisher's
 * exact test, candidate against the others at the spot, and the spot against what lies farther out; the bound is shared out over all spots
 * of a station (Bonferroni).
 */
export function troubles(from: readonly CandidateWindows[]): Trouble[] {
  const broken = from.flatMap(({ windows }) => windows.filter(({ brokeUp }) => brokeUp).map(({ distanceM }) => distanceM)).sort((a, b) => a - b);
  const found = spots(broken);
  // The more spots there are, the sooner one of them looks like something by luck.
  const toldP = TOLD_P / Math.max(1, found.length);
  return found.map(([lowM, highM]) => {
    const near = (window: WalkWindow) => window.distanceM >= lowM - SPOT_M / 2 && window.distanceM <= highM + SPOT_M / 2;
    const counts = from.map(({ candidateId, windows }) => count(candidateId, windows.filter(near)));
    const who = counts.filter(({ brokeUp }) => brokeUp > 0);
    const here = { fromM: lowM, toM: highM, counts, candidateIds: who.map(({ candidateId }) => candidateId) };
    const others = sum(counts.filter(({ brokeUp }) => brokeUp === 0));
    const own = sum(who);
    const byDevice = others.windows > 0 ? fisherExact(own.brokeUp, own.windows - own.brokeUp, 0, others.windows) : 1;
    if (byDevice < toldP) return { ...here, speaksFor: 'the device', p: byDevice };
    const headings = new Set(from.flatMap(({ windows }) => windows.filter((window) => window.brokeUp && near(window)).map(({ heading }): WalkHeading => heading)));
    // Turned, a link ends sooner: each side is compared with what lies beyond on the same side.
    const sides = WALK_SIDES.map((side) => {
      const of = (keep: (window: WalkWindow) => boolean) =>
        from.map(({ candidateId, windows }) =>
          count(
            candidateId,
            windows.filter((window) => window.side === side && keep(window)),
          ),
        );
      const spot = of(near);
      const [inside, beyond] = [sum(spot), sum(of(({ distanceM }) => distanceM > highM + SPOT_M / 2))];
      const shared = spot.filter(({ brokeUp }) => brokeUp > 0).length > 1 || (from.length === 1 && headings.size > 1);
      const tells = shared && beyond.windows > 0 && rate(inside) > rate(beyond);
      return tells ? fisherExact(inside.brokeUp, inside.windows - inside.brokeUp, beyond.brokeUp, beyond.windows - beyond.brokeUp) : 1;
    });
    const byPlace = WALK_SIDES.length * Math.min(...sides);
    if (byPlace < toldP) return { ...here, speaksFor: 'the place', p: byPlace };
    return { ...here, speaksFor: 'neither yet', p: null };
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
