import { randomInt } from 'node:crypto';
import { newId } from '@marvet/core/domain/identity';
import { isPaired, type ListenerDraft } from '@marvet/core/domain/round';
import { nextOrder } from '@marvet/core/listen/balancedOrder';
import { betterComparisons, oddComparisons, sameComparisons } from '@marvet/core/listen/paired/sequence';
import type { ListenerRow, RoundRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { IsNull, present } from '../store/table.ts';
import { ApiError, notFound } from './http.ts';

const UNIFORM_STEPS = 2 ** 32;
const thrown = () => randomInt(UNIFORM_STEPS) / UNIFORM_STEPS;

/** What one listener compares, in an order of their own; null where points are given. */
function comparisonsOf({ kind, recordingIds, comparisons }: RoundRow): number[][] | null {
  switch (kind) {
    case 'scores':
    case 'ranked':
      return null;
    case 'same':
      return sameComparisons(comparisons, thrown);
    case 'odd':
      return oddComparisons(comparisons, thrown);
    case 'better':
      return betterComparisons(recordingIds.length, comparisons, thrown);
  }
}

/** A round of a trial that is not in the bin. @throws ApiError 404 */
export async function presentRound(from: Pick<ReadTables, 'rounds'>, trialId: string, id: string): Promise<RoundRow> {
  const row = await from.rounds.findOneBy({ id, ...present(trialId) });
  if (!row) throw notFound('listening round');
  return row;
}

/** A seat for one more listener of a round, with an order of clips that balances those of the others. @throws ApiError 409 where the round is closed */
export async function newSeat(tables: Pick<ReadTables, 'listeners'>, round: RoundRow, draft: ListenerDraft): Promise<ListenerRow> {
  if (round.closedAtMs !== null) throw new ApiError(409, 'closed', 'This round is closed and its identities are open: make a new one to go on listening blind');
  const others = await tables.listeners.find({ where: { roundId: round.id, binnedAtMs: IsNull() }, order: { createdAtMs: 'ASC' } });
  const orders = others.map(({ order }) => order);
  return {
    ...draft,
    id: newId(),
    roundId: round.id,
    sample: false,
    createdAtMs: Date.now(),
    finishedAtMs: null,
    closedAtMs: null,
    guess: null,
    orders: {},
    awayKey: null,
    binnedAtMs: null,
    order: isPaired(round.kind) ? [] : nextOrder(round.recordingIds.length + round.checks.length, orders, thrown),
    comparisons: comparisonsOf(round),
  };
}
