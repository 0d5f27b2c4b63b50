import type { GearProblem, ShareOut, Wish } from './gear.ts';
import type { WholeProgram, WholeRow } from './wholeNumbers.ts';

/** The whole numbers of a share-out, and where each stands. */
export interface ShareProgram extends WholeProgram {
  /** Points that a column adds to the sum over people. */
  points: number[];
  /** What a column costs. */
  costs: number[];
  /** Columns that say whether a role uses a kind at all: what two share-outs differ in. */
  uses: number[];
  read(values: readonly number[]): ShareOut;
}

/**
 * The program of a problem. Columns: people of each role that get each kind, spares of it, whether the role uses it, and units of each part
 * to buy.
 * @param wishes those that are to be met; what is left out may be broken
 */
export function shareProgram(problem: GearProblem, wishes: readonly Wish[]): ShareProgram {
  const { roles, kinds, parts } = problem;
  const most: number[] = [];
  const points: number[] = [];
  const costs: number[] = [];
  const rows: WholeRow[] = [];
  const column = (upTo: number, worth = 0, cost = 0) => {
    points.push(worth);
    costs.push(cost);
    return most.push(upTo) - 1;
  };
  const asks = (kind: Wish['kind'], roleId: string) => wishes.some((wish) => wish.kind === kind && 'roleId' in wish && wish.roleId === roleId);
  const units = new Map<string, number[]>();
  const given = roles.map((role) => {
    const kept = kinds.filter(({ candidateId }) => wishes.every((wish) => !('met' in wish) || wish.roleId !== role.roleId || wish.met.includes(candidateId)));
    const of = kept.map((kind) => {
      const people = column(role.count, rounded(role.importance * kind.points));
      const spares = column(role.spares);
      const used = column(1);
      // Spares are of a kind that somebody of the role has; a kind is used where somebody has it.
      rows.push({
        terms: [
          [spares, 1],
          [people, -role.spares],
        ],
        least: null,
        most: 0,
      });
      rows.push({
        terms: [
          [people, 1],
          [used, -role.count],
        ],
        least: null,
        most: 0,
      });
      rows.push({
        terms: [
          [people, 1],
          [used, -1],
        ],
        least: 0,
        most: null,
      });
      units.set(kind.candidateId, [...(units.get(kind.candidateId) ?? []), people, spares]);
      return { candidateId: kind.candidateId, people, spares, used };
    });
    const all = (which: 'people' | 'spares', needed: number, asked: boolean) =>
      rows.push({ terms: of.map((each) => [each[which], 1] as const), least: asked ? needed : null, most: needed });
    all('people', role.count, asks('people', role.roleId));
    all('spares', role.spares, asks('spares', role.roleId));
    return { roleId: role.roleId, of };
  });
  const needs = parts.map((part) => {
    const bought = column(part.price === null ? 0 : mostUnits(problem, part.itemId), 0, part.price ?? 0);
    const terms = kinds.flatMap(({ candidateId, parts: own }) => {
      const uses = own.reduce((sum, { itemId, uses: each }) => sum + (itemId === part.itemId ? each : 0), 0);
      return uses === 0 ? [] : (units.get(candidateId) ?? []).map((unit) => [unit, uses] as const);
    });
    rows.push({ terms: [...terms, [bought, -part.serves]], least: null, most: part.serves * part.atHand });
    return { part, bought, terms };
  });
  if (problem.budget !== null && wishes.some(({ kind }) => kind === 'budget'))
    rows.push({ terms: needs.map(({ part, bought }) => [bought, part.price ?? 0] as const), least: null, most: problem.budget });
  const weighed = roles.reduce((sum, { count, importance }) => sum + count * importance, 0);

  return {
    most,
    rows,
    points,
    costs,
    uses: given.flatMap(({ of }) => of.map(({ used }) => used)),
    read(values) {
      const at = (index: number) => values[index] ?? 0;
      const total = (factors: readonly number[]) => factors.reduce((sum, factor, index) => sum + factor * at(index), 0);
      return {
        points: weighed > 0 ? total(points) / weighed : 0,
        cost: total(costs),
        given: given.map(({ roleId, of }) => ({
          roleId,
          kinds: of.flatMap(({ candidateId, people, spares }) => (at(people) > 0 ? [{ candidateId, count: at(people), spares: at(spares) }] : [])),
        })),
        buy: needs.flatMap(({ part, bought }) => (at(bought) > 0 ? [{ itemId: part.itemId, count: at(bought), price: part.price as number }] : [])),
        fromHand: needs.flatMap(({ part, terms, bought }) => {
          const needed = Math.ceil(terms.reduce((sum, [unit, uses]) => sum + uses * at(unit), 0) / part.serves);
          const count = Math.max(0, needed - at(bought));
          return count > 0 ? [{ itemId: part.itemId, count }] : [];
        }),
      };
    },
  };
}

/** To thousandths of a point, so that what is added up stays exact for the solver. */
const rounded = (points: number) => Math.round(1000 * points) / 1000;

/** More than this of a part can never be needed. */
function mostUnits({ roles, kinds }: GearProblem, itemId: string): number {
  const units = roles.reduce((sum, { count, spares }) => sum + count + spares, 0);
  return units * Math.max(0, ...kinds.map(({ parts }) => parts.reduce((sum, part) => sum + (part.itemId === itemId ? part.uses : 0), 0)));
}
