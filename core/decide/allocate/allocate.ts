import { type Allocation, type GearProblem, NEXT, type ShareOut, type Wish } from './gear.ts';
import { type ShareProgram, shareProgram } from './shareProgram.ts';
import { smallestConflict, someConflict } from './smallestConflict.ts';
import type { SolveWhole } from './wholeNumbers.ts';

/** Sums of points are whole thousandths; two that lie nearer than this are alike. */
const ALIKE = 5e-4;

/** Among more wishes the fewest that conflict are not proven: it would take minutes. */
const MOST_PROVEN = 12;

/** A step up is worth speaking of from so many points of 100 in the mean. */
const STEP_POINTS = 0.5;

/**
 * The best share-out by whole numbers: the most points over people, each counted by the importance of the role, within the wishes; among
 * equal ones the cheapest.
 */
export function allocate(problem: GearProblem, solve: SolveWhole): Allocation {
  const { budget, wishes, roles } = problem;
  const whateverItCosts = shareProgram(
    problem,
    wishes.filter(({ kind }) => kind !== 'budget'),
  );
  const program = shareProgram(problem, wishes);
  const values = mostFor(program, solve);
  if (!values) {
    const least = solve(
      whateverItCosts,
      whateverItCosts.costs.map((cost) => -cost),
    );
    return { problem, best: null, second: null, next: null, step: null, conflict: conflictOf(problem, solve), leastCost: least && whateverItCosts.read(least).cost };
  }
  const best = program.read(values);
  const none = { problem, best, second: secondOf(program, values, solve), next: null, step: null, conflict: [], leastCost: null };
  if (budget === null) return none;
  const points = total(program.points, values);
  const dearer = shareProgram({ ...problem, budget: budget + NEXT }, wishes);
  const more = mostFor(dearer, solve);
  if (more && total(dearer.points, more) > points + ALIKE) return { ...none, next: dearer.read(more) };
  const weighed = roles.reduce((sum, { count, importance }) => sum + count * importance, 0);
  const better = cheapest(whateverItCosts, solve, points + STEP_POINTS * weighed);
  return { ...none, step: better && whateverItCosts.read(better) };
}

const total = (factors: readonly number[], values: readonly number[]) => factors.reduce((sum, factor, index) => sum + factor * (values[index] as number), 0);

/** The most points, and of those that have as many the cheapest; null where the rows cannot be kept. */
function mostFor(program: ShareProgram, solve: SolveWhole): number[] | null {
  const most = solve(program, program.points);
  return most && (cheapest(program, solve, total(program.points, most) - ALIKE) ?? most);
}

/** The cheapest that has at least so many points. */
function cheapest(program: ShareProgram, solve: SolveWhole, points: number): number[] | null {
  const enough = { terms: program.points.flatMap((worth, column) => (worth === 0 ? [] : [[column, worth] as const])), least: points, most: null };
  return solve(
    { most: program.most, rows: [...program.rows, enough] },
    program.costs.map((cost) => -cost),
  );
}

/** The best in which at least one role uses a kind that it did not use, or does without one that it used. */
function secondOf(program: ShareProgram, values: readonly number[], solve: SolveWhole): ShareOut | null {
  const used = program.uses.filter((column) => values[column] === 1);
  const other = { terms: program.uses.map((column) => [column, values[column] === 1 ? -1 : 1] as const), least: 1 - used.length, most: null };
  const found = mostFor({ ...program, rows: [...program.rows, other] }, solve);
  return found && program.read(found);
}

/** Wishes that conflict, the fewest: within one role where that is enough, else over all. */
function conflictOf(problem: GearProblem, solve: SolveWhole): Wish[] {
  const { wishes } = problem;
  const withinRole = problem.roles
    .map(({ roleId }) => wishes.filter((wish) => 'roleId' in wish && wish.roleId === roleId && wish.kind !== 'spares'))
    .map((own) => {
      const possible = (some: readonly number[]) => {
        const kept = some.map((index) => own[index] as Wish);
        return !kept.some(({ kind }) => kind === 'people') || problem.kinds.some(({ candidateId }) => kept.every((wish) => !('met' in wish) || wish.met.includes(candidateId)));
      };
      return smallestConflict(own.length, possible, solve).map((index) => own[index] as Wish);
    })
    .filter((conflict) => conflict.length > 0)
    .sort((a, b) => a.length - b.length);
  if (withinRole[0]) return withinRole[0];
  const possible = (some: readonly number[]) => {
    const program = shareProgram(
      problem,
      some.map((index) => wishes[index] as Wish),
    );
    return (
      solve(
        program,
        program.costs.map(() => 0),
      ) !== null
    );
  };
  const places = wishes.length <= MOST_PROVEN ? smallestConflict(wishes.length, possible, solve) : someConflict(wishes.length, possible);
  return places.map((index) => wishes[index] as Wish);
}
