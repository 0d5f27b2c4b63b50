/** One figure of one candidate under one condition. */
export interface Sample {
  candidateId: string;
  conditionKey: string;
  value: number;
}

/** What stands for a candidate on a criterion, and what it rests on. */
export interface Aggregate {
  value: number;
  count: number;
  /** Whether all candidates with figures were taken under these same conditions. */
  sameConditions: boolean;
}

/**
 * The median of each candidate's figures, over the conditions that all candidates with figures have in
 * common, so that nobody is judged at 40 m against somebody at 1 m. Where they have none in common
 * every figure counts and `sameConditions` is false.
 */
export function aggregateMedian(samples: readonly Sample[]): Map<string, Aggregate> {
  const byCandidate = new Map<string, Sample[]>();
  for (const sample of samples) byCandidate.set(sample.candidateId, [...(byCandidate.get(sample.candidateId) ?? []), sample]);
  const sets = [...byCandidate.values()].map((list) => new Set(list.map((sample) => sample.conditionKey)));
  const common = [...(sets[0] ?? [])].filter((key) => sets.every((set) => set.has(key)));
  const inCommon = new Set(common);
  const result = new Map<string, Aggregate>();
  for (const [candidateId, list] of byCandidate) {
    const used = common.length > 0 ? list.filter((sample) => inCommon.has(sample.conditionKey)) : list;
    result.set(candidateId, { value: median(used.map((sample) => sample.value)), count: used.length, sameConditions: common.length > 0 });
  }
  return result;
}

/** Middle value, or the mean of the two in the middle. @throws RangeError for an empty list */
export function median(values: readonly number[]): number {
  if (values.length === 0) throw new RangeError('An empty list has no median');
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? (sorted[middle] as number) : ((sorted[middle - 1] as number) + (sorted[middle] as number)) / 2;
}
