import type { OpenListening } from '@marvet/core/contract/openListening';
import type { ReelTold } from '@marvet/core/contract/reel';
import type { VerdictView } from '@marvet/core/contract/verdict';
import type { Allocation } from '@marvet/core/decide/allocate/gear';
import type { RankDoubt, WeightDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import type { Effects } from '@marvet/core/decide/effects/effects';
import type { EventsTold } from '@marvet/core/decide/eventsTold';
import type { Limits } from '@marvet/core/decide/limits/limits';
import type { RawRow } from '@marvet/core/decide/rawFigures';
import type { Moment, MomentDraft } from '@marvet/core/domain/moment';
import type { BlindRound, ChoiceDraft, GuessDraft, Listener, ListenerDraft, RankingDraft, RatingDraft, Round, RoundDraft } from '@marvet/core/domain/round';
import { api } from './api.ts';

interface InTrial {
  trialId: string;
}

export const {
  useRoundsQuery,
  useOpenListeningQuery,
  useReelQuery,
  useAddRoundMutation,
  useCloseRoundMutation,
  useAddListenerMutation,
  useBinListenerMutation,
  useRestoreListenerMutation,
  useRoundQuery,
  useRateMutation,
  useCompareMutation,
  useCloseScoresMutation,
  useGuessMutation,
  useFinishMutation,
  useOrderMutation,
  useAddAwayMutation,
  useReadAnswersMutation,
  useMomentsQuery,
  useAddMomentMutation,
  useChangeMomentMutation,
  useVerdictQuery,
  useDoubtQuery,
  useEffectsQuery,
  useAllocationQuery,
  useLimitsQuery,
  useRawFiguresQuery,
  useEventsToldQuery,
} = api.injectEndpoints({
  endpoints: (build) => ({
    rounds: build.query<Round[], string>({ query: (trialId) => `trials/${trialId}/rounds`, providesTags: ['Rounds'] }),
    /** Clips to be heard with open eyes; what is heard stays as it is, whatever changes meanwhile, and is cut anew the next time. */
    openListening: build.query<OpenListening, InTrial & Pick<RoundDraft, 'recordingIds' | 'targetLufs' | 'ceilingDbtp'>>({
      query: ({ trialId, ...body }) => ({ url: `trials/${trialId}/open-listening`, method: 'POST', body }),
      keepUnusedDataFor: 0,
    }),
    /** What a reel will be; why there can be none is its error. */
    reel: build.query<ReelTold, InTrial & { query: string }>({ query: ({ trialId, query }) => `trials/${trialId}/reel?${query}`, keepUnusedDataFor: 0 }),
    addRound: build.mutation<Round, InTrial & { draft: RoundDraft }>({
      query: ({ trialId, draft }) => ({ url: `trials/${trialId}/rounds`, method: 'POST', body: draft }),
      invalidatesTags: ['Rounds', 'Trials'],
    }),
    closeRound: build.mutation<void, InTrial & { roundId: string }>({
      query: ({ trialId, roundId }) => ({ url: `trials/${trialId}/rounds/${roundId}/close`, method: 'POST' }),
      invalidatesTags: ['Rounds', 'Trials', 'Verdict'],
    }),
    addListener: build.mutation<Listener, InTrial & { roundId: string; draft: ListenerDraft }>({
      query: ({ trialId, roundId, draft }) => ({ url: `trials/${trialId}/rounds/${roundId}/listeners`, method: 'POST', body: draft }),
      invalidatesTags: ['Rounds'],
    }),
    binListener: build.mutation<void, InTrial & { roundId: string; id: string }>({
      query: ({ trialId, roundId, id }) => ({ url: `trials/${trialId}/rounds/${roundId}/listeners/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Rounds', 'Trials', 'Verdict'],
    }),
    restoreListener: build.mutation<void, string>({ query: (id) => ({ url: `restore/listeners/${id}`, method: 'POST' }), invalidatesTags: ['Rounds', 'Trials', 'Verdict'] }),
    round: build.query<BlindRound, string>({ query: (listenerId) => `listen/${listenerId}`, providesTags: ['Round'] }),
    rate: build.mutation<RatingDraft, { listenerId: string; rating: RatingDraft }>({
      query: ({ listenerId, rating }) => ({ url: `listen/${listenerId}/ratings`, method: 'PUT', body: rating }),
      invalidatesTags: ['Round'],
    }),
    order: build.mutation<void, { listenerId: string; ranking: RankingDraft }>({
      query: ({ listenerId, ranking }) => ({ url: `listen/${listenerId}/orders`, method: 'PUT', body: ranking }),
      invalidatesTags: ['Round'],
    }),
    /** A seat for somebody who gets a page. */
    addAway: build.mutation<{ id: string }, InTrial & { roundId: string; name: string }>({
      query: ({ trialId, roundId, name }) => ({ url: `trials/${trialId}/rounds/${roundId}/away`, method: 'POST', body: { name } }),
      invalidatesTags: ['Rounds'],
    }),
    /** The file that such a page saved, as it is; the server says what is wrong with it. */
    readAnswers: build.mutation<{ name: string }, InTrial & { roundId: string; answers: string }>({
      query: ({ trialId, roundId, answers }) => ({
        url: `trials/${trialId}/rounds/${roundId}/answers`,
        method: 'POST',
        body: answers,
        headers: { 'content-type': 'application/json' },
      }),
      invalidatesTags: ['Rounds', 'Trials', 'Verdict'],
    }),
    moments: build.query<Moment[], string>({ query: (trialId) => `trials/${trialId}/moments`, providesTags: ['Moments'] }),
    addMoment: build.mutation<Moment, InTrial & { draft: MomentDraft }>({
      query: ({ trialId, draft }) => ({ url: `trials/${trialId}/moments`, method: 'POST', body: draft }),
      invalidatesTags: ['Moments'],
    }),
    changeMoment: build.mutation<void, InTrial & { id: string; note: string }>({
      query: ({ trialId, id, note }) => ({ url: `trials/${trialId}/moments/${id}`, method: 'PUT', body: { note } }),
      invalidatesTags: ['Moments'],
    }),
    compare: build.mutation<void, { listenerId: string; number: number; choice: ChoiceDraft }>({
      query: ({ listenerId, number, choice }) => ({ url: `listen/${listenerId}/comparisons/${number}`, method: 'PUT', body: choice }),
      invalidatesTags: ['Round'],
    }),
    closeScores: build.mutation<void, string>({ query: (listenerId) => ({ url: `listen/${listenerId}/close`, method: 'POST' }), invalidatesTags: ['Round'] }),
    guess: build.mutation<void, { listenerId: string; guess: GuessDraft }>({
      query: ({ listenerId, guess }) => ({ url: `listen/${listenerId}/guess`, method: 'PUT', body: guess }),
      invalidatesTags: ['Round'],
    }),
    finish: build.mutation<void, string>({
      query: (listenerId) => ({ url: `listen/${listenerId}/finish`, method: 'POST' }),
      invalidatesTags: ['Round', 'Rounds', 'Trials', 'Verdict'],
    }),
    /** How sure the ranking is; worked out anew when the verdict changes. */
    doubt: build.query<RankDoubt, InTrial & { weights: WeightDoubt }>({
      query: ({ trialId, weights }) => `trials/${trialId}/verdict/doubt?weights=${weights}`,
      providesTags: ['Verdict'],
    }),
    /** What made the difference; `together` asks of pairs, as candidate*windscreen, whether they work on each other. */
    effects: build.query<Effects[], InTrial & { together: string }>({
      query: ({ trialId, together }) => ({ url: `trials/${trialId}/verdict/effects`, params: { together } }),
      providesTags: ['Verdict'],
    }),
    /** Who gets what; follows roles, budget and kit besides the verdict. */
    allocation: build.query<Allocation, string>({ query: (trialId) => `trials/${trialId}/verdict/allocation`, providesTags: ['Verdict', 'Trials'] }),
    /** What was found in the recordings of each candidate. */
    eventsTold: build.query<EventsTold[], string>({ query: (trialId) => `trials/${trialId}/verdict/events`, providesTags: ['Verdict', 'Recordings'] }),
    rawFigures: build.query<RawRow[], string>({ query: (trialId) => `trials/${trialId}/verdict/raw`, providesTags: ['Verdict'] }),
    limits: build.query<Limits[], string>({ query: (trialId) => `trials/${trialId}/verdict/limits`, providesTags: ['Verdict', 'Plan'] }),
    verdict: build.query<VerdictView, string>({ query: (trialId) => `trials/${trialId}/verdict`, providesTags: ['Verdict'] }),
  }),
});
