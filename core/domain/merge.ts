import { isRecord, same } from './same.ts';

/** One thing that two changed: what it was, what each made of it. */
export interface ChangedField {
  /** Names from the record down to it. */
  path: string[];
  mine: unknown;
  theirs: unknown;
  /** Who changed it: only the other page, only this one, or both, differently. */
  by: 'theirs' | 'mine' | 'both';
}

/** Two changes of one record brought together. */
export interface Merged<Value> {
  /** Both changes, as far as they do not touch; where they do, mine. */
  value: Value;
  changes: ChangedField[];
  /** Whether both changed the same thing, so that one of them has to give way. */
  touching: boolean;
}

/**
 * Brings together two changes that started from the same record. Lists whose entries carry an id, a kind
 * or a name are compared entry by entry; other lists are one thing.
 * @param base the record that both started from
 */
export function mergeRecords<Value extends object>(base: Value, mine: Value, theirs: Value): Merged<Value> {
  const changes: ChangedField[] = [];
  const value = merged(base, mine, theirs, [], changes) as Value;
  return { value, changes, touching: changes.some((change) => change.by === 'both') };
}

function merged(base: unknown, mine: unknown, theirs: unknown, path: string[], changes: ChangedField[]): unknown {
  if (same(mine, theirs)) return mine;
  const lists = [base, mine, theirs].map(keyed);
  if (lists.every((list) => list !== null)) return mergedLists(lists as Map<string, unknown>[], path, changes);
  if ([base, mine, theirs].every(isRecord)) {
    const [from, own, other] = [base, mine, theirs] as Record<string, unknown>[];
    const keys = new Set([...Object.keys(own ?? {}), ...Object.keys(other ?? {})]);
    return Object.fromEntries([...keys].map((key) => [key, merged(from?.[key], own?.[key], other?.[key], [...path, key], changes)]));
  }
  const by = same(base, mine) ? 'theirs' : same(base, theirs) ? 'mine' : 'both';
  changes.push({ path, mine, theirs, by });
  return by === 'theirs' ? theirs : mine;
}

/** Entries of both, in my order, theirs that are new after them; an entry that one took away and the other left as it was is gone. */
function mergedLists([base, mine, theirs]: Map<string, unknown>[], path: string[], changes: ChangedField[]): unknown[] {
  const keys = new Set([...(mine as Map<string, unknown>).keys(), ...(theirs as Map<string, unknown>).keys()]);
  const entries: unknown[] = [];
  for (const key of keys) {
    const [was, own, other] = [base?.get(key), mine?.get(key), theirs?.get(key)];
    const named = isRecord(own ?? other) ? ((own ?? other) as { name?: string; label?: string }) : {};
    const value = merged(was, own, other, [...path, named.label ?? named.name ?? key], changes);
    if (value !== undefined) entries.push(value);
  }
  return entries;
}

function keyed(value: unknown): Map<string, unknown> | null {
  if (!Array.isArray(value)) return null;
  const keys = value.map((entry) => (isRecord(entry) ? (entry.id ?? entry.kind ?? entry.name ?? entry.key) : null));
  if (keys.some((key) => typeof key !== 'string') || new Set(keys).size < keys.length) return null;
  return new Map(value.map((entry, index) => [keys[index] as string, entry]));
}
