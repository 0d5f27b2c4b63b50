import type { FactorKind, Setup } from '../../domain/factor.ts';

const pairKey = (first: number, second: number, levels: number) => first * levels + second;

/**
 * Few setups in which every two levels of every two factors meet at least once, as far as they meet in
 * any of the given ones. Greedy: the setup that adds most new meetings is taken next; gains only fall,
 * so a setup is looked at again only when its old gain would still win. Not the least there is, but
 * seldom far off: at least the product of the two largest factors is needed in any case.
 * @param possible setups that can occur
 * @param kinds factors to cover; one alone covers its levels
 */
export function pairCovering(possible: readonly Setup[], kinds: readonly FactorKind[]): Setup[] {
  if (kinds.length < 2) return onePerLevel(possible, kinds[0]);
  const ids = new Map<string, number>();
  const numbered = possible.map((setup) =>
    Int32Array.from(kinds, (kind) => {
      const id = `${kind}|${setup[kind] ?? ''}`;
      const known = ids.get(id) ?? ids.size;
      ids.set(id, known);
      return known;
    }),
  );
  const uncovered = new Set<number>();
  for (const row of numbered) for (const key of pairsOf(row, ids.size)) uncovered.add(key);
  const gains = Int32Array.from({ length: numbered.length }, () => (kinds.length * (kinds.length - 1)) / 2);
  const taken: number[] = [];
  while (uncovered.size > 0) {
    let best = -1;
    let bestGain = 0;
    for (let at = 0; at < numbered.length; at++) {
      if ((gains[at] as number) <= bestGain) continue;
      let gain = 0;
      for (const key of pairsOf(numbered[at] as Int32Array, ids.size)) if (uncovered.has(key)) gain++;
      gains[at] = gain;
      if (gain > bestGain) {
        bestGain = gain;
        best = at;
      }
    }
    for (const key of pairsOf(numbered[best] as Int32Array, ids.size)) uncovered.delete(key);
    taken.push(best);
  }
  return taken.sort((a, b) => a - b).map((at) => possible[at] as Setup);
}

function* pairsOf(row: Int32Array, levels: number): Generator<number> {
  for (let i = 0; i < row.length; i++) for (let j = i + 1; j < row.length; j++) yield pairKey(row[i] as number, row[j] as number, levels);
}

function onePerLevel(possible: readonly Setup[], kind: FactorKind | undefined): Setup[] {
  if (!kind) return possible.slice(0, 1);
  return [...new Map([...possible].reverse().map((setup) => [setup[kind], setup])).values()].reverse();
}
