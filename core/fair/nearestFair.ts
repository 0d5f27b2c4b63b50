import { CONDITION_KINDS, type FactorKind } from '../domain/factor.ts';
import { type Compared, compareTakes } from './compare.ts';

/**
 * The fair comparison nearest to the setups given: keeps as many of them as can be kept and swaps the
 * others for setups with the same level of the factor under test. Null when there is none.
 * @param all every setup that could be used
 */
export function nearestFair(takes: readonly Compared[], all: readonly Compared[], underTest: FactorKind): Compared[] | null {
  const levelOf = (take: Compared) => (underTest === 'candidate' ? take.candidateId : take.condition[underTest]);
  const levels = new Set(takes.map(levelOf));
  if (levels.size < 2) return null;
  const partnersOf = partners(all, underTest);
  const isFair = (set: readonly Compared[]) => compareTakes(set, underTest).fairness === 'fair';
  const apart = (a: Compared, b: Compared) => compareTakes([a, b], underTest).differences.length;
  let best: { set: Compared[]; kept: number; distance: number } | null = null;
  const tryAround = (anchor: Compared) => {
    const set: Compared[] = [];
    let fair: Compared[] | null = null;
    let distance = 0;
    for (const take of takes) {
      let chosen: Compared | null = null;
      if (levelOf(take) === levelOf(anchor)) chosen = anchor;
      else if (isFair([anchor, take])) chosen = take;
      else {
        fair ??= partnersOf(anchor).filter((other) => isFair([anchor, other]));
        const options = fair.filter((other) => levelOf(other) === levelOf(take));
        for (const option of options) if (!chosen || apart(option, take) < apart(chosen, take)) chosen = option;
      }
      if (!chosen) return;
      set.push(chosen);
      distance += chosen === take ? 0 : apart(chosen, take);
      if (best && best.kept === 0 && distance >= best.distance) return;
    }
    if (!isFair(set)) return;
    const kept = set.filter((take) => takes.includes(take)).length;
    if (!best || kept > best.kept || (kept === best.kept && distance < best.distance)) best = { set, kept, distance };
  };
  for (const take of takes) tryAround(take);
  // A set that keeps any of them is found around the one that is kept; only a whole new set is left to look for.
  if (!best) for (const anchor of all) if (levels.has(levelOf(anchor))) tryAround(anchor);
  return (best as { set: Compared[] } | null)?.set ?? null;
}

/**
 * Setups that may be fair beside another, by what has to be equal: all factors but the one under test, and
 * all controls. Of other takes only those at which wind and noise were read, and there too: thousands of
 * setups need not be compared each with each.
 */
function partners(all: readonly Compared[], underTest: FactorKind): (of: Compared) => readonly Compared[] {
  const equalKey = (take: Compared) => {
    const factors = CONDITION_KINDS.filter((kind) => kind !== underTest).map((kind) => take.condition[kind] ?? '');
    const controls = take.controls.filter(({ value }) => value).map(({ name, value }) => `${name}=${value}`);
    return [underTest === 'candidate' ? '' : take.candidateId, ...factors, ...controls.sort()].join('|');
  };
  const wasRead = (take: Compared) => take.windMs !== null && take.noiseDba !== null;
  const withinTake = new Map<string, Compared[]>();
  const read = new Map<string, Compared[]>();
  const gather = (into: Map<string, Compared[]>, key: string, take: Compared) => {
    const known = into.get(key);
    if (known) known.push(take);
    else into.set(key, [take]);
  };
  for (const take of all) {
    const key = equalKey(take);
    gather(withinTake, `${take.takeId} ${key}`, take);
    if (wasRead(take)) gather(read, key, take);
  }
  return (of) => {
    const key = equalKey(of);
    const own = withinTake.get(`${of.takeId} ${key}`) ?? [];
    return wasRead(of) ? [...own, ...(read.get(key) ?? []).filter((other) => other.takeId !== of.takeId)] : own;
  };
}
