import { FACTOR_KINDS, type FactorKind, type Setup } from '../../domain/factor.ts';
import { type Effect, isEstimable } from './modelRank.ts';

/** How a factor's levels can be compared in a plan. */
export interface FactorConclusion {
  kind: FactorKind;
  /** fair: pairs in which nothing else differs; average: only over all takes, with a model; none: not at all. */
  how: 'fair' | 'average' | 'none';
  /** Pairs of setups in which only this factor differs. */
  fairPairs: number;
  /** Pairs of levels, by id, that no fair pair connects directly. */
  unpaired: [string, string][];
}

/** Whether it can be told that one factor matters more at some levels of another. */
export interface InteractionConclusion {
  kinds: [FactorKind, FactorKind];
  told: boolean;
  /** Effects that these setups cannot keep apart from it: what is seen of the one can be the other. */
  aliasedWith: Effect[];
}

export interface Conclusions {
  factors: FactorConclusion[];
  interactions: InteractionConclusion[];
}

/** What setups let one conclude: each varied factor by itself, and each two of them together. */
export function conclusions(setups: readonly Setup[]): Conclusions {
  const varied = FACTOR_KINDS.filter((kind) => new Set(setups.map((setup) => setup[kind])).size > 1);
  const mains: Effect[] = varied.map((kind) => [kind]);
  const factors = varied.map((kind, at): FactorConclusion => {
    const { fairPairs, unpaired } = pairsAlong(setups, varied, kind);
    const how = unpaired.length === 0 ? 'fair' : isEstimable(setups, mains, mains[at] as Effect) ? 'average' : 'none';
    return { kind, how, fairPairs, unpaired };
  });
  const interactions = varied.flatMap((first, index) =>
    varied.slice(index + 1).map((second): InteractionConclusion => {
      const effect: Effect = [first, second];
      return { kinds: [first, second], told: isEstimable(setups, [...mains, effect], effect), aliasedWith: [] };
    }),
  );
  // Where every cell is recorded nothing is mixed up with anything; and where there are very many levels the answer is too long to wait for.
  const levels = varied.map((kind) => new Set(setups.map((setup) => setup[kind])).size);
  const full = setups.length === levels.reduce((product, count) => product * count, 1);
  const effects = interactions.map(({ kinds }): Effect => kinds);
  if (!full && effects.length <= MOST_TO_ALIAS && Math.max(...levels) <= MOST_LEVELS_TO_ALIAS)
    interactions.forEach((each, at) => each.aliasedWith.push(...aliases(setups, mains, effects, effects[at] as Effect)));
  return { factors, interactions };
}

/** Beyond so many two-way effects their aliases are a list that nobody reads, and long to work out. */
const MOST_TO_ALIAS = 15;
const MOST_LEVELS_TO_ALIAS = 8;

/** Effects that are lost as soon as this one is taken into the model beside them, or it beside them. */
function aliases(setups: readonly Setup[], mains: readonly Effect[], pairs: readonly Effect[], effect: Effect): Effect[] {
  const own = mains.filter((main) => effect.some((kind) => main[0] === kind));
  const blurredMains = mains.filter((main) => !own.includes(main) && isEstimable(setups, [...own, main], main) && !isEstimable(setups, [...own, main, effect], main));
  const model = [...mains, effect];
  if (!isEstimable(setups, model, effect)) return blurredMains;
  const blurredPairs = pairs.filter((pair) => pair !== effect && isEstimable(setups, [...mains, pair], pair) && !isEstimable(setups, [...model, pair], effect));
  return [...blurredMains, ...blurredPairs];
}

function pairsAlong(setups: readonly Setup[], varied: readonly FactorKind[], kind: FactorKind): Pick<FactorConclusion, 'fairPairs' | 'unpaired'> {
  const others = varied.filter((each) => each !== kind);
  const groups = new Map<string, Set<string>>();
  const levels = new Set<string>();
  for (const setup of setups) {
    const level = setup[kind] ?? '';
    levels.add(level);
    const key = others.map((each) => setup[each]).join('|');
    groups.set(key, (groups.get(key) ?? new Set()).add(level));
  }
  let fairPairs = 0;
  const met = new Set<string>();
  for (const group of groups.values()) {
    fairPairs += (group.size * (group.size - 1)) / 2;
    for (const a of group) for (const b of group) met.add(`${a}|${b}`);
  }
  const ids = [...levels];
  const unpaired = ids.flatMap((a, index) =>
    ids
      .slice(index + 1)
      .filter((b) => !met.has(`${a}|${b}`))
      .map((b): [string, string] => [a, b]),
  );
  return { fairPairs, unpaired };
}
