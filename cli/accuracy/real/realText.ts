import type { Cause, JudgedCause } from './causes.ts';
import type { RealProof } from './judgeAllReal.ts';
import type { JudgedReal } from './judgeReal.ts';
import { REAL_GROUPS, type RealGroup } from './realTake.ts';
import type { Half } from './talkers.ts';

/** Recall by name that is wanted of each group that has something to be found; dropouts and clicks are exact by nature. */
const WANTED: Partial<Record<RealGroup, number>> = {
  knocks: 0.85,
  rubbing: 0.85,
  things: 0.85,
  gusts: 0.85,
  'steady wind': 0.85,
  'wind behind a low-cut': 0.85,
  mutes: 0.95,
  fades: 0.95,
  bursts: 0.95,
  repeats: 0.95,
  clicks: 0.95,
};
/** At most so many events a minute where there is nothing. */
const MOST_FALSE: Partial<Record<RealGroup, number>> = { calm: 1, 'steady noise': 2, music: 2, room: 2 };

/** Under whatever name, what was laid is to be found. */
const WANTED_AT_ALL = 0.95;

/** An event is found when one lies within this of it. */
const TOLERANCE_S = 0.06;

/** What a talker's own pop may be told as. */
const LOW_KINDS: readonly string[] = ['plosive', 'handling', 'wind', 'disturbance'];

type Spell = { startS: number; endS: number };
const meet = (a: Spell, b: Spell) => a.startS <= b.endS + TOLERANCE_S && a.endS >= b.startS - TOLERANCE_S;

interface Counts {
  laid: number;
  named: number;
  found: number;
  /** Laid where words cover it all, which no event is; and found all the same. */
  covered: number;
  foundCovered: number;
  falsePerMinute: number;
}

/** Of one group: what was laid, found by its name, found at all, and what was found where nothing lies, a minute. */
export function countsOf(takes: readonly JudgedReal[]): Counts {
  const counts: Counts = { laid: 0, named: 0, found: 0, covered: 0, foundCovered: 0, falsePerMinute: 0 };
  let minutes = 0;
  let invented = 0;
  for (const take of takes) {
    minutes += take.lengthS / 60;
    for (const event of take.events) {
      const there = take.found.filter((each) => meet(each, event));
      if (event.isCovered) {
        counts.covered++;
        if (there.length > 0) counts.foundCovered++;
        continue;
      }
      counts.laid++;
      if (there.length > 0) counts.found++;
      if (there.some((each) => each.kind === event.kind)) counts.named++;
    }
    // Where the wind blows all the time it is no mistake to say so between two gusts.
    const windy = take.events.some((event) => event.kind === 'wind');
    invented += take.found.filter(
      (each) => !(windy && each.kind === 'wind') && !take.events.some((event) => meet(each, event)) && !(LOW_KINDS.includes(each.kind) && take.pops.some((pop) => meet(each, pop))),
    ).length;
  }
  counts.falsePerMinute = minutes > 0 ? invented / minutes : 0;
  return counts;
}

/** Tables of the proof on recorded talkers, and what falls short of what is wanted, each in a line. */
export function realText({ takes: judged, causes }: RealProof): { tables: string; weak: string[] } {
  const of = (group: RealGroup, half: Half) => judged.filter((take) => take.group === group && take.half === half);
  const weak: string[] = [];
  const rows = REAL_GROUPS.map((group) => {
    const [held, tuning] = [countsOf(of(group, 'held')), countsOf(of(group, 'tuning'))];
    const share = (part: number, whole: number) => (whole === 0 ? '' : (part / whole).toFixed(2));
    const wanted = WANTED[group];
    if (wanted !== undefined && held.named < wanted * held.laid) weak.push(`${group}, recorded talkers: ${share(held.named, held.laid)} named, wanted ${wanted}.`);
    if (held.laid > 0 && held.found < WANTED_AT_ALL * held.laid)
      weak.push(`${group}, recorded talkers: ${share(held.found, held.laid)} found under any name, wanted ${WANTED_AT_ALL}.`);
    const most = MOST_FALSE[group];
    if (most !== undefined && held.falsePerMinute > most) weak.push(`${group}, recorded talkers: ${held.falsePerMinute.toFixed(1)} false events a minute, wanted at most ${most}.`);
    return `| ${group} | ${held.laid || ''} | ${share(held.named, held.laid)} | ${share(held.found, held.laid)} | ${held.falsePerMinute.toFixed(1)} | ${held.covered > 0 ? `${held.foundCovered} of ${held.covered}` : ''} | ${share(tuning.named, tuning.laid)} | ${share(tuning.found, tuning.laid)} | ${tuning.falsePerMinute.toFixed(1)} |`;
  });
  const claims = claimLines(judged, causes);
  return {
    weak: [...weak, ...figureLines(judged).weak, ...claims.weak],
    tables: [
      '| what was laid | events | named | found at all | false a minute | covered by words, found | named, tuning half | found, tuning half | false, tuning half |',
      '|---|---|---|---|---|---|---|---|---|',
      ...rows,
      '',
      ...figureLines(judged).lines,
      '',
      ...claims.lines,
    ].join('\n'),
  };
}

/** What a take may say of the cause of something, and where that must not be said. */
const MUST_NOT: Record<Cause | 'room' | 'hum', (group: RealGroup) => boolean> = {
  overload: () => true,
  gate: () => true,
  'automatic level': () => true,
  room: (group) => group !== 'room',
  hum: () => true,
};
const LEAST_CLAIMED = 0.9;

/** How often what is so is said, and how often what is not, over all held-out takes of the groups. */
function claimLines(judged: readonly JudgedReal[], causes: readonly JudgedCause[]): { lines: string[]; weak: string[] } {
  const held = judged.filter((take) => take.half === 'held');
  const weak: string[] = [];
  const rows = (Object.keys(MUST_NOT) as (keyof typeof MUST_NOT)[]).map((claim) => {
    const due = causes.filter(({ cause, half }) => half === 'held' && cause === claim);
    const said = due.filter(({ claims }) => claims.includes(claim)).length;
    const undue = held.filter(({ group }) => MUST_NOT[claim](group));
    const wrongly = undue.filter(({ claims }) => claims.includes(claim));
    if (due.length > 0 && said < LEAST_CLAIMED * due.length) weak.push(`${claim}: said of ${said} of ${due.length} takes of which it is so.`);
    if (wrongly.length > 0)
      weak.push(`${claim}: said of ${wrongly.length} of ${undue.length} takes of which it is not so (${[...new Set(wrongly.map(({ group }) => group))].join(', ')}).`);
    return `| ${claim} | ${due.length > 0 ? `${said} of ${due.length}` : ''} | ${wrongly.length} of ${undue.length} |`;
  });
  return { weak, lines: ['| what is said of a take | where it is so | where it is not |', '|---|---|---|', ...rows] };
}

/** Floors and decays of held-out takes against what was laid under them. */
function figureLines(judged: readonly JudgedReal[]): { lines: string[]; weak: string[] } {
  const held = judged.filter((take) => take.half === 'held');
  const errorsOf = (takes: readonly JudgedReal[]) =>
    takes.flatMap((take) => (take.measuredFloorDbfs === null ? [] : [Math.abs(take.measuredFloorDbfs - take.floorDbfs)])).sort((a, b) => a - b);
  const at = (sorted: readonly number[], share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
  const text = (value: number | undefined) => (value === undefined ? 'none' : value.toFixed(2));
  const floor = (name: string, takes: readonly JudgedReal[], within: number) => {
    const errors = errorsOf(takes);
    return {
      row: `| noise floor, ${name} | ${errors.length} of ${takes.length} | ${text(at(errors, 0.5))} | ${text(at(errors, 0.9))} | ${within} dB |`,
      over: (at(errors, 0.9) ?? 0) > within,
      name,
    };
  };
  const floors = [
    floor(
      'calm and steady noise',
      held.filter((take) => take.group === 'calm' || take.group === 'steady noise'),
      0.3,
    ),
    floor(
      'in rooms of 0.4 to 2.5 s',
      held.filter((take) => take.group === 'room'),
      2,
    ),
  ];
  const rooms = held.filter((take) => take.group === 'room');
  const decays = rooms.flatMap((take) => (take.measuredDecayS === null || take.decayS === null ? [] : [Math.abs(take.measuredDecayS / take.decayS - 1)])).sort((a, b) => a - b);
  const known = held.flatMap((take) => (take.sti === null ? [] : [take]));
  const transmissions = known.flatMap(({ sti, measuredSti }) => (measuredSti === null ? [] : [Math.abs(measuredSti - (sti as number))])).sort((a, b) => a - b);
  const OVER_WHAT = { 'gusts and wind': ['gusts', 'steady wind', 'wind behind a low-cut'], 'all else': ['knocks', 'rubbing', 'things', 'calm', 'steady noise', 'music'] };
  const ratios = Object.entries(OVER_WHAT).map(([over, groups]) => {
    const takes = held.filter((take) => groups.includes(take.group));
    const errors = takes.flatMap(({ snrDb, measuredSnrDb }) => (measuredSnrDb === null ? [] : [Math.abs(measuredSnrDb - snrDb)])).sort((a, b) => a - b);
    return `| voice over noise, ${over} | ${errors.length} of ${takes.length} | ${text(at(errors, 0.5))} | ${text(at(errors, 0.9))} | dB |`;
  });
  const percent = (value: number | undefined) => (value === undefined ? 'none' : `${Math.round(100 * value)} %`);
  const weak = floors.filter((each) => each.over).map((each) => `noise floor, ${each.name}: a tenth of the takes is further off than wanted.`);
  if (decays.length < 0.8 * rooms.length) weak.push(`reverberation, recorded talkers: a figure on ${decays.length} of ${rooms.length} takes, wanted 8 of 10.`);
  if ((at(decays, 0.5) ?? 0) > 0.15 || (at(decays, 0.9) ?? 0) > 0.35) weak.push('reverberation, recorded talkers: further off than wanted.');
  if ((at(transmissions, 0.9) ?? 0) > 0.1) weak.push('speech transmission, recorded talkers: a tenth of the takes is further off than wanted.');
  return {
    weak,
    lines: [
      '| figure | takes with a figure | median error | 90 % | within |',
      '|---|---|---|---|---|',
      ...floors.map((each) => each.row),
      ...ratios,
      `| reverberation in rooms of 0.4 to 2.5 s | ${decays.length} of ${rooms.length} | ${percent(at(decays, 0.5))} | ${percent(at(decays, 0.9))} | 15 %, nine in ten 35 % |`,
      `| speech transmission index, rooms | ${transmissions.length} of ${known.length} | ${text(at(transmissions, 0.5))} | ${text(at(transmissions, 0.9))} | 0.1 |`,
    ],
  };
}
