import { isPaired } from '@marvet/core/domain/round';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { lettersOf } from '@marvet/core/listen/paired/outcome';
import type { ListenerRow, RoundRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { IsNull } from '../store/table.ts';
import { ApiError, notFound } from './http.ts';
import { sourcesOf } from './roundCuts.ts';
import type { Services } from './services.ts';

/** A round as one listener meets it. */
export interface Met {
  listener: ListenerRow;
  round: RoundRow;
  /** Of all clips where points are given, of one comparison else. */
  letters: string[];
}

/** The round of a listener. @throws ApiError 404 where either is gone */
export async function metRound(from: Pick<ReadTables, 'listeners' | 'rounds'>, id: string): Promise<Met> {
  const listener = await from.listeners.findOneBy({ id, binnedAtMs: IsNull() });
  const round = listener && (await from.rounds.findOneBy({ id: listener.roundId, binnedAtMs: IsNull() }));
  if (!listener || !round) throw notFound('listening round');
  return { listener, round, letters: isPaired(round.kind) ? lettersOf(round.kind) : BLIND_LETTERS.slice(0, round.recordingIds.length + round.checks.length) };
}

/** @throws ApiError 409 where whoever made the round has closed it */
export function refuseClosed({ closedAtMs }: Pick<RoundRow, 'closedAtMs'>): void {
  if (closedAtMs !== null) throw new ApiError(409, 'closed', 'This round was closed by whoever made it: nothing more is taken');
}

/** Comparing needs the same few words again and again: longer clips are heard from their beginning. */
const LONGEST_COMPARED_S = 20;

/** Where each clip of a round lies. Rounds of before clips were aligned are cut when they are first heard. */
export async function cutOf({ store, blobs, work }: Pick<Services, 'store' | 'blobs' | 'work'>, round: RoundRow): Promise<{ starts: number[]; lengthS: number }> {
  if (round.cuts && round.lengthS !== null)
    return { starts: round.cuts.map((cut) => cut.startS), lengthS: isPaired(round.kind) ? Math.min(round.lengthS, LONGEST_COMPARED_S) : round.lengthS };
  const { cuts, lengthS } = await work.cut(round.trialId, { sources: await sourcesOf(store, blobs, round.trialId, round.recordingIds) });
  const kept = cuts.map(({ startS, delayMs }) => ({ startS, delayMs }));
  await store.write((tables) => tables.rounds.update(round.id, { cuts: kept, lengthS }));
  return { starts: kept.map((cut) => cut.startS), lengthS };
}
