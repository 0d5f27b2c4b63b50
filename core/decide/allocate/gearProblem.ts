import { modeFast } from 'simple-statistics';
import type { Chain } from '../../domain/chain.ts';
import { connectorFacts } from '../../domain/connector.ts';
import type { Criterion } from '../../domain/criterion.ts';
import type { Item } from '../../domain/item.ts';
import { type Placement, spotByName } from '../../domain/placement.ts';
import { isSpoiled, setupCondition, type Take } from '../../domain/take.ts';
import type { Trial } from '../../domain/trial.ts';
import type { VerdictRow } from '../verdict.ts';
import type { GearKind, GearPart, GearProblem, Wish } from './gear.ts';

export interface GearFrom {
  trial: Pick<Trial, 'roles' | 'budget'>;
  criteria: readonly Criterion[];
  rows: readonly VerdictRow[];
  chains: readonly Chain[];
  items: readonly Item[];
  placements: readonly Placement[];
  takes: readonly Take[];
}

/**
 * Who is to get what, from what was judged and what is at hand. Points are what is sure of a score. Receivers and recorders serve as many
 * units as they have channels. Units at hand that nobody counted are none, and a price in another currency than the budget's cannot be paid.
 */
export function gearProblem({ trial, criteria, rows, chains, items, placements, takes }: GearFrom): GearProblem {
  const itemById = new Map(items.map((item) => [item.id, item]));
  const chainById = new Map(chains.map((chain) => [chain.id, chain]));
  const linksOf = (candidateId: string) => chainById.get(candidateId)?.links.flatMap(({ itemId }) => itemById.get(itemId) ?? []) ?? [];
  const left: GearProblem['left'] = [];
  const kinds = rows.flatMap(({ candidate, lowest, ruledOut, untested }): GearKind[] => {
    const uses = new Map<string, number>();
    for (const { id } of linksOf(candidate.id)) uses.set(id, (uses.get(id) ?? 0) + 1);
    const why = ruledOut.length > 0 ? 'ruled out' : lowest === null ? 'no score' : uses.size === 0 ? 'no parts in Kit' : null;
    if (why !== null || lowest === null) {
      left.push({ candidateId: candidate.id, name: candidate.name, why: why ?? 'no score' });
      return [];
    }
    return [{ candidateId: candidate.id, name: candidate.name, points: lowest, untested: untested.length > 0, parts: [...uses].map(([itemId, each]) => ({ itemId, uses: each })) }];
  });
  const currency = trial.budget?.currency ?? modeFast(kinds.flatMap(({ parts }) => parts.flatMap(({ itemId }) => itemById.get(itemId)?.currency ?? []))) ?? 'EUR';
  const parts = [...new Set(kinds.flatMap((kind) => kind.parts.map(({ itemId }) => itemId)))].map((itemId): GearPart => {
    const item = itemById.get(itemId) as Item;
    const price = item.price === null || item.currency !== currency ? null : item.price + (item.adapterPrice ?? 0);
    return { itemId, name: item.name, price, serves: SHARED.has(item.kind) ? item.channels : 1, atHand: item.owned ?? 0 };
  });
  const meet = (keeps: (candidateId: string) => boolean) => kinds.flatMap(({ candidateId }) => (keeps(candidateId) ? [candidateId] : []));
  const locking = meet((candidateId) => plugsLock(linksOf(candidateId)));
  const worn = wornOnes(chains, placements, takes);
  const rowOf = new Map(rows.map((row) => [row.candidate.id, row]));
  const reaches = (candidateId: string, criterion: Criterion, limit: number) => {
    const value = rowOf.get(candidateId)?.cells.find(({ criterionId }) => criterionId === criterion.id)?.value ?? null;
    return value !== null && (criterion.best > criterion.worst ? value >= limit : value <= limit);
  };
  const wishes = trial.roles.flatMap(({ id: roleId, spares, mustLock, mustHide, least }): Wish[] => [
    { kind: 'people', roleId },
    ...(spares > 0 ? [{ kind: 'spares' as const, roleId }] : []),
    ...least.flatMap(({ criterionId, limit }): Wish[] => {
      const criterion = criteria.find(({ id }) => id === criterionId);
      // What a role asked of a criterion that is gone asks nothing.
      return criterion ? [{ kind: 'least', roleId, criterionId, limit, met: meet((candidateId) => reaches(candidateId, criterion, limit)) }] : [];
    }),
    ...(mustLock ? [{ kind: 'lock' as const, roleId, met: locking }] : []),
    ...(mustHide ? [{ kind: 'hide' as const, roleId, met: meet((candidateId) => worn.has(candidateId)) }] : []),
  ]);
  return {
    roles: trial.roles.map(({ id: roleId, name, count, spares, importance, robustness }) => ({ roleId, name, count, spares, importance, rough: robustness === 'rough' })),
    kinds,
    parts,
    wishes: [...wishes, ...(trial.budget ? [{ kind: 'budget' as const }] : [])],
    budget: trial.budget?.amount ?? null,
    currency,
    left,
  };
}

/** Kinds that serve several units at once. */
const SHARED: ReadonlySet<Item['kind']> = new Set(['receiver', 'recorder', 'camera']);

/** Whether what is plugged on the talker's side is known to lock at both ends: all up to the transmitter, or where there is none the microphone. */
function plugsLock(links: readonly Item[]): boolean {
  // A cover has no plug.
  const plugged = links.filter(({ kind }) => kind !== 'windscreen');
  const radio = plugged.findIndex(({ kind }) => kind === 'transmitter');
  const own = plugged.slice(0, radio < 0 ? 2 : radio + 1);
  const locks = (connector: Item['inputConnector']) => connector !== null && connectorFacts(connector).locks;
  return own.length > 0 && own.slice(1).every((link, at) => locks((own[at] as Item).outputConnector) && locks(link.inputConnector));
}

/** Candidates that were recorded on a body or hidden, or are noted to sit there. */
function wornOnes(chains: readonly Chain[], placements: readonly Placement[], takes: readonly Take[]): Set<string> {
  const hidden = new Set(placements.filter(({ on }) => on === 'body' || on === 'hidden').flatMap(({ id, name }) => [id, name.trim().toLocaleLowerCase()]));
  const worn = new Set(chains.filter(({ rig }) => rig.onSkin || hidden.has(rig.placement.trim().toLocaleLowerCase()) || spotByName(rig.placement) !== null).map(({ id }) => id));
  for (const take of takes) {
    if (take.status !== 'done' || isSpoiled(take)) continue;
    for (const setup of take.setups) {
      const level = setupCondition(take, setup).placement;
      if (level !== undefined && hidden.has(level)) worn.add(setup.candidateId);
    }
  }
  return worn;
}
