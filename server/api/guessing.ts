import type { RoundRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { inParts } from '../store/table.ts';

/** Candidates of a round's recordings, in the order of the recordings; null where a recording is of none any more. */
async function candidatesOf(from: ReadTables, { recordingIds, trialId }: Pick<RoundRow, 'recordingIds' | 'trialId'>): Promise<(string | null)[]> {
  const recordings = await inParts(recordingIds, (part) => from.recordings.find({ select: { id: true, takeId: true, setupId: true }, where: { id: part, trialId } }));
  const takes = await inParts([...new Set(recordings.flatMap(({ takeId }) => takeId ?? []))], (part) =>
    from.takes.find({ select: { id: true, setups: true }, where: { id: part } }),
  );
  return recordingIds.map((id) => {
    const recording = recordings.find((each) => each.id === id);
    return takes.find((take) => take.id === recording?.takeId)?.setups.find((setup) => setup.id === recording?.setupId)?.candidateId ?? null;
  });
}

/** Whether it can be guessed which is which: points are given, and each recording is of another candidate. That checks are hidden is not told before the scores are closed. */
export async function isGuessable(from: ReadTables, round: RoundRow): Promise<boolean> {
  if (round.kind !== 'scores') return false;
  const candidates = await candidatesOf(from, round);
  return !candidates.includes(null) && new Set(candidates).size === candidates.length;
}

/** Candidates to guess among, by name, so that their order tells nothing; none where checks were hidden, since those are no candidate of their own. */
export async function guessedAmong(from: ReadTables, round: RoundRow): Promise<{ id: string; name: string }[]> {
  if (round.checks.length > 0) return [];
  const ids = (await candidatesOf(from, round)).flatMap((id) => id ?? []);
  const chains = await inParts(ids, (part) => from.chains.find({ select: { id: true, name: true }, where: { id: part } }));
  return chains.map(({ id, name }) => ({ id, name })).sort((a, b) => a.name.localeCompare(b.name, 'en'));
}
