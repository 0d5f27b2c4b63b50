/**
 * How strong each of some is, from choices between two of them: the model in which a is chosen over b with a chance of
 * strength a / (strength a + strength b), fitted for the greatest likelihood (R. A. Bradley and M. E. Terry, Rank analysis of
 * incomplete block designs, 1952; the steps of D. R. Hunter, MM algorithms for generalized Bradley-Terry models, 2004).
 * @param wins wins[a][b] is how often a was chosen over b
 * @returns logarithms of strength, their mean 0; null where some were never chosen over the others, or always: then it has no end
 * @example strengths([[0, 3], [1, 0]]) // [0.549, -0.549]
 */
export function strengths(wins: readonly (readonly number[])[]): number[] | null {
  const count = wins.length;
  if (count < 2 || !connected(wins)) return null;
  const won = wins.map((row, a) => row.reduce((sum, each, b) => (a === b ? sum : sum + each), 0));
  let strength: number[] = new Array<number>(count).fill(1);
  for (let step = 0; step < MOST_STEPS; step++) {
    const next = strength.map((own, a) => {
      const met = strength.reduce((sum, other, b) => (a === b ? sum : sum + (between(wins, a, b) + between(wins, b, a)) / (own + other)), 0);
      return (won[a] as number) / met;
    });
    const mean = Math.exp(next.reduce((sum, each) => sum + Math.log(each), 0) / count);
    const scaled = next.map((each) => each / mean);
    const moved = Math.max(...scaled.map((each, at) => Math.abs(Math.log(each / (strength[at] as number)))));
    strength = scaled;
    if (moved < SETTLED) break;
  }
  return strength.map(Math.log);
}

const MOST_STEPS = 10_000;
const SETTLED = 1e-10;
const between = (wins: readonly (readonly number[])[], a: number, b: number): number => wins[a]?.[b] ?? 0;

/** Whether from each of them every other can be reached by wins: else one group is above the other without a measure. */
function connected(wins: readonly (readonly number[])[]): boolean {
  return wins.every((_, from) => {
    const reached = new Set([from]);
    for (const at of reached) for (let to = 0; to < wins.length; to++) if (between(wins, at, to) > 0) reached.add(to);
    return reached.size === wins.length;
  });
}
