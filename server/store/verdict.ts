import { chainBurden } from '@marvet/core/chain/burden';
import { type Aggregate, aggregateBy, counts, oneValue, type Sample } from '@marvet/core/decide/aggregate';
import { judge, type VerdictRow } from '@marvet/core/decide/verdict';
import type { Criterion } from '@marvet/core/domain/criterion';
import { conditionKey } from '@marvet/core/domain/factor';
import { isSpoiled } from '@marvet/core/domain/take';
import { In, IsNull } from 'typeorm';
import type { RecordingRow, TakeRow } from './rows.ts';
import type { Store } from './store.ts';

/** A verdict: its criteria, and every candidate on them. */
export interface Verdict {
  criteria: Criterion[];
  rows: VerdictRow[];
}

/** Computes the verdict of a trial from its reports, finished listeners and marks. */
export async function computeVerdict(store: Store, trialId: string): Promise<Verdict> {
  const here = { trialId, binnedAtMs: IsNull() };
  const [criteria, chains, items, takes, files, marks] = await Promise.all([
    store.criteria.find({ where: here, order: { position: 'ASC' } }),
    store.chains.find({ where: { ...here, candidate: true }, order: { position: 'ASC' } }),
    store.items.find(),
    store.takes.findBy(here),
    store.files.find({ select: { id: true, takeId: true }, where: here }),
    store.marks.findBy({ trialId }),
  ]);
  const recordings = await store.recordings.find({ select: { id: true, fileId: true, candidateId: true, figures: true }, where: { trialId } });
  const usable = usableRecordings(recordings, takes, new Map(files.map((file) => [file.id, file.takeId])));
  const ratings = await finishedRatings(store, trialId);
  const itemById = new Map(items.map((item) => [item.id, item]));
  const values = new Map<string, Map<string, Aggregate>>();
  for (const criterion of criteria) {
    if (criterion.kind === 'measured') values.set(criterion.id, aggregateBy(measuredSamples(criterion, usable), oneValue(criterion)));
    else if (criterion.kind === 'listened') values.set(criterion.id, aggregateBy(listenedSamples(criterion, usable, ratings), oneValue(criterion)));
    else {
      const given = marks.filter((mark) => mark.criterionId === criterion.id && mark.points !== null);
      values.set(criterion.id, new Map(given.map((mark) => [mark.chainId, { value: mark.points as number, count: 1, sameConditions: true }])));
    }
  }
  const candidates = chains.map((chain) => {
    const { price, currency } = chainBurden(chain, itemById);
    return { id: chain.id, name: chain.name, price, currency };
  });
  return { criteria, rows: judge(criteria, candidates, values) };
}

interface Usable {
  recording: Pick<RecordingRow, 'id' | 'candidateId' | 'figures'>;
  take: TakeRow;
  candidateId: string;
}

/** Recordings tied to a candidate and to a take that was not spoiled. */
function usableRecordings(
  recordings: readonly Pick<RecordingRow, 'id' | 'fileId' | 'candidateId' | 'figures'>[],
  takes: readonly TakeRow[],
  takeOfFile: ReadonlyMap<string, string | null>,
): Usable[] {
  const takeById = new Map(takes.filter((take) => !isSpoiled(take)).map((take) => [take.id, take]));
  return recordings.flatMap((recording) => {
    const take = takeById.get(takeOfFile.get(recording.fileId) ?? '');
    return take && recording.candidateId ? [{ recording, take, candidateId: recording.candidateId }] : [];
  });
}

function measuredSamples(criterion: Criterion, usable: readonly Usable[]): Sample[] {
  return usable.flatMap(({ recording, take, candidateId }) => {
    const value = criterion.measureId ? recording.figures?.[criterion.measureId] : undefined;
    return value === undefined || !counts(criterion, take.condition) ? [] : [{ candidateId, conditionKey: conditionKey(take.condition), value }];
  });
}

interface HeardRating {
  recordingId: string;
  criterionId: string;
  points: number;
}

async function finishedRatings(store: Store, trialId: string): Promise<HeardRating[]> {
  const rounds = await store.rounds.findBy({ trialId, binnedAtMs: IsNull() });
  const listeners = await store.listeners.findBy({ roundId: In(rounds.map((round) => round.id)), binnedAtMs: IsNull() });
  const done = listeners.filter((listener) => listener.finishedAtMs !== null);
  const ratings = await store.ratings.findBy({ listenerId: In(done.map((listener) => listener.id)) });
  return ratings.flatMap((rating) => {
    const listener = done.find((each) => each.id === rating.listenerId);
    const round = rounds.find((each) => each.id === listener?.roundId);
    const place = listener?.order[rating.letter.charCodeAt(0) - 65];
    const recordingId = place === undefined ? undefined : round?.recordingIds[place];
    return recordingId ? [{ recordingId, criterionId: rating.criterionId, points: rating.points }] : [];
  });
}

function listenedSamples(criterion: Criterion, usable: readonly Usable[], ratings: readonly HeardRating[]): Sample[] {
  const byId = new Map(usable.map((each) => [each.recording.id, each]));
  return ratings.flatMap((rating) => {
    const heard = rating.criterionId === criterion.id ? byId.get(rating.recordingId) : undefined;
    return heard && counts(criterion, heard.take.condition) ? [{ candidateId: heard.candidateId, conditionKey: conditionKey(heard.take.condition), value: rating.points }] : [];
  });
}
