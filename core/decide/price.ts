import type { VerdictRow } from './verdict.ts';

/** A candidate that has a price and a score, and is not ruled out. */
export interface Priced {
  candidateId: string;
  name: string;
  price: number;
  score: number;
}

/** A step up along those that nothing cheaper beats. */
export interface PriceStep {
  from: Priced;
  to: Priced;
  /** Price of one more point of the score. */
  perPoint: number;
}

export interface PriceTold {
  /** The best that may be chosen, whatever it costs. */
  best: Priced;
  /** From the cheapest on, those that no other one beats on price and score at once. */
  front: Priced[];
  steps: PriceStep[];
  /** The cheapest whose score lies no further under the best than wanted. */
  within: Priced;
  /** Cheaper ones with what part of the best one's score they have, for what part of its price. */
  shares: { candidate: Priced; ofScore: number; ofPrice: number }[];
}

/**
 * What money buys.
 * @param points how far under the best a score may lie to be good enough
 * @returns null where fewer than two candidates have a score and a price of one currency
 */
export function priceTold(rows: readonly VerdictRow[], points: number): PriceTold | null {
  const priced = rows.flatMap(({ candidate, score, rank }): (Priced & { currency: string | null })[] =>
    candidate.price === null || score === null || rank === null
      ? []
      : [{ candidateId: candidate.id, name: candidate.name, price: candidate.price, score, currency: candidate.currency }],
  );
  if (priced.length < 2 || new Set(priced.map(({ currency }) => currency)).size > 1) return null;
  const all = priced.map(({ currency: _, ...rest }): Priced => rest).sort((a, b) => a.price - b.price || b.score - a.score);
  const front = all.filter((each, at) => all.slice(0, at).every((cheaper) => cheaper.score < each.score));
  // Of the front the last has the highest score, for the least that it costs.
  const best = front.at(-1) as Priced;
  return {
    best,
    front,
    steps: front.slice(1).map((to, at) => {
      const from = front[at] as Priced;
      return { from, to, perPoint: (to.price - from.price) / (to.score - from.score) };
    }),
    within: all.find(({ score }) => score >= best.score - points) as Priced,
    shares:
      best.price > 0 && best.score > 0
        ? all.filter(({ price }) => price < best.price).map((candidate) => ({ candidate, ofScore: candidate.score / best.score, ofPrice: candidate.price / best.price }))
        : [],
  };
}
