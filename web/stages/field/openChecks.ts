import { type Check, preflightChecks } from '@marvet/core/chain/preflight';
import type { Chain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';

/**
 * What of the pre-flight nobody has ticked for the candidates of a take. Units are told apart over all
 * candidates, as in Kit: of three transmitters of one model the third stays the third when it runs alone.
 * @param chains all chains of the trial
 * @param candidateIds those in the take
 * @param planMin minutes of the plan
 */
export function openChecks(chains: readonly Chain[], candidateIds: readonly string[], items: ReadonlyMap<string, Item>, planMin: number, ticked: ReadonlySet<string>): Check[] {
  const candidates = chains.filter((chain) => chain.candidate);
  return preflightChecks(candidates, items, planMin).filter((check) => !ticked.has(check.key) && check.chainIds.some((id) => candidateIds.includes(id)));
}
