import type { ExpectationDraft, Trial, TrialDraft, TrialPatch } from '@marvet/core/domain/trial';
import { api } from './api.ts';

const trialApi = api.injectEndpoints({
  endpoints: (build) => ({
    trial: build.query<Trial, string>({ query: (id) => `trials/${id}`, providesTags: ['Trials'] }),
  }),
});

export const { useTrialQuery } = trialApi;
export const {
  useTrialsQuery,
  useAddTrialMutation,
  useChangeTrialMutation,
  useCopyTrialMutation,
  useBinTrialMutation,
  useRestoreTrialMutation,
  useSealExpectationMutation,
  useOpenVerdictMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    trials: build.query<Trial[], void>({ query: () => 'trials', providesTags: ['Trials'] }),
    addTrial: build.mutation<Trial, Partial<TrialDraft> & { name: string }>({ query: (body) => ({ url: 'trials', method: 'POST', body }), invalidatesTags: ['Trials'] }),
    changeTrial: build.mutation<Trial, { id: string; version: number; patch: TrialPatch }>({
      query: ({ id, version, patch }) => ({ url: `trials/${id}`, method: 'PATCH', body: { ...patch, version } }),
      async onQueryStarted({ id }, { dispatch, queryFulfilled }) {
        const { data } = await queryFulfilled.catch(() => ({ data: null }));
        if (data) dispatch(trialApi.util.updateQueryData('trial', id, () => data));
      },
      invalidatesTags: ['Trials'],
    }),
    copyTrial: build.mutation<Trial, string>({ query: (id) => ({ url: `trials/${id}/copy`, method: 'POST' }), invalidatesTags: ['Trials'] }),
    binTrial: build.mutation<void, string>({ query: (id) => ({ url: `trials/${id}`, method: 'DELETE' }), invalidatesTags: ['Trials'] }),
    restoreTrial: build.mutation<Trial, string>({ query: (id) => ({ url: `trials/${id}/restore`, method: 'POST' }), invalidatesTags: ['Trials'] }),
    sealExpectation: build.mutation<Trial, { id: string; draft: ExpectationDraft }>({
      query: ({ id, draft }) => ({ url: `trials/${id}/expectation`, method: 'PUT', body: draft }),
      invalidatesTags: ['Trials'],
    }),
    openVerdict: build.mutation<Trial, string>({ query: (id) => ({ url: `trials/${id}/verdict/open`, method: 'POST' }), invalidatesTags: ['Trials', 'Verdict'] }),
  }),
});
