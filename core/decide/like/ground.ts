import { conditionOfKey } from '../../domain/factor.ts';
import type { CellPlace } from './conditionFit.ts';
import { type LikeModel, likeModel } from './likeModel.ts';

/** On what candidates are compared, so that all of them meet the same conditions. */
export interface Ground {
  /** All conditions. */
  keys: string[];
  /** Those that each candidate is judged under, by their places. */
  judged: number[];
  /** Reckons what is missing under them; null where nothing is. */
  model: LikeModel | null;
  /** Cells in the order that the model takes them in. */
  cells: CellPlace[];
  /** By candidate and condition the place of its cell; -1 where it was not recorded. */
  cellAt: Int32Array[];
  /** By candidate, whether it can be held against the others. */
  known: boolean[];
  /** By candidate, how much was recorded of it against the one of whom most was, 0 to 1. */
  coverage: number[];
  /** By candidate, whether it was recorded under all that it is judged under, as far as it has levels of that. */
  complete: boolean[];
}

/**
 * The conditions that candidates are compared under: those that at least half of them, and at least two, were recorded under. One that was
 * recorded at little must not take the rest away from all others. Where somebody is missing under one of these, or nothing is shared, what
 * is missing is reckoned by a model; and who met none of the others, directly or by way of others, is held against none.
 * @param recorded by candidate the keys of the conditions that it has a value under
 */
export function groundOf(recorded: readonly (readonly string[])[]): Ground {
  const keys = [...new Set(recorded.flat())];
  const place = new Map(keys.map((key, at) => [key, at]));
  const cells: CellPlace[] = [];
  const cellAt = recorded.map((own, candidate) => {
    const row = new Int32Array(keys.length).fill(-1);
    for (const key of own) {
      row[place.get(key) as number] = cells.length;
      cells.push({ candidate, condition: place.get(key) as number });
    }
    return row;
  });
  const there = recorded.flatMap((own, candidate) => (own.length > 0 ? [candidate] : []));
  const counts = keys.map((_, at) => there.filter((candidate) => (cellAt[candidate]?.[at] as number) >= 0).length);
  const least = Math.min(there.length, Math.max(2, Math.ceil(there.length / 2)));
  const shared = [...keys.keys()].filter((at) => (counts[at] as number) >= least);
  const hasAll = (candidate: number, conditions: readonly number[]) => conditions.every((at) => (cellAt[candidate]?.[at] as number) >= 0);
  const plain = { keys, cells, cellAt };
  if (shared.length > 0 && there.every((candidate) => hasAll(candidate, shared))) {
    const known = recorded.map((own) => own.length > 0);
    return { ...plain, judged: shared, model: null, known, coverage: known.map(Number), complete: known };
  }
  const model = likeModel(cells, keys, recorded.length);
  const tied = there.filter((candidate) => model?.tied.has(candidate));
  const told = [...keys.keys()].filter((at) => tied.length > 0 && tied.every((candidate) => !Number.isNaN(model?.at(candidate, at))));
  // What is shared by most is what was meant to be compared, unless it is but a small part of what was recorded.
  const within = shared.filter((at) => told.includes(at));
  const judged = 2 * within.reduce((sum, at) => sum + (counts[at] as number), 0) >= cells.length ? within : told;
  const known = recorded.map((_, candidate) => tied.includes(candidate));
  return { ...plain, judged, model, known, ...howMuch(recorded, known, new Set(judged.map((at) => keys[at] as string))) };
}

/** How much was recorded of each. A factor that a candidate has no level of, as a boom no rig, makes no gap. */
function howMuch(recorded: readonly (readonly string[])[], known: readonly boolean[], judged: ReadonlySet<string>): Pick<Ground, 'coverage' | 'complete'> {
  const levelsOf = new Map(recorded.flat().map((key) => [key, Object.entries(conditionOfKey(key))]));
  const reduced = new Map<string, Map<string, string>>();
  /** Keys with no more than some kinds in them, which are few: worked out once for each. */
  const withOnly = (kinds: ReadonlySet<string>): ReadonlyMap<string, string> => {
    const name = [...kinds].sort().join();
    const made = reduced.get(name) ?? new Map([...levelsOf].map(([key, levels]) => [key, levels.flatMap((level) => (kinds.has(level[0]) ? level.join('=') : [])).join('|')]));
    reduced.set(name, made);
    return made;
  };
  const each = recorded.map((own, candidate) => {
    if (!known[candidate]) return { coverage: 0, complete: false };
    const short = withOnly(new Set(own.flatMap((key) => (levelsOf.get(key) ?? []).map(([kind]) => kind))));
    const seen = (keys: Iterable<string>) => new Set([...keys].map((key) => short.get(key)));
    const wanted = seen(judged);
    const of = (other: readonly string[]) => [...seen(other)].filter((key) => wanted.has(key)).length;
    const most = Math.max(...recorded.map((other, at) => (known[at] ? of(other.filter((key) => judged.has(key) || at === candidate)) : 0)));
    return { coverage: most === 0 ? 0 : of(own) / most, complete: of(own) === wanted.size };
  });
  return { coverage: each.map(({ coverage }) => coverage), complete: each.map(({ complete }) => complete) };
}
