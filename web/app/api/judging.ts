import type { VerdictRow } from '@marvet/core/decide/verdict';
import type { Criterion } from '@marvet/core/domain/criterion';
import type { BlindRound, Listener, ListenerDraft, RatingDraft, Session, SessionDraft } from '@marvet/core/domain/session';
import { api } from './base.ts';

/** The verdict as the server gives it; rows only once it was opened. */
export interface VerdictView {
  open: boolean;
  criteria: Criterion[];
  missing: { candidateId: string; name: string; criterionIds: string[] }[];
  rows: VerdictRow[] | null;
}

interface InTrial {
  trialId: string;
}

export const {
  useSessionsQuery,
  useAddSessionMutation,
  useAddListenerMutation,
  useBinListenerMutation,
  useRestoreListenerMutation,
  useRoundQuery,
  useRateMutation,
  useFinishMutation,
  useVerdictQuery,
} = api.injectEndpoints({
  endpoints: (build) => ({
    sessions: build.query<Session[], string>({ query: (trialId) => `trials/${trialId}/sessions`, providesTags: ['Sessions'] }),
    addSession: build.mutation<Session, InTrial & { draft: SessionDraft }>({
      query: ({ trialId, draft }) => ({ url: `trials/${trialId}/sessions`, method: 'POST', body: draft }),
      invalidatesTags: ['Sessions', 'Trials'],
    }),
    addListener: build.mutation<Listener, InTrial & { sessionId: string; draft: ListenerDraft }>({
      query: ({ trialId, sessionId, draft }) => ({ url: `trials/${trialId}/sessions/${sessionId}/listeners`, method: 'POST', body: draft }),
      invalidatesTags: ['Sessions'],
    }),
    binListener: build.mutation<void, InTrial & { sessionId: string; id: string }>({
      query: ({ trialId, sessionId, id }) => ({ url: `trials/${trialId}/sessions/${sessionId}/listeners/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Sessions', 'Trials', 'Verdict'],
    }),
    restoreListener: build.mutation<void, string>({ query: (id) => ({ url: `restore/listeners/${id}`, method: 'POST' }), invalidatesTags: ['Sessions', 'Trials', 'Verdict'] }),
    round: build.query<BlindRound, string>({ query: (listenerId) => `listen/${listenerId}`, providesTags: ['Round'] }),
    rate: build.mutation<RatingDraft, { listenerId: string; rating: RatingDraft }>({
      query: ({ listenerId, rating }) => ({ url: `listen/${listenerId}/ratings`, method: 'PUT', body: rating }),
      invalidatesTags: ['Round'],
    }),
    finish: build.mutation<void, string>({
      query: (listenerId) => ({ url: `listen/${listenerId}/finish`, method: 'POST' }),
      invalidatesTags: ['Round', 'Sessions', 'Trials', 'Verdict'],
    }),
    verdict: build.query<VerdictView, string>({ query: (trialId) => `trials/${trialId}/verdict`, providesTags: ['Verdict'] }),
  }),
});
