import { applyLog, type LogLine } from '../domain/logLine.ts';
import { same } from '../domain/same.ts';
import { isSwitched } from '../domain/switches.ts';
import { firstSetups, type Take, untouchedTake } from '../domain/take.ts';

/**
 * Takes after lines that may have been written before some that are there already: a phone that was away
 * sends its morning at noon. What a take says is the sum of its lines in the order in which they were
 * written, whoever sent first. Where the takes are not the sum of the lines that are known, as after an
 * import, the late lines are added after them, and nothing that is there is worked out anew.
 * @param takes all passes of the slates that `fresh` speaks of
 * @param known lines of these takes that are in them
 * @param fresh lines that are not
 */
export function mergeLog(takes: readonly Take[], known: readonly LogLine[], fresh: readonly LogLine[]): Take[] {
  const lines = inTime(fresh);
  const latestMs = known.reduce((latest, { atMs }) => Math.max(latest, atMs), 0);
  const after = applyLog(takes, lines);
  if (lines.every(({ atMs }) => atMs >= latestMs)) return after;
  const late = new Set(takes.filter((take) => isLate(take, takes, known, lines)).map(({ slate }) => slate));
  if (late.size === 0) return after;
  const replayed = new Map(replayedSlates(takes, known, lines, late).map((take) => [take.id, take]));
  // A slate was said aloud: whatever comes late, no pass gets another number, and none goes to a new place.
  return after.map((take) => {
    const anew = replayed.get(take.id);
    if (!anew) return take;
    return { ...anew, pass: take.pass, position: take.position, binnedAtMs: take.binnedAtMs };
  });
}

/** Lines in the order in which they were written. Those of one device never share a moment. */
function inTime(lines: readonly LogLine[]): LogLine[] {
  return [...lines].sort((a, b) => a.atMs - b.atMs || (a.id < b.id ? -1 : 1));
}

/** Whether a line comes for this take, or another pass of its slate, that was written before one that is in it. */
function isLate({ slate }: Take, takes: readonly Take[], known: readonly LogLine[], fresh: readonly LogLine[]): boolean {
  const ids = new Set(takes.filter((take) => take.slate === slate).map(({ id }) => id));
  const latestMs = known.reduce((latest, { takeId, atMs }) => (ids.has(takeId) ? Math.max(latest, atMs) : latest), 0);
  return fresh.some(({ takeId, atMs }) => ids.has(takeId) && atMs < latestMs);
}

/** Takes of the slates worked out from all of their lines; those slates left out whose takes are not the sum of what is known. */
function replayedSlates(takes: readonly Take[], known: readonly LogLine[], fresh: readonly LogLine[], slates: ReadonlySet<number>): Take[] {
  return [...slates].flatMap((slate) => {
    const own = takes.filter((take) => take.slate === slate);
    const made = new Set(known.flatMap((line) => (line.kind === 'redo' ? [line.newTakeId] : [])));
    const bases = own.filter(({ id }) => !made.has(id)).map(asPlanned);
    const ids = new Set(own.map(({ id }) => id));
    for (const line of fresh) if (line.kind === 'redo' && ids.has(line.takeId)) ids.add(line.newTakeId);
    const ofSlate = (lines: readonly LogLine[]) => lines.filter(({ takeId, kind }) => ids.has(takeId) && kind !== 'order');
    const before = new Map(applyLog(bases, inTime(ofSlate(known))).map((take) => [take.id, take]));
    const whole = own.every((take) => same(placed(before.get(take.id), take), take));
    return whole ? applyLog(bases, inTime([...ofSlate(known), ...ofSlate(fresh)])) : [];
  });
}

/** A take as the plan made it, before anything was logged. */
function asPlanned(take: Take): Take {
  const setups = firstSetups(take).map((setup) => ({ ...setup, levels: Object.fromEntries(Object.entries(setup.levels).filter(([, levelId]) => !isSwitched(levelId))) }));
  return { ...untouchedTake({ ...take, setups }), pass: take.pass, binnedAtMs: take.binnedAtMs };
}

/** A take worked out anew, with what no line of its own says. */
function placed(anew: Take | undefined, { pass, position, binnedAtMs }: Take): Take | undefined {
  return anew && { ...anew, pass, position, binnedAtMs };
}
