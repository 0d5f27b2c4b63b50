import type { DrawnFrom } from './doubt/samples.ts';

/** Everything that one candidate has of one take under one condition: of each criterion, its values; several where several people listened. */
export interface RawRow {
  /** Null for what belongs to no take, as marks and ranges. */
  takeId: string | null;
  candidateId: string;
  /** As the verdict counts it. */
  condition: string;
  values: number[][];
}

/** All that a verdict rests on, take by take, so that it can be reckoned again by hand. */
export function rawFigures({ criteria, candidateIds, takeIds, samples }: DrawnFrom): RawRow[] {
  const rows = new Map<string, RawRow & { take: number; candidate: number }>();
  for (const [index, own] of samples.entries()) {
    for (const { take, candidate, condition, value } of own) {
      const key = `${take} ${candidate} ${condition}`;
      const row = rows.get(key) ?? {
        take: take ?? takeIds.length,
        candidate,
        takeId: take === null ? null : (takeIds[take] as string),
        candidateId: candidateIds[candidate] as string,
        condition,
        values: criteria.map(() => []),
      };
      row.values[index]?.push(value);
      rows.set(key, row);
    }
  }
  return [...rows.values()].sort((a, b) => a.take - b.take || a.candidate - b.candidate).map(({ take: _take, candidate: _candidate, ...row }) => row);
}
