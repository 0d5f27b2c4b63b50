import type { Beginning, LaidOut, LayBack, LayOut } from '@marvet/core/contract/beginning';
import { api } from './api.ts';

export const { useBeginningQuery, useLayOutMutation, useLayBackMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    /** What belongs together of the recordings that lie in no take; while files are listened to there is more and more. */
    beginning: build.query<Beginning, string>({ query: (trialId) => `trials/${trialId}/beginning`, providesTags: ['Files', 'Sounds', 'Takes'] }),
    /** Makes candidates and takes of recordings. */
    layOut: build.mutation<LaidOut, { trialId: string; draft: LayOut }>({
      query: ({ trialId, draft }) => ({ url: `trials/${trialId}/beginning`, method: 'POST', body: draft }),
      invalidatesTags: ['Takes', 'Chains', 'Files', 'Recordings', 'Trials', 'Verdict', 'Sounds'],
    }),
    /** Takes laying out back, with what it answered. */
    layBack: build.mutation<void, { trialId: string; back: LayBack }>({
      query: ({ trialId, back }) => ({ url: `trials/${trialId}/beginning/back`, method: 'POST', body: back }),
      invalidatesTags: ['Takes', 'Chains', 'Files', 'Recordings', 'Trials', 'Verdict', 'Sounds'],
    }),
  }),
});
