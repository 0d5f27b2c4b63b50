import type { Criterion } from '../../domain/criterion.ts';
import { listed } from '../../domain/listed.ts';
import { type Allocation, type GearProblem, NEXT, type ShareOut, type Wish } from './gear.ts';
import { leastText } from './roleAsks.ts';

/** An amount with its currency. */
export const money = (amount: number, currency: string) => `${amount.toLocaleString('en', { maximumFractionDigits: 2 })} ${currency}`;
const pointsText = (points: number) => `${points.toFixed(1)} points`;

/** What a share-out is worth and costs, as a sentence. */
export function worthText({ problem, best }: Pick<Allocation, 'problem' | 'best'>): string {
  if (!best) return '';
  const budget = problem.budget === null ? '' : ` of ${money(problem.budget, problem.currency)}`;
  const weighed = new Set(problem.roles.map(({ importance }) => importance)).size > 1 ? ', each role counted as it is said to count' : '';
  return `${pointsText(best.points)} of 100 in the mean over people${weighed}, for ${money(best.cost, problem.currency)}${budget}.`;
}

/** In what one share-out differs from another: each role that gets other kinds. */
function otherGivings(from: ShareOut, to: ShareOut, { roles, kinds }: GearProblem): string {
  const nameOf = (candidateId: string) => kinds.find((kind) => kind.candidateId === candidateId)?.name ?? candidateId;
  const said = (share: ShareOut, roleId: string) =>
    listed((share.given.find((each) => each.roleId === roleId)?.kinds ?? []).map(({ candidateId, count }) => `${count} × ${nameOf(candidateId)}`)) || 'nothing';
  const changed = roles.filter(({ roleId }) => said(from, roleId) !== said(to, roleId));
  return changed.map(({ roleId, name }) => `${name} ${said(to, roleId)}`).join('; ');
}

/** The second best, what the next hundred buys, and the next step up: a sentence each, where there is something to say. */
export function besideTexts({ problem, best, second, next, step }: Allocation): string[] {
  if (!best) return [];
  const { budget, currency } = problem;
  const against = (share: ShareOut) => `${otherGivings(best, share, problem)}: ${pointsText(share.points)}, ${money(share.cost, currency)}`;
  return [
    second ? `Second best: ${against(second)}.` : 'There is no other way to share out that meets the wishes.',
    ...(budget === null
      ? []
      : next
        ? [`${NEXT} ${currency} more would buy: ${against(next)}.`]
        : [
            `${NEXT} ${currency} more would buy nothing better.${
              step
                ? ` The next step up costs ${money(step.cost - budget, currency)} more than the budget: ${against(step)}.`
                : ' No money would bring half a point more: it is not what limits it.'
            }`,
          ]),
  ];
}

/** One wish in a few words. */
export function wishText(wish: Wish, { roles, budget, currency }: GearProblem, criteria: readonly Criterion[]): string {
  if (wish.kind === 'budget') return `to spend at most ${money(budget ?? 0, currency)}`;
  const role = roles.find(({ roleId }) => roleId === wish.roleId);
  const name = role?.name ?? 'a role';
  switch (wish.kind) {
    case 'people':
      return `gear for ${name} (${role?.count})`;
    case 'spares':
      return `${role?.spares} to spare for ${name}`;
    case 'lock':
      return `plugs that lock for ${name}`;
    case 'hide':
      return `worn or hidden for ${name}`;
    case 'least': {
      const criterion = criteria.find(({ id }) => id === wish.criterionId);
      return `${criterion ? leastText(criterion, wish.limit) : 'a criterion'} for ${name}`;
    }
  }
}

/** Why no share-out meets all wishes, as sentences. */
export function conflictTexts({ problem, conflict, leastCost }: Pick<Allocation, 'problem' | 'conflict' | 'leastCost'>, criteria: readonly Criterion[]): string[] {
  if (conflict.length === 0) return [];
  const wishes = listed(conflict.map((wish) => wishText(wish, problem, criteria)));
  const budget = conflict.some(({ kind }) => kind === 'budget');
  const why =
    problem.kinds.length === 0
      ? 'No candidate may be given out.'
      : conflict.some((wish) => 'met' in wish && wish.met.length === 0)
        ? 'No candidate that may be given out meets it.'
        : conflict.length > 1
          ? 'Give up any one of them, and the rest of these can be met.'
          : 'What is at hand is not enough for it, and the rest has no price.';
  return [
    `No share-out meets ${conflict.length === 1 ? 'this' : `these ${conflict.length} wishes together`}: ${wishes}. ${why}`,
    ...(budget && leastCost !== null ? [`Everything else that is asked for costs at least ${money(leastCost, problem.currency)}.`] : []),
    ...(budget && leastCost === null ? ['Without the budget the other wishes conflict still.'] : []),
  ];
}

/** What a share-out does not know or look after, as sentences. */
export function unsureTexts({ problem, best }: Pick<Allocation, 'problem' | 'best'>): string[] {
  const { parts, roles, wishes, kinds, left, currency } = problem;
  const unpriced = parts.filter(({ price }) => price === null).map(({ name }) => name);
  const bare = roles.filter(({ roleId, rough, spares }) => rough && spares === 0 && !wishes.some((wish) => wish.kind === 'least' && wish.roleId === roleId));
  const given = new Set(best?.given.flatMap((share) => share.kinds.map(({ candidateId }) => candidateId)));
  const untested = kinds.filter(({ candidateId, untested: open }) => open && given.has(candidateId)).map(({ name }) => name);
  return [
    ...(left.length > 0 ? [`Not given out: ${listed(left.map(({ name, why }) => `${name} (${why})`))}.`] : []),
    ...(untested.length > 0 ? [`Given out though a limit was not tested on it: ${listed(untested)}.`] : []),
    ...(unpriced.length > 0 ? [`No price in ${currency}, so that only what is at hand is given out: ${listed(unpriced)}.`] : []),
    ...bare.map(({ name }) => `${name} is said to break things, and has neither a spare nor a least mark for how it is built.`),
  ];
}
